import { itemAt } from '../lists'
import { SCALE_FORMS, above } from '../analysis/keyFit'
import { hasDegree, type ChordSymbol } from '../chord/symbol'
import type { Key } from '../pitch/key'
import { modulo, pitchClass } from '../pitch/note'
import type { Put } from './change'

/** How far a chord lies from a key, with its parts. */
export interface Distance {
  /** 0 to 1. */
  total: number
  /** Tones outside the key, on average over the time. */
  tones: number
  /** Steps from the tonic to the root on the circle of fifths, 0 to 6, on average over the time. */
  root: number
}

/**
 * Four tones outside are as far as a seventh chord can go; six fifths are the whole way round. The
 * tones are heard more than the root.
 */
const MOST_TONES = 4
const MOST_FIFTHS = 6
const SHARE_OF_TONES = 0.7
const SHARE_OF_ROOT = 0.3

/** Steps on the circle of fifths between two sounds, 0 to 6. */
export function fifthsBetween(a: number, b: number): number {
  const steps = modulo((b - a) * 7, 12)
  return Math.min(steps, 12 - steps)
}

/** Tones of a chord that the nearest scale of a key does not have. */
export function tonesOutside(chord: ChordSymbol, key: Key): number {
  const sounds = chord.tones.reduce((bits, tone) => bits | (1 << pitchClass(tone.note)), 0)
  const turned = above(sounds, pitchClass(key.tonic))
  return Math.min(...SCALE_FORMS[key.mode].map((form) => countBits(turned & ~form.bits)))
}

const countBits = (bits: number): number => {
  let count = 0
  for (let rest = bits; rest; rest &= rest - 1) count += 1
  return count
}

/** The distance of some chords from a key, each counted for its time. */
export function distanceFrom(puts: readonly Put[], key: Key): Distance {
  const beats = puts.reduce((sum, put) => sum + put.beats, 0) || 1
  const mean = (of: (chord: ChordSymbol) => number) =>
    puts.reduce((sum, put) => sum + of(put.chord) * put.beats, 0) / beats
  const tones = mean((chord) => tonesOutside(chord, key))
  const root = mean((chord) => fifthsBetween(pitchClass(key.tonic), pitchClass(chord.root)))
  return {
    tones,
    root,
    total: Math.min(1, (SHARE_OF_TONES * tones) / MOST_TONES + (SHARE_OF_ROOT * root) / MOST_FIFTHS),
  }
}

/**
 * How much a change changes, 0 to 1: 0 for what stands there already. A colour adds tones, a swap
 * takes the root away, an insertion adds chords, and each goes as far as it leads from the key.
 */
export function reachOf(plain: readonly Put[], puts: readonly Put[], key: Key): number {
  if (
    plain.length === puts.length &&
    plain.every(
      (put, at) =>
        put.chord.canonical === itemAt(puts, at).chord.canonical && put.beats === itemAt(puts, at).beats,
    )
  )
    return 0
  const sounds = new Set(plain.flatMap(({ chord }) => chord.tones.map((tone) => pitchClass(tone.note))))
  const added = new Set(
    puts
      .flatMap(({ chord }) => chord.tones.map((tone) => pitchClass(tone.note)))
      .filter((sound) => !sounds.has(sound)),
  ).size
  const bassOf = ({ chord }: Put) => pitchClass(chord.bass ?? chord.root)
  const roots = new Set(plain.map(({ chord }) => pitchClass(chord.root)))
  const basses = new Set(plain.map(bassOf))
  const share = (of: (put: Put) => boolean) => puts.filter(of).length / puts.length
  const isMoved = ({ chord }: Put) => !roots.has(pitchClass(chord.root))
  const isInside = ({ chord }: Put) => tonesOutside(chord, key) === 0
  const inside = share((put) => isMoved(put) && isInside(put))
  const outside = share((put) => isMoved(put) && !isInside(put))
  const isTurned = (put: Put) => !isMoved(put) && plain.some((one) => turnsThird(one.chord, put.chord))
  // Turned minor is borrowed, turned major pushes on: the first is heard to go further.
  const turned =
    share((put) => isTurned(put) && hasDegree(put.chord, '3')) +
    BORROWED_MORE * share((put) => isTurned(put) && !hasDegree(put.chord, '3'))
  const inverted = share((put) => !isMoved(put) && !basses.has(bassOf(put)))
  const [far, near] = [distanceFrom(puts, key), distanceFrom(plain, key)]
  // A chord of the key that stands for another is near, however its root lies; a colour is nearer
  // than its tones.
  const away = Math.max(0, far.tones - near.tones) / MOST_TONES
  const steps = outside > 0 ? Math.max(0, far.root - near.root) / MOST_FIFTHS : 0
  const isColour = inside + outside === 0
  return Math.min(
    1,
    REACH.any +
      REACH.added * Math.min(1, added / 4) +
      REACH.inverted * inverted +
      REACH.inside * inside +
      REACH.outside * outside +
      REACH.turned * turned +
      REACH.chords * Math.min(1, Math.max(0, puts.length - plain.length) / 3) +
      REACH.tones * away * (isColour ? 0.5 : 1) +
      REACH.steps * steps,
  )
}

const BORROWED_MORE = 1.2

/** The third of a chord becomes the other one. */
const turnsThird = (a: ChordSymbol, b: ChordSymbol): boolean =>
  pitchClass(a.root) === pitchClass(b.root) &&
  ((hasDegree(a, '3') && hasDegree(b, 'b3') && !hasDegree(b, '3')) ||
    (hasDegree(a, 'b3') && hasDegree(b, '3') && !hasDegree(b, 'b3')))

/**
 * Shares of how much a change changes, so that it is heard to go further in this order: colour,
 * another bass or a suspension, a chord of the key for another, a secondary dominant, a borrowed
 * chord, a substitute dominant, a side step (common practice, no source).
 */
const REACH = {
  any: 0.05,
  added: 0.15,
  inverted: 0.09,
  inside: 0.16,
  outside: 0.3,
  turned: 0.27,
  chords: 0.15,
  tones: 0.3,
  steps: 0.15,
} as const
