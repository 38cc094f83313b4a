import type { Progress } from './answering'
import type { Line } from '../core/leading/line'
import type { Liking, Taste } from '../core/reharm/taste'
import type { KeptNote } from '../core/tune/melodySchema'
import type { PlayerBody } from '../core/player/playerLimits'
import type { OnTheWay } from '../core/leading/onTheWay'
import type { StyleName } from '../core/leading/weights'
import type { Guards } from '../core/reharm/guards'
import type { Reharmonisation } from '../core/reharm/reharmonise'
import type { Frets } from '../core/neck/instrument'
import type { Easier } from '../core/voicing/ease'
import type { Voicing } from '../core/voicing/voicing'
import type { TextureName } from '../core/leading/textureNames'

/** Questions to the search. Chords go as symbols: the worker reads them with the same core. */
export interface GripsQuestion {
  symbol: string
  bass: 'chord' | 'any'
  capo: number
  before: number[] | null
  after: number[] | null
  body: PlayerBody
}
/** Every grip of a chord all over the neck, the usual ones first. */
export interface BookQuestion {
  symbol: string
  body: PlayerBody
}
/** Grips that belong to one: easier, on other strings, inversions, and through a key. */
export interface RelatedQuestion {
  symbol: string
  frets: Frets
  capo: number
  bass: 'chord' | 'any'
  key: string | null
  body: PlayerBody
}
/** The nearest easier grip of each of some grips; null where there is none. */
export interface EasierQuestion {
  grips: { symbol: string; frets: Frets }[]
  capo: number
  bass: 'chord' | 'any'
  body: PlayerBody
}
/** Ways from one grip to the next chord, from smoothest to boldest. */
export interface BetweenQuestion {
  symbol: string
  frets: Frets
  next: { symbol: string; frets: Frets | null }
  capo: number
  bass: 'chord' | 'any'
  body: PlayerBody
}
export interface WaysQuestion {
  text: string
  distances: number[]
  keep: number[]
  count: number
  taste: Taste
  liking: Liking
  melody: KeptNote[]
  guards: Guards
  /** Where grips are chosen together with the chords: what they keep to. */
  joint: { style: StyleName; bass: 'chord' | 'any'; capo: number; body: PlayerBody } | null
}

/** What is known before all ways are found: how far the search is, or one way more. */
export type VersionsProgress = Progress | { way: FoundVersion }
/** Why nothing was found where there was a reason; null else. */
export interface WaysEnd {
  none: string | null
}
export interface LinesFound {
  lines: Line[]
  texture: TextureName
  says: string[]
}
export interface Between {
  ways: NextGrip[]
  stops: OnTheWay[]
}

/**
 * One way through the whole tune: what takes the place of which chords, by the index of the first.
 */
export interface FoundVersion {
  /** 0 to 1. */
  distance: number
  /** It went within a tenth of where it was asked to go. */
  reached: boolean
  /** What the way does, in a few words. */
  says: string
  /** The idea it carries through; null where it was chosen together with the grips. */
  idea: string | null
  /** The passage that goes farthest. */
  farthest: Reharmonisation['farthest']
  /** What can still be said against it. */
  faults: Reharmonisation['faults']
  changes: {
    index: number
    span: number
    chords: { symbol: string; beats: number }[]
    rule: string
    name: string
    /** Its reason, kept with it. */
    why: string
  }[]
}

/** A grip of a chord with how far its voices lie from its neighbours'. */
export interface NearGrip {
  voicing: Voicing
  /** Least motion in semitones from the grip before and to the grip after together. */
  motion: number
}

/** What belongs to a grip. */
export interface Related {
  easier: Easier[]
  otherStrings: Voicing[]
  /** From low to high; the grip itself is among them. */
  inversions: Voicing[]
  /** The same type of grip through the key that was asked for. */
  scale: { symbol: string; voicing: Voicing | null }[]
}

/** One way to go on from a grip. */
export interface NextGrip {
  voicing: Voicing
  motion: number
  /** What each voice does. */
  words: string
}
