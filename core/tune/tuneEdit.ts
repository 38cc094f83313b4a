import { z } from 'zod'
import type { TuneDocument } from './document'
import { chartEdits } from './edits/chartEdits'
import { colourEdits } from './edits/colourEdits'
import { lineEdits } from './edits/lineEdits'
import { melodyEdits } from './edits/melodyEdits'
import { rhythmEdits } from './edits/rhythmEdits'

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

/**
 * What a document becomes by an edit. The same function serves the screen at once and the database
 * after it.
 */
export const applyEdit = (document: TuneDocument, edit: TuneEdit): TuneDocument =>
  (APPLY[edit.kind] as (document: TuneDocument, edit: TuneEdit) => TuneDocument)(document, edit)

/** On which step each is done. */
const STEP_OF: Readonly<Record<string, string>> = Object.fromEntries(
  (
    [
      ['Chart', chartEdits.label],
      ['Colour', colourEdits.label],
      ['Lines', lineEdits.label],
      ['Melody', melodyEdits.label],
      ['Rhythm', rhythmEdits.label],
    ] as const
  ).flatMap(([step, labels]) => Object.keys(labels).map((kind) => [kind, step])),
)
/** These stand over all steps. */
const EVERYWHERE: readonly TuneEdit['kind'][] = ['title', 'tempo']

/** What was done and where, for undo and redo: `capo 5, Chart`. */
export const labelOf = (edit: TuneEdit): string => {
  const what = (LABEL[edit.kind] as (edit: TuneEdit) => string)(edit)
  return EVERYWHERE.includes(edit.kind) ? what : `${what}, ${STEP_OF[edit.kind]!}`
}

/** What a search found, not something the player did: it is no step of its own for undo. */
export const isSearchResult = ({ kind }: TuneEdit): boolean => kind === 'grips' || kind === 'melody-kept'
