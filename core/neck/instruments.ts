import { midi } from '../pitch/note'
import type { Instrument } from './instrument'

/** An instrument as a player names it. */
export interface NamedInstrument {
  name: string
  /** Open strings from the lowest, in scientific pitch. */
  tuning: readonly string[]
  /** Nut to saddle in mm. */
  scaleLengthMm: number
  /** Frets on the neck. */
  frets: number
  /** The highest fret the hand gets to at ease before the body is in its way. */
  cutaway: number
}

/**
 * Usual instruments. Tunings are the trade's standard ones; scale lengths are those most makers use
 * (common practice, no source).
 */
// prettier-ignore
export const INSTRUMENTS: Readonly<Record<string, NamedInstrument>> = {
  standard: { name: 'Guitar, standard tuning', tuning: ['E2', 'A2', 'D3', 'G3', 'B3', 'E4'], scaleLengthMm: 648, frets: 20, cutaway: 15 },
  dropD: { name: 'Guitar, drop D', tuning: ['D2', 'A2', 'D3', 'G3', 'B3', 'E4'], scaleLengthMm: 648, frets: 20, cutaway: 15 },
  dadgad: { name: 'Guitar, DADGAD', tuning: ['D2', 'A2', 'D3', 'G3', 'A3', 'D4'], scaleLengthMm: 648, frets: 20, cutaway: 15 },
  openG: { name: 'Guitar, open G', tuning: ['D2', 'G2', 'D3', 'G3', 'B3', 'D4'], scaleLengthMm: 648, frets: 20, cutaway: 15 },
  sevenString: { name: 'Seven-string guitar', tuning: ['B1', 'E2', 'A2', 'D3', 'G3', 'B3', 'E4'], scaleLengthMm: 648, frets: 22, cutaway: 17 },
  baritone: { name: 'Baritone guitar', tuning: ['B1', 'E2', 'A2', 'D3', 'F#3', 'B3'], scaleLengthMm: 686, frets: 22, cutaway: 17 },
}

/** Strings an instrument of the player's own can have. */
export const STRINGS_RANGE = [4, 8] as const
export const SCALE_LENGTH_RANGE_MM = [300, 1000] as const

export const instrumentOf = (
  { tuning, scaleLengthMm }: Pick<NamedInstrument, 'tuning' | 'scaleLengthMm'>,
  capo: number,
): Instrument => ({ tuning: tuning.map(midi), capo, scaleLengthMm })
