import { firstOf, itemAt, lastOf } from '../lists'
import type { Press } from './press'
import { difficultyOf, type DifficultyParts } from './difficulty'
import { FINGER_NAMES, pairReachMm, type Finger, type FingerOrThumb, type Hand } from './hand'
import { reachMm, stringNumber, type Frets, type Instrument } from './instrument'

export interface Fingering {
  /** For each string: `null` not played, 0 open, else who holds it. */
  fingers: (FingerOrThumb | 0 | null)[]
  presses: Press[]
  /** String numbers (6 lowest of six). */
  barres: { finger: Finger; fret: number; from: number; to: number }[]
  thumb: boolean
  /** Along the neck, from the lowest to the highest fret a finger (not the thumb) holds. */
  reachMm: number
  difficulty: number
  parts: DifficultyParts
}

export type FingeringAnswer = { playable: true; fingerings: Fingering[] } | { playable: false; why: string }

/**
 * Longest barre of each finger, in strings. Index lies flat; the others only bend back so far.
 * Common practice.
 */
const LONGEST_BARRE: Readonly<Record<Finger, number>> = { 1: 8, 2: 3, 3: 4, 4: 3 }

/**
 * How far in mm the thumb may sit from the lowest-held fret when it comes over the neck. Common
 * practice.
 */
const THUMB_REACH_MM = 45

/**
 * Difficulties nearer than this are one, and the order in which fingers are tried decides: engines
 * differ in the last digits of powers, and server and browser must agree.
 */
const AS_HARD = 1e-6

/**
 * Every way a hand can hold a grip, easiest first, or the reason why it cannot.
 *
 * The rules: a finger holds one fret; fingers go up the neck in their order; at one fret they go
 * from the lower to the higher strings in their order; a barre needs every string under it to be
 * held at its fret or above; a silent string between sounding ones needs a held neighbour that
 * touches it; each pair of fingers has its own reach.
 */
export function fingeringsOf(frets: Frets, instrument: Instrument, hand: Hand): FingeringAnswer {
  const found = waysToHold(frets, instrument, hand)
  if ('why' in found) return { playable: false, why: found.why() }
  const fingerings = found.ways.map((presses) => describe(presses, frets, instrument, hand))
  fingerings.sort((a, b) => Math.round((a.difficulty - b.difficulty) / AS_HARD))
  return { playable: true, fingerings }
}

/**
 * The easiest fingering, or null when no hand of this kind holds the grip. Only that one is
 * described: whole necks are gone through with this.
 */
export function easiestFingering(frets: Frets, instrument: Instrument, hand: Hand): Fingering | null {
  const found = waysToHold(frets, instrument, hand)
  if ('why' in found) return null
  let easiest = firstOf(found.ways)
  if (found.ways.length > 1) {
    let least = effortOf(easiest, frets, instrument, hand).difficulty
    for (const way of found.ways.slice(1)) {
      const { difficulty } = effortOf(way, frets, instrument, hand)
      if (Math.round((difficulty - least) / AS_HARD) >= 0) continue
      easiest = way
      least = difficulty
    }
  }
  return describe(easiest, frets, instrument, hand)
}

/** Every way to set the fingers down, in the order they are tried, or why there is none. */
function waysToHold(
  frets: Frets,
  instrument: Instrument,
  hand: Hand,
): { ways: Press[][] } | { why: () => string } {
  const refusal = unmutable(frets, instrument, hand)
  if (refusal) return { why: () => refusal }
  const ways: Press[][] = []
  const blame: Blame = { needsFingers: Infinity, reach: null }
  for (const thumbStrings of thumbChoices(frets, instrument, hand)) {
    const left = frets.map((fret, string) => (thumbStrings.includes(string) ? null : fret))
    const thumb: Press[] =
      thumbStrings.length > 0
        ? [{ finger: 'T', fret: itemAt(frets, firstOf(thumbStrings))!, strings: thumbStrings }]
        : []
    placeFingers(runsByFret(left, frets, hand), thumb, instrument, hand, ways, blame)
  }
  return ways.length > 0 ? { ways } : { why: () => reasonFor(blame, hand) }
}

function unmutable(frets: Frets, instrument: Instrument, hand: Hand): string | null {
  const first = frets.findIndex((fret) => fret !== null)
  if (first < 0) return 'no string sounds'
  const last = frets.findLastIndex((fret) => fret !== null)
  const low = frets.findIndex((fret) => fret !== null && fret !== 0 && fret <= instrument.capo)
  if (low >= 0)
    return `fret ${itemAt(frets, low)} on string ${stringNumber(low, frets.length)} lies behind the capo`
  if (hand.plucked) return null
  const held = (string: number) => (frets[string] ?? 0) > 0
  for (let string = first + 1; string < last; string += 1) {
    if (frets[string] !== null) continue
    if (!hand.innerMutes)
      return `string ${stringNumber(string, frets.length)} would have to be muted between sounding strings`
    if (!held(string - 1) && !held(string + 1))
      return `string ${stringNumber(string, frets.length)} has no held neighbour to mute it`
  }
  return null
}

/** Which strings the thumb may take: none, the lowest string, or the two lowest at one fret. */
function thumbChoices(frets: Frets, instrument: Instrument, hand: Hand): number[][] {
  const choices: number[][] = [[]]
  const lowest = frets[0] ?? 0
  if (!hand.thumb || lowest === 0) return choices
  const others = frets.slice(1).filter((fret): fret is number => fret !== null && fret > 0)
  const near =
    others.length === 0 || reachMm(lowest, Math.min(...others), instrument.scaleLengthMm) <= THUMB_REACH_MM
  if (!near) return choices
  choices.push([0])
  if (frets[1] === lowest) choices.push([0, 1])
  return choices
}

/**
 * For each held fret from the lowest: every way to share its strings among fingers, as runs of
 * strings.
 */
function runsByFret(left: Frets, whole: Frets, hand: Hand): { fret: number; splits: number[][][] }[] {
  const held = [...new Set(left.filter((fret): fret is number => fret !== null && fret > 0))].sort(
    (a, b) => a - b,
  )
  return held.map((fret) => {
    const strings = left.flatMap((other, string) => (other === fret ? [string] : []))
    return {
      fret,
      splits: splitsInto(strings, (run) => run.length === 1 || (hand.barre && canBarre(run, fret, whole))),
    }
  })
}

const canBarre = (run: readonly number[], fret: number, frets: Frets): boolean => {
  for (let string = firstOf(run) + 1; string < lastOf(run); string += 1) {
    const other = frets[string]
    if (other === null || other === undefined || other < fret) return false
  }
  return true
}

/** Every division of a list into consecutive runs that `allowed` accepts. */
function splitsInto(strings: readonly number[], allowed: (run: number[]) => boolean): number[][][] {
  if (strings.length === 0) return [[]]
  const splits: number[][][] = []
  for (let size = strings.length; size >= 1; size -= 1) {
    const run = strings.slice(0, size)
    if (!allowed(run)) continue
    for (const others of splitsInto(strings.slice(size), allowed)) splits.push([run, ...others])
  }
  return splits
}

/** The nearest miss so far, for the reason given when nothing fits. */
interface Blame {
  needsFingers: number
  reach: { a: Finger; b: Finger; fret: number; mm: number; over: number } | null
}

function placeFingers(
  held: { fret: number; splits: number[][][] }[],
  thumb: Press[],
  instrument: Instrument,
  hand: Hand,
  ways: Press[][],
  blame: Blame,
): void {
  const usable = ([1, 2, 3, 4] as const).filter((finger) => !hand.missing.includes(finger))
  const choose = (level: number, runs: { fret: number; strings: number[] }[]) => {
    const remaining = held[level]
    if (remaining) {
      for (const split of remaining.splits)
        choose(level + 1, [...runs, ...split.map((strings) => ({ fret: remaining.fret, strings }))])
      return
    }
    if (runs.length > usable.length) {
      blame.needsFingers = Math.min(blame.needsFingers, runs.length)
      return
    }
    blame.needsFingers = 0
    number(runs, 0, [])
  }
  const number = (runs: { fret: number; strings: number[] }[], from: number, placed: Press[]) => {
    if (placed.length === runs.length) {
      ways.push([...thumb, ...placed])
      return
    }
    const run = itemAt(runs, placed.length)
    const lastPossible = usable.length - (runs.length - placed.length)
    for (let at = from; at <= lastPossible; at += 1) {
      const finger = itemAt(usable, at)
      const press: Press = { finger, fret: run.fret, strings: run.strings }
      if (lastOf(run.strings) - firstOf(run.strings) + 1 > LONGEST_BARRE[finger] && run.strings.length > 1)
        continue
      if (withinReach(press, placed, instrument, hand, blame)) number(runs, at + 1, [...placed, press])
    }
  }
  choose(0, [])
}

function withinReach(
  press: Press,
  placed: Press[],
  instrument: Instrument,
  hand: Hand,
  blame: Blame,
): boolean {
  for (const other of placed) {
    const mm = reachMm(other.fret, press.fret, instrument.scaleLengthMm)
    const over = mm - pairReachMm(hand, other.finger as Finger, press.finger as Finger)
    if (over <= 0) continue
    if (!blame.reach || over < blame.reach.over)
      blame.reach = { a: other.finger as Finger, b: press.finger as Finger, fret: other.fret, mm, over }
    return false
  }
  return true
}

function reasonFor(blame: Blame, hand: Hand): string {
  if (blame.reach)
    return `${FINGER_NAMES[blame.reach.a]} to ${FINGER_NAMES[blame.reach.b]} ${Math.round(blame.reach.mm)} mm at fret ${blame.reach.fret}, over this hand's reach`
  if (Number.isFinite(blame.needsFingers) && blame.needsFingers > 4 - hand.missing.length)
    return `needs ${NUMBER_WORDS[blame.needsFingers] ?? blame.needsFingers} fingers${hand.barre ? '' : ' without a barre'}${hand.missing.length > 0 ? `, this hand has ${4 - hand.missing.length}` : ''}`
  return 'no finger can lie across these strings'
}
const NUMBER_WORDS: Readonly<Record<number, string>> = {
  1: 'one',
  2: 'two',
  3: 'three',
  4: 'four',
  5: 'five',
  6: 'six',
  7: 'seven',
  8: 'eight',
}

/**
 * How hard it is to hold a grip in one way: in all, in its parts, and how far the fingers are
 * apart.
 */
function effortOf(
  presses: readonly Press[],
  frets: Frets,
  instrument: Instrument,
  hand: Hand,
): Pick<Fingering, 'reachMm' | 'difficulty' | 'parts'> {
  let low = Infinity
  let high = -Infinity
  for (const { finger, fret } of presses) {
    if (finger === 'T') continue
    low = Math.min(low, fret)
    high = Math.max(high, fret)
  }
  const reach = high >= low ? reachMm(low, high, instrument.scaleLengthMm) : 0
  const parts = difficultyOf(presses, frets, reach, instrument, hand)
  return { reachMm: reach, difficulty: Object.values(parts).reduce((sum, part) => sum + part, 0), parts }
}

function describe(presses: Press[], frets: Frets, instrument: Instrument, hand: Hand): Fingering {
  const fingers: Fingering['fingers'] = frets.map((fret) => (fret === null ? null : 0))
  for (const press of presses) for (const string of press.strings) fingers[string] = press.finger
  return {
    fingers,
    presses,
    barres: presses
      .filter((press) => press.finger !== 'T' && press.strings.length > 1)
      .map((press) => ({
        finger: press.finger as Finger,
        fret: press.fret,
        from: stringNumber(firstOf(press.strings), frets.length),
        to: stringNumber(lastOf(press.strings), frets.length),
      })),
    thumb: presses.some((press) => press.finger === 'T'),
    ...effortOf(presses, frets, instrument, hand),
  }
}
