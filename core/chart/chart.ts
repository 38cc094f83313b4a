import { beatInWords } from './beats'
import type { ChartSymbol } from '../chord/symbol'
import type { Key } from '../pitch/key'

/**
 * One chord of a chart at its place. Beats count from 1 inside the bar; lengths are in beats of the
 * metre.
 */
export interface Slot {
  /** As `Bar.number`. */
  bar: number
  beat: number
  beats: number
  /** As typed (for a repeated bar: as typed in the bar it repeats). */
  text: string
  /** `null` when the text could not be read; the reason is in the chart's problems. */
  symbol: ChartSymbol | null
  /** Written as a hold: the chord of the bar before goes on sounding. */
  held: boolean
}

/**
 * Words over a bar that say where the players go. `segno` and `coda` stand where it begins, the
 * others where it ends.
 */
export const MARKS = [
  'Segno',
  'Coda',
  'To Coda',
  'Fine',
  'D.C.',
  'D.C. al Fine',
  'D.C. al Coda',
  'D.S.',
  'D.S. al Fine',
  'D.S. al Coda',
] as const
export type ChartMark = (typeof MARKS)[number]

export const beginsBar = (mark: ChartMark): boolean => mark === 'Segno' || mark === 'Coda'

export interface Bar {
  /** From 1; a pickup bar is 0. */
  number: number
  /** Name of the section this bar stands in, or null before the first `[A]`. */
  section: string | null
  opensSection: boolean
  /** The bar was written `%`. */
  repeats: boolean
  slots: Slot[]
  /** In force in this bar. */
  meter: Meter
  /** Number of the beat it begins on: 1, later for a pickup. */
  from: number
  /**
   * Beats it is written with. Other than `due` when the player wrote too many or too few, which is
   * a problem of the chart.
   */
  beats: number
  /** Beats it should have: those of the metre, fewer for a pickup. */
  due: number
  /** A key or metre written in front of this bar, other than those the chart begins with. */
  newKey: Key | null
  newMeter: boolean
  /** `|:` stands before it. */
  opensRepeat: boolean
  /** How often the passage that ends here is played in all; 0 where no `:|` stands. */
  played: number
  /** Passes for which the ending that begins here is played; empty where none begins. */
  ending: readonly number[]
  marks: readonly ChartMark[]
  /** Words to the players where it begins: `"lightly"`. */
  remarks: readonly string[]
  /** Where its signs stand in the text: line and columns from 1, `end` behind the last sign. */
  source: { line: number; column: number; end: number }
}

/**
 * Something in the text that could not be used, with its place. Everything else of the chart still
 * stands.
 */
export interface ChartProblem {
  code: string
  message: string
  accepted: string
  /** From 1, in the text. */
  line: number
  column: number
  /** The whole word that is wrong, as it stands in the text from there on. */
  text: string
  /** Chord symbols it may have been meant as, the nearest first. */
  near?: string[]
  /** Where in the music, when it is in a bar. */
  bar?: number
  beat?: number
}

export interface Meter {
  /** Beats in a bar (the upper figure). */
  beats: number
  /** The note that is a beat (the lower figure). */
  unit: number
}

export const meterName = ({ beats, unit }: Meter): string => `${beats}/${unit}`

/** Styles that decide what is played at a place. */
export const IDIOMS = ['song', 'gospel', 'blues', 'minor blues', 'jazz', 'modal', 'bossa', 'waltz'] as const
export type Idiom = (typeof IDIOMS)[number]

export interface Chart {
  title: string | null
  /** As given by the text at its beginning; null when the text names none. */
  key: Key | null
  /** At the beginning. */
  meter: Meter
  /** Beats a minute, or null when the text gives none. */
  tempo: number | null
  /** The style the text names; null where it is read from the chords. */
  idiom: Idiom | null
  /** Fret of the capo, 0 for none. Symbols say what sounds. */
  capo: number
  /** Beats of the pickup bar, 0 for none. */
  pickup: number
  bars: Bar[]
  problems: ChartProblem[]
  /**
   * Lines that could not be used, with the index of the bar they stand before: kept so that
   * printing loses nothing.
   */
  loose: { before: number; text: string }[]
}

export const slotsOf = (chart: Chart): Slot[] => chart.bars.flatMap((bar) => bar.slots)

/** A bar number as players say it. */
export const barName = (number: number): string => (number === 0 ? 'pickup' : `bar ${number}`)

/** The place of a slot as a word: `bar 3, beat 1`. */
export const placeName = (place: { bar: number; beat: number }): string =>
  `${barName(place.bar)}, ${beatInWords(place.beat)}`

/** A key for maps and rows; equal exactly when bar and beat are equal. */
export const slotKey = (place: { bar: number; beat: number }): string =>
  `${place.bar}:${Math.round(place.beat * 1000) / 1000}`
