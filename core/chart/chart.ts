import type { Symbol } from '../chord/symbol'
import type { Key } from '../pitch/key'

/** One chord of a chart at its place. Beats count from 1 inside the bar; lengths are in beats of the metre. */
export interface Slot {
  /** From 1. */
  bar: number
  beat: number
  beats: number
  /** As typed (for a repeated bar: as typed in the bar it repeats). */
  text: string
  /** `null` when the text could not be read; the reason is in the chart's problems. */
  symbol: Symbol | null
}

export interface Bar {
  /** From 1. */
  number: number
  /** Name of the section this bar stands in, or null before the first `[A]`. */
  section: string | null
  opensSection: boolean
  /** The bar was written `%`. */
  repeats: boolean
  slots: Slot[]
}

/** Something in the text that could not be used, with its place. Everything else of the chart still stands. */
export interface ChartProblem {
  code: string
  message: string
  accepted: string
  /** From 1, in the text. */
  line: number
  column: number
  text: string
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

export interface Chart {
  title: string | null
  /** As given by the text; null when the text names none. */
  key: Key | null
  meter: Meter
  /** Beats a minute, or null when the text gives none. */
  tempo: number | null
  bars: Bar[]
  problems: ChartProblem[]
}

export const slotsOf = (chart: Chart): Slot[] => chart.bars.flatMap((bar) => bar.slots)

/** The place of a slot as a word: `bar 3, beat 1`. */
export const placeName = (place: { bar: number; beat: number }): string =>
  `bar ${place.bar}, beat ${Math.round(place.beat * 100) / 100}`

/** A key for maps and rows; equal exactly when bar and beat are equal. */
export const slotKey = (place: { bar: number; beat: number }): string => `${place.bar}:${Math.round(place.beat * 1000) / 1000}`
