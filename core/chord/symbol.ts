import type { Degree } from '../pitch/degree'
import type { Note } from '../pitch/note'

/**
 * How badly a grip needs a tone (common practice: keep what carries the quality and what the symbol
 * names; leave out first the natural fifth, then what a higher tension only implies). Common
 * practice, no source.
 */
export type Need =
  | 'root'
  /** Third, sus tone, sixth, seventh, altered fifth, and every tension the symbol names. */
  | 'named'
  /** Natural fifth, or a tension that a higher one only implies. */
  | 'free'
  /**
   * One of a group of which a grip needs at least one (the altered ninths and fifths of an alt
   * chord).
   */
  | 'one-ninth'
  | 'one-fifth'

export interface Tone {
  degree: Degree
  note: Note
  need: Need
}

export interface ChordSymbol {
  /** As the player typed it. */
  text: string
  /** One spelling for each meaning; reading it gives the same chord. */
  canonical: string
  root: Note
  /** The note after the slash, if any. */
  bass: Note | null
  /** What stands after the root in `canonical`. */
  suffix: string
  /**
   * Root first, then in degree order. The bass of a slash chord is not among them unless it is a
   * chord tone.
   */
  tones: readonly Tone[]
}

/** A chord of the chart, or an explicit silence (`N.C.`). */
export type ChartSymbol =
  { kind: 'chord'; chord: ChordSymbol } | { kind: 'silence'; text: string; canonical: 'N.C.' }

export const hasDegree = (chord: ChordSymbol, ...degrees: Degree[]): boolean =>
  chord.tones.some((tone) => degrees.includes(tone.degree))
