import type { Slot } from '../chart/chart'
import type { Key } from '../pitch/key'
import type { FormPlaceName } from './formPlaces'
import type { IdiomRead } from './tuneIdiom'
import type { Role } from './role'
import type { ChordScale } from './scales'

/** The job of a chord in words a player uses. */
export const FUNCTIONS = [
  'tonic',
  'subdominant',
  'dominant',
  'secondary dominant',
  'substitute dominant',
  'related ii',
  'borrowed',
  'quality flip',
  'passing diminished',
  'common-tone diminished',
  'leading diminished',
  'chromatic approach',
  'line chord',
  'blues',
  'outside',
] as const
export type HarmonicFunction = (typeof FUNCTIONS)[number]

export interface Reading {
  slot: Slot
  roman: string
  /** The key this chord speaks in: home, one the tune has moved to, or the one its ii-V names. */
  key: Key
  /**
   * All its tones are in the key the tune is in here (in minor: in its natural, harmonic or melodic
   * scale).
   */
  diatonic: boolean
  function: HarmonicFunction
  role: Role
  /** One sentence, using the actual chords. */
  reason: string
  /** Its place in the form, with a sentence that says why. */
  place: FormPlaceName
  placeReason: string
  /** The scale it is heard in here; null where no usual one holds its tones. */
  scale: ChordScale | null
  /** Why each of these is so, a sentence each. */
  why: { roman: string; key: string; diatonic: string; scale: string }
  /** Other honest readings: a numeral with its reason. */
  alternatives: { roman: string; reason: string }[]
}

/** What belongs together in a progression, by the trade's names. */
export const GROUP_KINDS = [
  'ii-V',
  'ii-V-I',
  'minor ii-V',
  'substituted ii-V',
  'ii-V chain',
  'dominant chain',
  'turnaround',
  'backdoor',
  'authentic cadence',
  'plagal cadence',
  'deceptive cadence',
  'half cadence',
  'line cliché',
  'passing diminished',
  'blues form',
] as const
export type GroupKind = (typeof GROUP_KINDS)[number]

export interface Group {
  kind: GroupKind
  key: Key
  from: { bar: number; beat: number }
  to: { bar: number; beat: number }
  /** The chord it points at comes. */
  resolves: boolean
  /** It comes at the top, when the form begins again. */
  atTop: boolean
  /** One sentence, using the actual chords. */
  why: string
}

/** A stretch of the tune that is in one key. */
export interface Region {
  key: Key
  from: { bar: number; beat: number }
  to: { bar: number; beat: number }
}

export interface Analysis {
  key: Key
  /** The key was worked out, not given by the chart. */
  keyGuessed: boolean
  /** How much of the evidence speaks for the home key, 0 to 1; 1 where the chart gives it. */
  confidence: number
  /**
   * The next likeliest homes, with their share of the evidence; none where the chart gives the key.
   */
  otherKeys: { key: Key; confidence: number }[]
  /** Where the tune is in which key, in the order of the chart; home is among them. */
  regions: Region[]
  /** One for each chord that could be read; silences and unreadable symbols have none. */
  readings: Reading[]
  groups: Group[]
  /** The style the chart names, or the one its chords speak. */
  idiom: IdiomRead
}
