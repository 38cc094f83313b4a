import { firstOf, itemAt } from '../lists'
import type { Analysis, Reading } from '../analysis/chordReading'
import type { Chart } from '../chart/chart'
import type { ChordSymbol } from '../chord/symbol'
import { degreeBetween, semitonesOf, spellDegree, type Degree } from '../pitch/degree'
import { keyName, type Key } from '../pitch/key'
import {
  midi,
  modulo,
  noteName,
  pitchAt,
  pitchClass,
  plainSpelling,
  type Note,
  type Pitch,
} from '../pitch/note'
import { BASS_PRICES as PRICE, LEAP_PRICES } from './bassPrices'
import { pulsesOf, type PulseGrid, type Pulse } from './pulses'
import { scattered } from './scattered'

export const BASS_KINDS = ['roots', 'fifths', 'two', 'walking', 'pedal'] as const
export type BassKind = (typeof BASS_KINDS)[number]

export interface BassNote {
  /**
   * Bar and beat as the chart is written, from 1; a pickup is bar 0. Lengths in beats of the metre.
   */
  bar: number
  beat: number
  beats: number
  midi: number
  note: Pitch
  /** What it is to the root of the chord over it. */
  degree: Degree
  why: string
}

/**
 * What a double bass and a bass guitar play at ease: the low E to the G two octaves and a third
 * above.
 */
export const BASS_RANGE = [midi('E1'), midi('G3')] as const
const MIDDLE = midi('D#2')

const GRIDS: Readonly<Record<BassKind, PulseGrid>> = {
  roots: 'bars',
  fifths: 'halves',
  two: 'halves',
  walking: 'steps',
  pedal: 'bars',
}

/** How a note leads to the next root: how many half steps it goes to it, and in what words. */
interface Lead {
  /** Half steps from it to the root to come. */
  goes: readonly number[]
  price: number
  why: (from: string, to: string) => string
}
const LEADS: readonly Lead[] = [
  { goes: [1], price: 0, why: (_, to) => `a half step below ${to}, which comes next` },
  { goes: [-1], price: 0, why: (_, to) => `a half step above ${to}, which comes next` },
  { goes: [2], price: PRICE.wholeStepLead, why: (_, to) => `a whole step below ${to}, which comes next` },
  { goes: [-2], price: PRICE.wholeStepLead, why: (_, to) => `a whole step above ${to}, which comes next` },
  {
    goes: [5, -7],
    price: PRICE.dominantLead,
    why: (from, to) => `${from} is the fifth of ${to}, which comes next: it leads there as a dominant does`,
  },
]

/** A note that could stand at a pulse. */
interface PulseNote {
  midi: number
  spelled: Note
  price: number
  why: string
  /** Of the scale between chord tones: reached and left by step. */
  passing: boolean
  /** Where it has to go; null where it is free. */
  goes: readonly number[] | null
}

const bassOf = (chord: ChordSymbol): Note => chord.bass ?? chord.root
const TONE_WORDS: Readonly<Record<string, string>> = {
  '1': 'root',
  b3: 'third',
  '3': 'third',
  '4': 'fourth',
  '2': 'second',
  b5: 'fifth',
  '5': 'fifth',
  '#5': 'fifth',
  '6': 'sixth',
  bb7: 'seventh',
  b7: 'seventh',
  '7': 'seventh',
}
const toneWord = (degree: Degree) => TONE_WORDS[degree] ?? degree
/** Tones of a chord that carry a bass line: those of the triad, the sixth and the seventh. */
const carrying = (chord: ChordSymbol) => chord.tones.filter(({ degree }) => degree in TONE_WORDS)

/** Every place of a sound in the range of the bass. */
function places(note: Note): number[] {
  const lowest = BASS_RANGE[0] + modulo(pitchClass(note) - BASS_RANGE[0], 12)
  return [lowest, lowest + 12, lowest + 24].filter((one) => one <= BASS_RANGE[1])
}

/**
 * The note below or above a root by so many half steps, on the neighbouring letter where that can
 * be read.
 */
function besides(root: Note, semitones: number): Note {
  const plain = plainSpelling(pitchClass(root) + semitones)
  if (plain.alter === 0) return plain
  const letter = modulo(root.letter + (semitones > 0 ? 1 : -1), 7)
  const alter = modulo(pitchClass(root) + semitones - pitchClass({ letter, alter: 0 }) + 6, 12) - 6
  return Math.abs(alter) <= 1 ? { letter, alter } : plain
}

/** The name of a sound as the chord or its scale spells it, or null. */
const spelledBy = (chord: ChordSymbol, reading: Reading | undefined, pc: number): Note | null =>
  [...chord.tones.map(({ note }) => note), ...(reading?.scale?.notes ?? [])].find(
    (note) => pitchClass(note) === pc,
  ) ?? null

/**
 * What a sound is to the root of a chord: the chord's own name for it, else its scale's, else the
 * usual one.
 */
function degreeOver(chord: ChordSymbol, reading: Reading | undefined, note: Note): Degree {
  const semitones = modulo(pitchClass(note) - pitchClass(chord.root), 12)
  const known = [...chord.tones.map(({ degree }) => degree), ...(reading?.scale?.degrees ?? [])]
  return known.find((degree) => semitonesOf(degree) === semitones) ?? degreeBetween(chord.root, note)
}

/** What may stand at each pulse of a kind of line. */
function candidatesAt(
  kind: BassKind,
  pulse: Pulse,
  next: Pulse | undefined,
  reading: Reading | undefined,
): PulseNote[] {
  const { chord } = pulse
  const bass = bassOf(chord)
  const at = (spelled: Note, price: number, why: string, more: Partial<PulseNote> = {}): PulseNote[] =>
    places(spelled).map((one) => ({ midi: one, spelled, price, why, passing: false, goes: null, ...more }))
  const ownBass = (price = 0) =>
    at(bass, price, chord.bass ? `the written bass of ${chord.canonical}` : `the root of ${chord.canonical}`)
  if (pulse.changes || kind === 'roots') return ownBass()

  const fifth = chord.tones.find(({ degree }) => ['5', 'b5', '#5'].includes(degree))
  if (kind === 'fifths') {
    if (pulse.beginsBar || !fifth) return ownBass()
    return at(fifth.note, 0, `the fifth of ${chord.canonical}, against its root`)
  }
  const tones = (price: (degree: Degree) => number) =>
    carrying(chord)
      .filter(({ note }) => pitchClass(note) !== pitchClass(bass))
      .flatMap(({ note, degree }) => at(note, price(degree), `the ${toneWord(degree)} of ${chord.canonical}`))
  const isTriad = (degree: Degree) => !['6', 'bb7', 'b7', '7'].includes(degree)
  if (pulse.beginsBar)
    return [
      ...ownBass(),
      ...tones((degree) => PRICE.otherOnBar + (isTriad(degree) ? 0 : PRICE.sixthOrSeventh)),
    ]

  const leads =
    next?.changes && pitchClass(bassOf(next.chord)) !== pitchClass(bass)
      ? leadsTo(bassOf(next.chord), chord, reading, at)
      : []
  if (kind === 'two')
    return [
      ...(fifth ? at(fifth.note, 0, `the fifth of ${chord.canonical}, on the second half`) : []),
      ...tones(() => PRICE.otherInTwo),
      ...ownBass(PRICE.otherInTwo),
      ...leads.map((one) => ({ ...one, price: one.price + PRICE.leadInTwo })),
    ]
  if (leads.length > 0) return leads
  const strong = (degree: Degree) => (isTriad(degree) ? 0 : PRICE.sixthOrSeventh)
  if (pulse.strong) return [...tones(strong), ...ownBass(PRICE.rootAgain)]
  // A line does not end in passing.
  const scale = next ? (reading?.scale?.notes ?? []) : []
  const between = scale.filter(
    (note) => !chord.tones.some((tone) => pitchClass(tone.note) === pitchClass(note)),
  )
  return [
    ...tones(() => PRICE.toneOnWeak),
    ...ownBass(PRICE.rootAgain),
    ...between.flatMap((note) =>
      at(note, 0, `${noteName(note)} of ${noteName(chord.root)} ${reading!.scale!.name}, in passing`, {
        passing: true,
      }),
    ),
  ]
}

/** The notes that lead to a root; whole steps only where the chord or its scale has them. */
function leadsTo(
  to: Note,
  chord: ChordSymbol,
  reading: Reading | undefined,
  at: (spelled: Note, price: number, why: string, more: Partial<PulseNote>) => PulseNote[],
): PulseNote[] {
  return LEADS.flatMap(({ goes, price, why }) => {
    const pc = modulo(pitchClass(to) - firstOf(goes), 12)
    const known = spelledBy(chord, reading, pc)
    if (Math.abs(firstOf(goes)) === 2 && !known) return []
    const spelled =
      Math.abs(firstOf(goes)) > 2 ? (known ?? spellDegree(to, '5')) : (known ?? besides(to, -firstOf(goes)))
    return at(spelled, price, why(noteName(spelled), noteName(to)), { goes })
  })
}

/**
 * One sound for the whole tune: the tonic or the fifth of the key, whichever is in more of its
 * chords; the fifth where they are equal.
 */
function pedalOf(chart: Chart, key: Key): { note: Note; why: string } {
  const chords = pulsesOf(chart, 'bars')
  const fits = (note: Note) =>
    chords.reduce(
      (sum, { chord, beats }) =>
        sum + (chord.tones.some((tone) => pitchClass(tone.note) === pitchClass(note)) ? beats : 0),
      0,
    )
  const fifth = spellDegree(key.tonic, '5')
  const onTonic = fits(key.tonic) > fits(fifth)
  const note = onTonic ? key.tonic : fifth
  return {
    note,
    why: `${noteName(note)} held under all chords: the ${onTonic ? 'tonic' : 'fifth'} of ${keyName(key)}`,
  }
}

/** The lowest price of going from one note to the next, or null where that is not done. */
function step(
  from: PulseNote,
  to: PulseNote,
  kind: BassKind,
  direction: number,
  pulse: Pulse,
): number | null {
  const moves = to.midi - from.midi
  const size = Math.abs(moves)
  if (size > 12) return null
  if (from.goes && !from.goes.includes(moves)) return null
  let price: number = itemAt(LEAP_PRICES, size)
  if (size === 0 && kind !== 'pedal')
    price += pulse.changes || kind !== 'walking' ? PRICE.stays : PRICE.repeated
  if ((from.passing || to.passing) && size > 2) price += PRICE.leftByLeap
  if (direction !== 0 && moves !== 0 && Math.sign(moves) !== direction)
    price += pulse.beginsBar ? PRICE.turnOnBar : PRICE.turn
  return price
}

/** Up, down, or none yet. */
const DIRECTIONS = 3

interface BassWay {
  price: number
  before: BassWay | null
  candidate: PulseNote
  direction: number
}

/**
 * A bass line for a chart, the cheapest by the prices of `bassPrices`: the bass of each chord where
 * it comes, what leads to the next one before it, chord tones on strong beats and steps between,
 * direction kept for a while. Bars as written, each once; silences (`N.C.`) and what could not be
 * read stay silent. Common practice; see `bassPrices`.
 * @param seed 0 for the plainest line; any other whole number shifts the prices of equal ones, so
 *   that another line comes, always the same
 * @returns notes in the order of the chart, within E1 to G3, none further than an octave from the
 *   one before it in the same passage
 */
export function bassLine(chart: Chart, analysis: Analysis, kind: BassKind, seed = 0): BassNote[] {
  const pulses = pulsesOf(chart, GRIDS[kind])
  const readings = new Map(analysis.readings.map((reading) => [reading.slot, reading]))
  const pedal = kind === 'pedal' ? pedalOf(chart, analysis.key) : null
  const notes: BassNote[] = []
  let ways: BassWay[] = []
  const finish = (until: number) => {
    let way: BassWay | null = ways.reduce<BassWay | null>(
      (best, one) => (best && best.price <= one.price ? best : one),
      null,
    )
    const chosen: PulseNote[] = []
    for (; way; way = way.before) chosen.unshift(way.candidate)
    chosen.forEach((candidate, at) => {
      const pulse = itemAt(pulses, until - chosen.length + at)
      notes.push({
        bar: pulse.bar,
        beat: pulse.beat,
        beats: pulse.beats,
        midi: candidate.midi,
        note: pitchAt(candidate.midi, candidate.spelled),
        degree: degreeOver(pulse.chord, readings.get(pulse.slot), candidate.spelled),
        why: candidate.why,
      })
    })
    ways = []
  }
  pulses.forEach((pulse, at) => {
    // Behind a silence the line begins anew.
    if (pulse.begins) finish(at)
    const next = pulses[at + 1]
    const onward = next?.begins ? undefined : next
    const candidates = pedal
      ? places(pedal.note).map((one): PulseNote => ({
          midi: one,
          spelled: pedal.note,
          price: 0,
          why: pedal.why,
          passing: false,
          goes: null,
        }))
      : candidatesAt(kind, pulse, onward, readings.get(pulse.slot))
    const own = ({ midi: sound, price }: PulseNote) =>
      price +
      PRICE.register * ((sound - MIDDLE) / 12) ** 2 +
      (seed === 0 ? 0 : PRICE.seed * scattered(seed, at, sound))
    if (ways.length === 0) {
      ways = candidates.map((candidate) => ({ price: own(candidate), before: null, candidate, direction: 0 }))
      return
    }
    const found = new Map<number, BassWay>()
    for (const [index, candidate] of candidates.entries()) {
      const here = own(candidate)
      for (const before of ways) {
        const price = step(before.candidate, candidate, kind, before.direction, pulse)
        if (price === null) continue
        const direction = Math.sign(candidate.midi - before.candidate.midi) || before.direction
        const known = index * DIRECTIONS + direction
        const total = before.price + price + here
        const best = found.get(known)
        if (!best || total < best.price) found.set(known, { price: total, before, candidate, direction })
      }
    }
    ways = [...found.values()]
  })
  finish(pulses.length)
  return notes
}
