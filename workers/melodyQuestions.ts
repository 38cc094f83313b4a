import type { PlayerBody } from '../core/player/playerLimits'
import type { ChordMelodySettings, KeptNote } from '../core/tune/melodySchema'
import type { StyleName, Weights } from '../core/leading/weights'
import type { Frets } from '../core/neck/instrument'
import type { Family } from '../core/voicing/family'

/** A tune with its melody, as plain data: chords go as symbols, pitches by name. */
export interface MelodyAsked {
  text: string
  places: { symbol: string | null; bar: number; beat: number; beats: number }[]
  melody: KeptNote[]
}

/** What a chord melody is made from. */
export interface UnderAsked extends MelodyAsked {
  settings: ChordMelodySettings
  style: StyleName
  weights: Weights | null
  bass: 'chord' | 'any'
  body: PlayerBody
  tempo: number
  fixed: [place: string, { frets: Frets; symbol: string | null }][]
}

export type BlockAsked =
  | { kind: 'sevenths'; key: string; tone: 1 | 3 | 5 | 7; family: Family | null }
  | { kind: 'sixth-diminished'; chord: string; family: Family | null }
  | { kind: 'fourths'; key: string }
