import type { FingerOrThumb } from './hand'

/** One finger (or the thumb) holding one fret on one string, or on a run of strings as a barre. */
export interface Press {
  finger: FingerOrThumb
  fret: number
  /** String indexes the press sounds, lowest first. */
  strings: readonly number[]
}
