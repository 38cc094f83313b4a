/** How a pass went, as the player says: nobody listens in. */
export const GRADES = ['clean', 'nearly', 'failed'] as const
export type Grade = (typeof GRADES)[number]

/** What can be practised. */
export const ITEM_KINDS = [
  'warm-up',
  'passage',
  'change',
  'grip',
  'top line',
  'cadence',
  'keys',
  'question',
  'tune',
] as const
export type ItemKind = (typeof ITEM_KINDS)[number]

/** One pass of something, as the log has it. Times are ms since 1970, tempos beats a minute. */
export interface Pass {
  kind: ItemKind
  item: string
  at: number
  tempo?: number
  grade: Grade
}

/** The same thing in two passes: its kind and its name. */
export const itemKey = ({ kind, item }: { kind: string; item: string }): string => `${kind} ${item}`
