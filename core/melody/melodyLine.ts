import type { LimitNames } from './whyNoHarmony'
import { slotsOf, type Chart } from '../chart/chart'
import type { ChordSymbol } from '../chord/symbol'
import type { StyleName, Weights } from '../leading/weights'
import type { Frets } from '../neck/instrument'
import type { MelodyNote } from '../reharm/melodyFit'
import type { Limits } from '../voicing/gripLimits'
import type { Voicing } from '../voicing/voicing'
import type { MelodyTexture } from './melodyTextures'
import type { UnderKind } from './underNote'

/**
 * What stands under a melody note: a chord of its own, the chord's grip held while the melody
 * moves, the note alone, or a voice that moves while the note sounds on.
 */
export type Under = 'chord' | 'held' | 'single' | 'line'

/**
 * Where chords are struck: with the first note of each bar, with each chord, on each beat, or with
 * every note.
 */
export const DENSITIES = ['bar', 'chord', 'beat', 'note'] as const
export type Density = (typeof DENSITIES)[number]

/** A chord in its time; null where nobody plays. */
export interface LinePlace {
  chord: ChordSymbol | null
  bar: number
  beat: number
  beats: number
}

export type NoteKind =
  | UnderKind
  | 'held grip'
  | 'note between'
  | 'another chord'
  | 'single note'
  | 'chord in a rest'
  | 'by hand'
  | LowerKind
  | BlockKind
/** What a note of the lower of two moving lines is. */
export type LowerKind =
  'chord tone' | 'passing note' | 'suspension 4-3' | 'suspension 7-6' | 'suspension 9-8' | 'resolution'
/** How a block under a note was made. */
export type BlockKind = 'step of the scale' | 'stacked fourths'

export interface HarmonisedNote {
  /** Null where the melody rests and the chord is struck alone. */
  note: MelodyNote | null
  /** The note sounds on from before and is struck again with a new chord. */
  again: boolean
  bar: number
  beat: number
  /** Beats to the next event. */
  beats: number
  chord: ChordSymbol | null
  under: Under
  kind: NoteKind
  voicing: Voicing
}

export interface HarmonisedLine {
  cost: number
  notes: HarmonisedNote[]
  /** What could not be played, which stands by itself: the rest of the tune is there. */
  leftOut?: readonly NotPlayed[]
}

/** A note of the melody, or a chord in a rest, for which there is nothing within the limits. */
export interface NotPlayed {
  note: MelodyNote | null
  bar: number
  beat: number
  /** Why, and what would help. */
  message: string
  accepted: string
}

/** A grip the player put under a note; it stays. */
export interface FixedUnder {
  frets: Frets
  /** What it is called; null for the note alone, or a grip that is held. */
  chord: ChordSymbol | null
}

export interface HarmoniseProblem {
  chart: Chart
  melody: readonly MelodyNote[]
  limits: Limits
  /** The chords in their time; those of the chart where they are not given. */
  places?: readonly LinePlace[]
  style?: StyleName
  weights?: Partial<Weights>
  density?: Density
  texture?: MelodyTexture
  /** Beats a minute; the chart's where it is not given. */
  tempo?: number
  /** By place, `bar:beat`. */
  fixed?: ReadonlyMap<string, FixedUnder>
  /** Chords that begin under a held note or in a rest are struck too. */
  fills?: boolean
  count?: number
  /** What the limits are called, for what is said where they leave nothing. */
  limitNames?: LimitNames
  /** Called as the search goes on; returning false stops it. */
  onProgress?: (done: number, of: number) => boolean
}

/** What stands in the place of a chord where nobody plays. */
export const SILENT: ChordSymbol = {
  text: 'N.C.',
  canonical: 'N.C.',
  root: { letter: 0, alter: 0 },
  suffix: '',
  bass: null,
  tones: [],
}

/** The chords of a chart in their time. */
export const chordPlacesInTime = (chart: Chart): LinePlace[] =>
  slotsOf(chart).map(({ symbol, bar, beat, beats }) => ({
    chord: symbol?.kind === 'chord' ? symbol.chord : null,
    bar,
    beat,
    beats,
  }))

export const placeKey = ({ bar, beat }: { bar: number; beat: number }): string =>
  `${bar}:${Math.round(beat * 1000) / 1000}`
