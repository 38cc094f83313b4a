import { theOne } from '../lists'
import { parseChord } from '../chord/parseChord'
import { hasDegree, type ChordSymbol } from '../chord/symbol'
import { fretFor } from '../neck/instrument'
import { degreeBetween, spellDegree } from '../pitch/degree'
import { leastMotion, voiceSteps, type VoiceStep } from '../pitch/motion'
import { modulo, noteName, pitchClass, plainSpelling, type Note } from '../pitch/note'
import { voicingsOf } from '../voicing/enumerate'
import type { Limits } from '../voicing/gripLimits'
import { namesOf } from '../voicing/possibleNames'
import { voicingOf, type Voicing } from '../voicing/voicing'

export interface Stop {
  chord: ChordSymbol
  voicing: Voicing
}

/**
 * What an extra beat between two chords can be: voices that come late or early, or a chord of its
 * own on the way. Common practice, no source.
 */
export type OnTheWayKind = 'late resolution' | 'early arrival' | 'half step approach' | 'passing diminished'

/**
 * One more grip between two, on a beat taken from the end of the first chord or the beginning of
 * the second.
 */
export interface OnTheWay extends Stop {
  kind: OnTheWayKind
  takes: 'end of first' | 'beginning of second'
  words: string
}

/** A voice that moves no further than this may be late or early. */
const WHOLE_STEP = 2

/** Everything that can stand on an extra beat between two grips, within what the hand can hold. */
export function onTheWay(from: Stop, to: Stop, limits: Limits): OnTheWay[] {
  return [
    ...lateOrEarly(from, to, limits, 'late resolution'),
    ...lateOrEarly(from, to, limits, 'early arrival'),
    ...halfStepApproaches(to, limits),
    ...passingDiminished(from, to, limits),
  ]
}

/**
 * One or two upper voices that move by step do so a beat later than the others, or a beat earlier.
 * The bass stays with its chord.
 */
function lateOrEarly(
  from: Stop,
  to: Stop,
  limits: Limits,
  kind: 'late resolution' | 'early arrival',
): OnTheWay[] {
  const late = kind === 'late resolution'
  const host = late ? to : from
  const steps = voiceSteps(from.voicing.midis, to.voicing.midis)
  const here = (step: VoiceStep) => (late ? step.to : step.from)
  // A voice that parts in two, or meets another, has no one way to be late by.
  const alone = (step: VoiceStep) =>
    steps.every((other) => other === step || (other.from !== step.from && other.to !== step.to))
  const movable = steps.filter(
    (step) =>
      step.semitones !== 0 &&
      Math.abs(step.semitones) <= WHOLE_STEP &&
      here(step) !== host.voicing.midis[0] &&
      alone(step),
  )
  const sets = movable.flatMap((step, at) => [[step], ...movable.slice(at + 1).map((other) => [step, other])])
  return sets.flatMap((set): OnTheWay[] => {
    const frets = [...host.voicing.frets]
    for (const step of set) {
      const { string } = theOne(host.voicing.strings, ({ midi }) => midi === here(step))
      const fret = fretFor(limits.instrument, string, late ? step.from : step.to)
      if (fret === null) return []
      frets[string] = fret
    }
    const chord = called(frets, host, limits)
    const voicing = chord && voicingOf(frets, chord, limits)
    if (!voicing) return []
    return [
      {
        kind,
        takes: late ? 'beginning of second' : 'end of first',
        chord,
        voicing,
        words: set.map((step) => stepSaid(step, from, to, late)).join('; '),
      },
    ]
  })
}

/** What the mixture is called over the root of the chord in whose time it stands. */
function called(frets: readonly (number | null)[], host: Stop, limits: Limits): ChordSymbol | null {
  const plain = voicingOf(frets, host.chord, limits)
  if (!plain) return null
  const name = namesOf(plain.midis, { over: host.chord.root })[0] ?? namesOf(plain.midis)[0]
  return name?.chord ?? host.chord
}

function stepSaid({ from: a, to: b, semitones }: VoiceStep, from: Stop, to: Stop, late: boolean): string {
  const note = (stop: Stop, midi: number) => theOne(stop.voicing.strings, (one) => one.midi === midi).note
  const [before, after] = [note(from, a), note(to, b)]
  const root = late ? to.chord.root : from.chord.root
  const figures = `${degreeBetween(root, before)}–${degreeBetween(root, after)}`
  const moves = `${semitones < 0 ? 'falls' : 'rises'} to ${noteName(after)}`
  return late
    ? `${noteName(before)} stays and ${moves} a beat later, ${figures} over ${noteName(root)}`
    : `${noteName(before)} ${moves} a beat before the chord, ${figures} over ${noteName(root)}`
}

/** The grip of the second chord, a fret above or below it: every voice slides in. */
function halfStepApproaches(to: Stop, limits: Limits): OnTheWay[] {
  return ([1, -1] as const).flatMap((semitones): OnTheWay[] => {
    if (to.chord.bass) return []
    const frets = to.voicing.frets.map((fret) => (fret === null ? null : fret + semitones))
    const held =
      to.voicing.frets.every((fret) => fret === null || fret > 0) &&
      frets.every((fret) => fret === null || (fret > limits.instrument.capo && fret <= limits.frets[1]))
    const chord = parseChord(
      noteName(simply(spellDegree(to.chord.root, semitones > 0 ? 'b9' : '7'))) + to.chord.suffix,
    )
    const voicing = held && chord.ok ? voicingOf(frets, chord.value, limits) : null
    return chord.ok && voicing
      ? [
          {
            kind: 'half step approach',
            takes: 'end of first',
            chord: chord.value,
            voicing,
            words: `the same grip a fret ${semitones > 0 ? 'higher' : 'lower'}, then every voice ${semitones > 0 ? 'falls' : 'rises'} a half step`,
          },
        ]
      : []
  })
}

/**
 * Between roots a whole step apart: the diminished seventh on the note between, in the grip that
 * lies nearest to both.
 */
function passingDiminished(from: Stop, to: Stop, limits: Limits): OnTheWay[] {
  const apart = modulo(pitchClass(to.chord.root) - pitchClass(from.chord.root), 12)
  if ((apart !== 2 && apart !== 10) || hasDegree(from.chord, 'bb7') || hasDegree(to.chord, 'bb7')) return []
  const chord = parseChord(
    `${noteName(simply(apart === 2 ? { ...from.chord.root, alter: from.chord.root.alter + 1 } : spellDegree(to.chord.root, 'b9')))}dim7`,
  )
  if (!chord.ok) return []
  const travel = (voicing: Voicing) =>
    leastMotion(from.voicing.midis, voicing.midis) +
    leastMotion(voicing.midis, to.voicing.midis) +
    voicing.fingering.difficulty
  const [nearest] = voicingsOf(chord.value, limits)
    .map((voicing) => ({ voicing, far: travel(voicing) }))
    .sort((a, b) => a.far - b.far)
  return nearest
    ? [
        {
          kind: 'passing diminished',
          takes: 'end of first',
          chord: chord.value,
          voicing: nearest.voicing,
          words: `${noteName(chord.value.root)} lies between the roots ${noteName(from.chord.root)} and ${noteName(to.chord.root)}`,
        },
      ]
    : []
}

/** Nobody reads a root with two accidentals. */
const simply = (root: Note): Note => (Math.abs(root.alter) > 1 ? plainSpelling(pitchClass(root)) : root)
