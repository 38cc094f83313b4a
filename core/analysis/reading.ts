import type { Slot } from '../chart/chart'
import type { Key } from '../pitch/key'

/**
 * What a chord does where it stands, as the table of available tensions divides it (theory: availability by function).
 * This, not the letter of the chord, decides which colours it can take.
 */
export type Role =
  | 'I major' | 'IV major' | 'borrowed major'
  | 'ii minor' | 'iii minor' | 'vi minor' | 'iv minor' | 'tonic minor'
  | 'half-diminished' | 'diminished'
  | 'dominant to major' | 'dominant to minor' | 'dominant at rest' | 'home dominant at rest'
  | 'augmented' | 'suspended' | 'power'

/** The job of a chord in words a player uses. */
export type Function =
  | 'tonic' | 'subdominant' | 'dominant' | 'secondary dominant' | 'substitute dominant' | 'related ii'
  | 'borrowed' | 'quality flip' | 'passing diminished' | 'common-tone diminished' | 'leading diminished'
  | 'chromatic approach' | 'blues' | 'outside'

export interface Reading {
  slot: Slot
  roman: string
  /** The key this chord speaks in: home, or the one its ii-V names. */
  key: Key
  /** All its tones are in the home key (in minor: with the raised 6th and 7th where the chord is the V or vii°). */
  diatonic: boolean
  function: Function
  role: Role
  /** One sentence, using the actual chords. */
  reason: string
  /** Other honest readings: a numeral with its reason. */
  alternatives: { roman: string; reason: string }[]
}

export type GroupKind = 'ii-V' | 'ii-V-I' | 'minor ii-V' | 'turnaround'

export interface Group {
  kind: GroupKind
  key: Key
  from: { bar: number; beat: number }
  to: { bar: number; beat: number }
  /** The I it points at comes. */
  resolves: boolean
}

export interface Analysis {
  key: Key
  /** The key was worked out, not given by the chart. */
  keyGuessed: boolean
  /** One for each chord that could be read; silences and unreadable symbols have none. */
  readings: Reading[]
  groups: Group[]
}
