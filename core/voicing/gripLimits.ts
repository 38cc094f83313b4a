import type { Degree } from '../pitch/degree'
import { DEFAULT_HAND, type Hand } from '../neck/hand'
import { STANDARD_GUITAR, type Instrument } from '../neck/instrument'
import type { Family } from './family'

/**
 * Who plays the bass, which decides what a grip may leave out at the bottom: `chord` the symbol's
 * bass note (the root without a slash) is lowest; `root` the root is lowest; `any` any chord tone
 * is lowest and the root may be missing; `none` the root is not sounded at all.
 */
export type BassRule = 'chord' | 'root' | 'any' | 'none'

/** What the grips of a chord must keep to. */
export interface Limits {
  instrument: Instrument
  hand: Hand
  /** Lowest and highest fret held; open strings lie outside this. */
  frets: readonly [number, number]
  /** String indexes that may sound, or null for all. */
  strings: readonly number[] | null
  /** Fewest and most sounding strings. */
  notes: readonly [number, number]
  /** Lowest and highest sounding MIDI number, or null. */
  range: readonly [number, number] | null
  open: boolean
  bass: BassRule
  /** Degrees that may be left out beyond the usual ones. */
  omit: readonly Degree[]
  /** Only these families, or null for all. */
  families: readonly Family[] | null
  /** MIDI number that must be the highest, or null. */
  top: number | null
  /** Strings that ring open at least; none where it is not said. */
  openAtLeast?: number
}

export const DEFAULT_LIMITS: Limits = {
  instrument: STANDARD_GUITAR,
  hand: DEFAULT_HAND,
  frets: [0, 12],
  strings: null,
  notes: [3, 6],
  range: null,
  open: true,
  bass: 'chord',
  omit: [],
  families: null,
  top: null,
}

/**
 * What the grips of a tune's lines keep to: comping grips of three to five notes in the first
 * twelve frets.
 */
export const TUNE_LIMITS: Limits = { ...DEFAULT_LIMITS, notes: [3, 5] }

/**
 * The same with a capo, on some instrument and for some hand: twelve frets above the capo, open
 * strings sounding at it, as far as the hand gets.
 */
export const tuneLimits = (
  capo: number,
  bass: BassRule,
  { tuning, scaleLengthMm }: Pick<Instrument, 'tuning' | 'scaleLengthMm'> = STANDARD_GUITAR,
  hand: Hand = DEFAULT_HAND,
  cutaway = Infinity,
): Limits => ({
  ...TUNE_LIMITS,
  bass,
  hand,
  instrument: { tuning, scaleLengthMm, capo },
  frets: [0, Math.min(cutaway, TUNE_LIMITS.frets[1] + capo)],
})
