import type { Mark } from './marks'

/** Marks of one row from its own top edge, and its height. */
export interface Row {
  marks: Mark[]
  height: number
}
export const EMPTY_ROW: Row = { marks: [], height: 0 }
