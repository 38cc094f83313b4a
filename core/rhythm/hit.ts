import type { Slot } from '../chart/chart'
import type { ChordSymbol } from '../chord/symbol'
import type { Accent, FigureHit, Part, Stroke } from './figures'

export const RESTARTS = ['tune', 'section', 'bar'] as const
/** Where the cycle of a figure begins again. */
export type Restart = (typeof RESTARTS)[number]

/** A hit put in by hand. */
export type OwnHit = Omit<FigureHit, 'at'>

/** A hit before its chord is known. */
export interface RawHit {
  time: number
  /** Beats of the first metre in a beat of its bar. */
  scale: number
  length: number | 'short' | 'held'
  part: Part
  accent: Accent
  stroke: Stroke
  push: boolean
  why?: string
}

/** A hit of a figure at its time in the tune. */
export interface LaidHit {
  /** As written; a pickup is bar 0. */
  bar: number
  beat: number
  /** Length in beats of that bar. */
  beats: number
  /** In beats of the first metre, from the beginning of what is played, unswung. */
  time: number
  lasts: number
  slot: Slot
  chord: ChordSymbol
  part: Part
  accent: Accent
  stroke: Stroke
  /** When its chord begins: later than the hit where it is pushed. */
  chordFrom: number
  pushed: boolean
  /** Where it is not what the figure says: why. */
  why?: string
}

/** A hit of the figure that is not played, and why. */
export interface LeftOut {
  bar: number
  beat: number
  part: Part
  why: string
}

/** A hit with the span of the chord it sounds. */
export interface ChordedHit extends LaidHit {
  chordAt: number
}
