import { z } from 'zod'
import type { TuneDocument } from './document'
import { chartEdits } from './edits/chart'
import { colourEdits } from './edits/colour'
import { lineEdits } from './edits/lines'
import { melodyEdits } from './edits/melody'
import { rhythmEdits } from './edits/rhythm'

/** One thing the player does to a tune: a file an area in `edits`, joined here. */
export const tuneEdit = z.discriminatedUnion('kind', [
  ...chartEdits.schemas,
  ...colourEdits.schemas,
  ...lineEdits.schemas,
  ...melodyEdits.schemas,
  ...rhythmEdits.schemas,
])
export type TuneEdit = z.infer<typeof tuneEdit>

const APPLY = {
  ...chartEdits.apply,
  ...colourEdits.apply,
  ...lineEdits.apply,
  ...melodyEdits.apply,
  ...rhythmEdits.apply,
}
const LABEL = {
  ...chartEdits.label,
  ...colourEdits.label,
  ...lineEdits.label,
  ...melodyEdits.label,
  ...rhythmEdits.label,
}

/** What a document becomes by an edit. The same function serves the screen at once and the database after it. */
export const applyEdit = (document: TuneDocument, edit: TuneEdit): TuneDocument =>
  (APPLY[edit.kind] as (document: TuneDocument, edit: TuneEdit) => TuneDocument)(document, edit)

/** What was done, for undo and redo. */
export const labelOf = (edit: TuneEdit): string => (LABEL[edit.kind] as (edit: TuneEdit) => string)(edit)

/** What a search found, not something the player did: it is no step of its own for undo. */
export const isFound = ({ kind }: TuneEdit): boolean => kind === 'grips' || kind === 'melody-kept'
