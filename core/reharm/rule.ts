import { itemAt } from '../lists'
import type { ChordSymbol } from '../chord/symbol'
import type { Degree } from '../pitch/degree'
import { noteName, type Note } from '../pitch/note'
import type { Intent, Put } from './change'
import type { RuleFamily } from './families'
import type { School } from './schools'
import { hasSeventh, noteAt, resolves, type Spot } from './spot'

/** What a rule puts in place. Lengths are given as shares of the time there is. */
export interface PutIn {
  chords: readonly ChordSymbol[]
  /** One share for each chord; equal shares where there are none. */
  shares?: readonly number[]
  why: string
}

/** One way to change a progression. */
export interface Rule {
  /** A readable name no other rule has; choices and books keep it, so that it stays as it is. */
  id: string
  /** Colours (a) have a table of their own. */
  family: RuleFamily
  /**
   * The manner of playing it belongs to; inversions and reductions belong to all and count as
   * functional.
   */
  school: School
  name: string
  intent: Intent
  mood: string
  /** It takes the place of this chord and so many behind it. */
  span?: number
  /** It needs at least so many beats for each chord it puts in. */
  room?: number
  /** What comes behind has to be what comes behind now, because it is led to. */
  leads?: true
  /** The result, or several, or nothing where the condition does not hold. */
  put: (spot: Spot) => PutIn | readonly PutIn[] | null
}

export const name = ({ chord }: { chord: ChordSymbol }) => chord.canonical
export const says = (note: Note) => noteName(note)
export const keySays = (spot: Spot) => `${noteName(spot.key.tonic)} ${spot.key.mode}`
export const inMajor = (spot: Spot) => spot.key.mode === 'major'
export const tonicOf = (spot: Spot, degree: Degree) => noteAt(spot.key.tonic, degree)
export const isOne = (spot: Spot) =>
  spot.rel === 0 && (spot.kind === 'major' || (spot.kind === 'minor' && !inMajor(spot)))
/** A seventh chord stays one, a triad a triad. */
export const fuller = (spot: Spot, triad: string, seventh: string) =>
  hasSeventh(spot.chord) ? seventh : triad
export const dominantGoing = (spot: Spot) => resolves(spot) && spot.next !== null
/**
 * A chord that stands where another is asked to come in has to give it room, and to be another
 * chord.
 */
export const goesOn = (spot: Spot): spot is Spot & { next: Spot } =>
  spot.next !== null && spot.next.chord.canonical !== spot.chord.canonical

/** The chords of a result with their lengths, or null where there is no room for them. */
export function putsOf(
  { chords, shares }: Pick<PutIn, 'chords' | 'shares'>,
  beats: number,
  room: number,
): Put[] | null {
  const lengths = shares ?? sharesOf(beats, chords.length)
  if (chords.length > 1 && lengths.some((length) => length < room)) return null
  return chords.map((chord, at) => ({ chord, beats: itemAt(lengths, at) }))
}

/**
 * Equal shares where the beats divide, else the first chords get a beat more: 3 beats for two
 * chords are 2 and 1.
 */
function sharesOf(beats: number, chords: number): number[] {
  if (!Number.isInteger(beats) || beats % chords === 0) return Array<number>(chords).fill(beats / chords)
  return Array.from({ length: chords }, (_, at) => Math.floor(beats / chords) + (at < beats % chords ? 1 : 0))
}

export const resultsOf = (result: ReturnType<Rule['put']>): readonly PutIn[] => {
  if (result === null) return []
  if ('chords' in result) return [result]
  return result
}
