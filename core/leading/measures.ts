import { lastOf, theOne } from '../lists'
import { hasDegree, type ChordSymbol } from '../chord/symbol'
import type { FingerOrThumb } from '../neck/hand'
import { fretMm, type Instrument } from '../neck/instrument'
import { modulo, pitchClass } from '../pitch/note'
import type { Degree } from '../pitch/degree'
import { mudIn, soursIn } from '../voicing/clashes'
import { strangenessOf } from '../voicing/gripIdiom'
import type { Family } from '../voicing/family'
import type { Voicing } from '../voicing/voicing'
import { leastMotion, pairing } from '../pitch/motion'
import type { Term } from './weights'

/** A whole step: voices that move no further are said to move by step. */
export const STEP = 2
/** A major third: further than that an inner voice is said to leap. */
const THIRD = 4
/**
 * The bass of a guitarist: E2 to E3 (common practice), and what lies below the sixth string of a
 * longer neck.
 */
const LOWEST_BASS = 40
const HIGHEST_BASS = 52
/** D3: from here up a guitar leaves a bass player room. */
const LOWEST_ABOVE_BASS = 50
/** Top notes that cost nothing: G3 to D5. */
const LOWEST_TOP = 55
const HIGHEST_TOP = 74
/** A hand up to this fret is in open position, where open strings belong. */
const OPEN_POSITION = 2
/** Six notes of a triad cannot help sounding one of them three times. */
const SIX_NOTES = 6

/** Measures of one grip by itself. */
export function gripMeasures(
  voicing: Voicing,
  chord: ChordSymbol,
  instrument: Instrument,
): Pick<
  Record<Term, number>,
  'grip' | 'mud' | 'sour' | 'fullness' | 'open' | 'register' | 'low' | 'room' | 'idiom' | 'tripled' | 'plain'
> {
  const { midis, strings, frets } = voicing
  let [sounds, twice, thrice, tensions] = [0, 0, 0, 0]
  for (const { midi, degree } of strings) {
    const bit = 1 << (midi % 12)
    if ((twice & bit) !== 0) thrice |= bit
    if ((sounds & bit) !== 0) twice |= bit
    sounds |= bit
    if (TENSIONS.includes(degree)) tensions += 1
  }
  let fullness = 0
  for (const { degree, note } of chord.tones) {
    const bit = 1 << pitchClass(note)
    if ((sounds & bit) === 0) fullness += FREE_TO_GO.includes(degree) ? 0 : 1
    else if ((twice & bit) !== 0) {
      fullness += FREE_TO_GO.includes(degree) ? 0 : 0.25
      if (THIRDS.includes(degree) && midis[0]! % 12 === pitchClass(note)) fullness += TWICE_THE_THIRD
    }
  }
  let [lowest, openStrings] = [0, 0]
  for (const fret of frets) {
    if (fret === 0) openStrings += 1
    else if (fret !== null && (lowest === 0 || fret < lowest)) lowest = fret
  }
  const [low, top] = [midis[0]!, lastOf(midis)]
  const bassString = theOne(strings, ({ midi }) => midi === low).string - (frets.length - 6)
  return {
    grip: voicing.fingering.difficulty,
    idiom: strangenessOf(voicing, chord, instrument),
    mud: mudIn(midis).length,
    sour: soursIn(midis, chord).length,
    fullness,
    tripled: midis.length < SIX_NOTES && thrice !== 0 ? 1 : 0,
    plain: tensions === 0 ? 1 : 0,
    open: openStrings * Math.max(0, lowest - instrument.capo - OPEN_POSITION),
    register: Math.max(0, LOWEST_TOP - top) + Math.max(0, top - HIGHEST_TOP),
    room: Math.max(0, LOWEST_ABOVE_BASS - low),
    low:
      Math.max(0, Math.min(LOWEST_BASS, instrument.tuning[0]! + instrument.capo) - low) +
      Math.max(0, low - HIGHEST_BASS) +
      Math.max(0, bassString - 1),
  }
}
/** A third in the bass is not wanted again above it. */
const TWICE_THE_THIRD = 0.75
const THIRDS: readonly Degree[] = ['3', 'b3']
/**
 * Tones that cost nothing when they go: the natural fifth, and the root where the bass rule lets it
 * go.
 */
const FREE_TO_GO: readonly Degree[] = ['1', '5']

/**
 * What a tone wants when the root falls a fifth or a half step: the semitones it may move and still
 * keep its tendency.
 */
const TENDENCIES: Partial<Record<Degree, readonly number[]>> = {
  b7: [-1, -2, 0],
  b9: [-1, -2],
  b13: [-1, -2, 0],
  '4': [-1, -2, 0],
}
const LEADING_NOTE: readonly number[] = [1, 0, -1]

/**
 * The sounds of a chord that pull somewhere when the next chord comes, with the moves that satisfy
 * them.
 */
export function tendenciesOf(chord: ChordSymbol, next: ChordSymbol): (readonly number[] | undefined)[] {
  const fall = modulo(pitchClass(chord.root) - pitchClass(next.root), 12)
  const wants: (readonly number[] | undefined)[] = []
  if (fall !== 7 && fall !== 1) return wants
  const dominant = hasDegree(chord, '3') && hasDegree(chord, 'b7')
  for (const { degree, note } of chord.tones) {
    const moves = degree === '3' && dominant ? LEADING_NOTE : TENDENCIES[degree]
    if (moves) wants[pitchClass(note)] = moves
  }
  return wants
}

/**
 * What the outer voices and the number of voices say of a step: cheap, and enough to rule most
 * steps out.
 */
export function outlineMeasures(
  a: readonly number[],
  b: readonly number[],
): Pick<Record<Term, number>, 'bass' | 'top' | 'outer' | 'voices'> {
  const bass = b[0]! - a[0]!
  const top = lastOf(b) - lastOf(a)
  return {
    bass: Math.max(0, Math.abs(bass) - STEP),
    top: Math.max(0, Math.abs(top) - STEP),
    outer: bass * top > 0 ? 1 : 0,
    voices: Math.abs(a.length - b.length),
  }
}

/**
 * Whether a bass that is written, or a diminished chord on its way, goes by step from one chord to
 * the next. Roots by themselves may leap.
 */
export function isWrittenStep(chord: ChordSymbol, next: ChordSymbol): boolean {
  if (![chord, next].some((one) => one.bass !== null || hasDegree(one, 'bb7'))) return false
  const up = modulo(pitchClass(next.bass ?? next.root) - pitchClass(chord.bass ?? chord.root), 12)
  return up > 0 && Math.min(up, 12 - up) <= STEP
}

/** Sounds of a chord that are tensions, as a set of pitch classes in a mask. */
export const tensionsOf = (chord: ChordSymbol): number =>
  chord.tones.reduce(
    (bits, { degree, note }) => (TENSIONS.includes(degree) ? bits | (1 << pitchClass(note)) : bits),
    0,
  )
const TENSIONS: readonly Degree[] = ['b9', '9', '#9', '11', '#11', 'b5', 'b13', '13', '#5']

/**
 * What each voice does in a step: parallels, tendencies, tendencies kept where a tension lay above,
 * common tones not held, and inner leaps.
 */
export function voiceMeasures(
  a: readonly number[],
  b: readonly number[],
  wants: readonly (readonly number[] | undefined)[],
  tensions: number,
): Pick<Record<Term, number>, 'parallels' | 'tendency' | 'tame' | 'held' | 'leaps'> {
  const { count, from: voice, to: goal } = pairing(a, b)
  const [lastA, lastB] = [a.length - 1, b.length - 1]
  let [sounds, stays] = [0, 0]
  for (const from of a)
    for (const to of b)
      if ((from - to) % 12 === 0) {
        sounds |= 1 << (from % 12)
        if (from === to) stays |= 1 << (from % 12)
      }
  let held = 0
  for (let left = sounds & ~stays; left > 0; left &= left - 1) held += 1
  let leaps = 0
  let parallels = 0
  for (let i = 0; i < count; i += 1) {
    const [x, y] = [a[voice[i]!]!, b[goal[i]!]!]
    const semitones = y - x
    if (x !== a[0] && y !== b[0] && x !== a[lastA] && y !== b[lastB])
      leaps += Math.max(0, Math.abs(semitones) - THIRD)
    if (semitones === 0) continue
    // The pairs come from the highest down: the second of two is the lower.
    for (let j = i + 1; j < count; j += 1) {
      const low = a[voice[j]!]!
      if (b[goal[j]!]! - low !== semitones) continue
      const interval = (x - low) % 12
      if (interval === 7 || (interval === 0 && x !== low)) parallels += 1
    }
  }
  let [tendency, tame] = [0, 0]
  for (let at = 0; at <= lastA; at += 1) {
    const from = a[at]!
    const moves = wants[from % 12]
    if (!moves || a[at - 1] === from) continue
    const tensionAbove = (tensions & ((1 << ((from + 1) % 12)) | (1 << ((from + 2) % 12)))) !== 0
    let [falls, kept] = [false, false]
    for (let i = 0; i < count; i += 1) {
      if (a[voice[i]!] !== from) continue
      const semitones = b[goal[i]!]! - from
      if (semitones < 0) falls = true
      if (moves.includes(semitones)) kept = true
    }
    if (tensionAbove && falls) tame += 1
    if (!kept) tendency += 1
  }
  return { parallels, tendency, tame, held, leaps }
}

/** The voices above the bass; a note alone is both. */
export const upperOf = (midis: readonly number[]): readonly number[] =>
  midis.length > 1 ? midis.slice(1) : midis

/** All motion, and that of the voices above the bass. */
export const motionMeasures = (
  a: readonly number[],
  b: readonly number[],
): Pick<Record<Term, number>, 'motion' | 'upper'> => ({
  motion: leastMotion(a, b),
  upper: leastMotion(upperOf(a), upperOf(b)),
})

/** How four voices are laid out: close or dropped; null for anything else. */
export const layoutOf = ({ families }: Pick<Voicing, 'families'>): Family | null =>
  LAYOUTS.find((family) => families.includes(family)) ?? null
const LAYOUTS = ['close', 'drop 2', 'drop 3', 'drop 2 and 4'] as const

/** Where a hand is and what it holds, in the form the search compares quickly. */
export interface HandPlace {
  /** Distance of the index finger's place from the nut in mm, or null when nothing is held. */
  mm: number | null
  /** For index, middle, ring, little, thumb: the fret held, 0 for none. */
  fret: readonly number[]
  /** For the same: the strings held, as a bit mask. */
  strings: readonly number[]
}

const SLOT: Readonly<Record<FingerOrThumb, number>> = { 1: 0, 2: 1, 3: 2, 4: 3, T: 4 }

/**
 * The index finger's place is where it lies or would lie, one fret for each finger below the lowest
 * one that is down.
 */
export function handPlace(voicing: Pick<Voicing, 'fingering'>, instrument: Instrument): HandPlace {
  const fret = [0, 0, 0, 0, 0]
  const strings = [0, 0, 0, 0, 0]
  for (const press of voicing.fingering.presses) {
    fret[SLOT[press.finger]] = press.fret
    strings[SLOT[press.finger]] = press.strings.reduce((mask, string) => mask | (1 << string), 0)
  }
  const lowest = [0, 1, 2, 3].find((slot) => fret[slot]! > 0)
  const byThumb = fret[4]! > 0 ? fret[4]! : null
  const index = lowest === undefined ? byThumb : Math.max(1, fret[lowest]! - lowest)
  return { mm: index === null ? null : fretMm(index, instrument.scaleLengthMm), fret, strings }
}

/** Millimetres the hand travels; none when one of the grips needs no finger. */
export const handTravelMm = (a: HandPlace, b: HandPlace): number =>
  a.mm === null || b.mm === null ? 0 : Math.abs(a.mm - b.mm)

/**
 * Fingers set down anew: one that stays is free, one that slides along a string it is on counts
 * half.
 */
export function fingersAnew(a: HandPlace, b: HandPlace): number {
  let recount = 0
  for (let slot = 0; slot < 5; slot += 1) {
    if (b.fret[slot] === 0) continue
    if (a.fret[slot] === 0 || (a.strings[slot]! & b.strings[slot]!) === 0) recount += 1
    else if (a.fret[slot] !== b.fret[slot]) recount += 0.5
    else if (a.strings[slot] !== b.strings[slot]) recount += 0.25
  }
  return recount
}
