import type { z } from 'zod'
import type { TuneDocument } from '../document'

type Edits = readonly z.ZodObject[]
type OfKind<Schemas extends Edits, Kind> = Extract<z.infer<Schemas[number]>, { kind: Kind }>
type KindsOf<Schemas extends Edits> = Extract<z.infer<Schemas[number]>, { kind: string }>['kind']

/**
 * The edits of one area of a tune: what each may hold, what a document becomes by it, and what undo
 * calls it.
 */
export interface Area<Schemas extends Edits> {
  schemas: Schemas
  apply: { [Kind in KindsOf<Schemas>]: (document: TuneDocument, edit: OfKind<Schemas, Kind>) => TuneDocument }
  label: { [Kind in KindsOf<Schemas>]: (edit: OfKind<Schemas, Kind>) => string }
}

/**
 * Holds an area to its own schemas: a kind that has no way to be done, or no name, does not
 * compile.
 */
export const area = <const Schemas extends Edits>(
  schemas: Schemas,
  apply: Area<Schemas>['apply'],
  label: Area<Schemas>['label'],
): Area<Schemas> => ({ schemas, apply, label })
