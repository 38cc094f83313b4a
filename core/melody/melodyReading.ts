import { firstOf, itemAt } from '../lists'
import type { Analysis } from '../analysis/chordReading'
import type { Chart } from '../chart/chart'
import { slotKey, slotsOf } from '../chart/chart'
import { parseChord } from '../chord/parseChord'
import { hasDegree, type ChordSymbol } from '../chord/symbol'
import { soursIn } from '../voicing/clashes'
import { handPlace, handTravelMm } from '../leading/measures'
import { degreeBetween, type Degree } from '../pitch/degree'
import { noteName, pitchClass, pitchName } from '../pitch/note'
import { coloursOf } from '../reharm/colour'
import { heardOver, type Heard, type MelodyNote } from '../reharm/melodyFit'
import { optionsOf } from '../reharm/options'
import { spotsOf } from '../reharm/spot'
import type { Limits } from '../voicing/gripLimits'
import { Clock, NEAR, sungIn, type Sung } from './clock'
import type { HarmonisedNote, LinePlace } from './melodyLine'

/** The smallest thing that makes a fighting note sit. */
export type Remedy =
  /** It moves by step off the beat: it may stay as it is. */
  | { kind: 'passing note'; says: string }
  /** Nothing near takes it. */
  | { kind: 'alone'; says: string }
  /** Another colour, or another chord, for the chord of the home line with this index. */
  | { kind: 'colour' | 'substitute'; says: string; index: number; symbol: string; rule: string }

/** What a melody note is over the chord that stands there. */
export interface NoteReading {
  note: MelodyNote
  chord: ChordSymbol | null
  degree: Degree | null
  heard: Heard | null
  /** For a note that fights the chord; the smallest first. */
  remedies: Remedy[]
}

/** Notes no longer than this, in beats, pass when they move by step. */
const SHORT = 1
const STEP = 2
/** Remedies named for one note. */
const REMEDIES = 3

/**
 * What each note is over the chords of some places, and for those that fight the smallest remedies:
 * it passes; a colour of the same chord that takes it; a substitute that does, the one nearest to
 * home first.
 */
export function melodyReading(
  chart: Chart,
  analysis: Analysis,
  places: readonly LinePlace[],
  melody: readonly MelodyNote[],
): NoteReading[] {
  const clock = new Clock(chart)
  const notes = sungIn(clock, melody)
  const spans = places.map((place) => {
    const from = clock.at(place)
    return { chord: place.chord, from, to: from + clock.lasts(place.bar, place.beats) }
  })
  const slots = slotsOf(chart)
  const { colouredFor, substitutesFor } = remediesIn(chart, analysis, clock, notes)
  return notes.map((one, at): NoteReading => {
    const { note, from } = one
    const chord = spans.findLast((span) => span.from <= from + NEAR && from < span.to - NEAR)?.chord ?? null
    if (!chord) return { note, chord, degree: null, heard: null, remedies: [] }
    const sound = pitchClass(note.note)
    const heard = heardOver(sound, chord)
    const degree = degreeBetween(chord.root, note.note)
    if (heard === 'chord tone' || heard === 'tension') return { note, chord, degree, heard, remedies: [] }
    const index = slots.findLastIndex((slot) => clock.at(slot) <= from + NEAR)
    const remedies: Remedy[] = passes(notes, at, one)
      ? [{ kind: 'passing note', says: `${pitchName(note.note)} passes by step: it may stay.` }]
      : []
    remedies.push(...colouredFor(sound, index))
    if (remedies.length < REMEDIES) remedies.push(...substitutesFor(index, REMEDIES - remedies.length))
    const held = heard === 'avoid' && index >= 0 ? suspendedOf(chord) : null
    if (held && remedies.length < REMEDIES)
      remedies.push({
        kind: 'colour',
        says: `${held} waits for its third and has it`,
        index,
        symbol: held,
        rule: 'dominant-colour',
      })
    if (remedies.length === 0)
      remedies.push({
        kind: 'alone',
        says: `No colour and no substitute near takes ${pitchName(note.note)}: play it alone, the chord a beat later.`,
      })
    return { note, chord, degree, heard, remedies: remedies.slice(0, REMEDIES) }
  })
}

/** What mends a note at a chord of the home line, by its index. */
function remediesIn(chart: Chart, analysis: Analysis, clock: Clock, notes: ReturnType<typeof sungIn>) {
  const slots = slotsOf(chart)
  let spots: ReturnType<typeof spotsOf> | null = null
  const readingAt = (index: number) => {
    const slot = slots[index]
    return slot && analysis.readings.find((other) => slotKey(other.slot) === slotKey(slot))
  }
  /** Colours of the chord that stands there which take a sound. */
  const colouredFor = (sound: number, index: number): Remedy[] => {
    const reading = readingAt(index)
    return (reading ? coloursOf(reading) : [])
      .filter((option) => option.rule !== 'plain' && takesNote(option.chord, sound))
      .slice(0, REMEDIES)
      .map((option): Remedy => ({
        kind: 'colour',
        says: `${option.chord.canonical} has it`,
        index,
        symbol: option.chord.canonical,
        rule: option.rule,
      }))
  }
  /** Other chords in its place that take every note over it, the nearest to home first. */
  const substitutesFor = (index: number, most: number): Remedy[] => {
    const slot = slots[index]
    if (!slot || !readingAt(index)) return []
    spots ??= spotsOf(chart, analysis)
    const whole = notes.filter(
      (other) =>
        other.from >= clock.at(slot) - NEAR &&
        other.from < clock.at(slot) + clock.lasts(slot.bar, slot.beats) - NEAR,
    )
    return optionsOf(chart, spots, index, { depth: 1 })
      .filter(
        ({ span, puts }) =>
          span === 1 &&
          puts.length === 1 &&
          whole.every((other) => takesNote(firstOf(puts).chord, pitchClass(other.note.note))),
      )
      .sort((a, b) => a.distance.total - b.distance.total)
      .slice(0, most)
      .map(({ puts, rule, name }): Remedy => ({
        kind: 'substitute',
        says: `${firstOf(puts).chord.canonical} instead, ${name}`,
        index,
        symbol: firstOf(puts).chord.canonical,
        rule,
      }))
  }
  return { colouredFor, substitutesFor }
}

/**
 * The chord with its third held up: what a natural 11 over a major third asks for (common practice:
 * #11 is the usual answer, sus where the 11 is the melody).
 */
function suspendedOf(chord: ChordSymbol): string | null {
  const read = parseChord(`${noteName(chord.root)}${hasDegree(chord, 'b7') ? '7sus4' : 'sus4'}`)
  return read.ok ? read.value.canonical : null
}

const takesNote = (chord: ChordSymbol, sound: number): boolean => {
  const heard = heardOver(sound, chord)
  return heard === 'chord tone' || heard === 'tension'
}

/** Short, and reached and left by step (common practice). */
function passes(notes: readonly Sung[], at: number, { midi, from, to }: Sung): boolean {
  const [before, after] = [notes[at - 1], notes[at + 1]]
  return (
    to - from <= SHORT + NEAR &&
    before !== undefined &&
    after !== undefined &&
    Math.abs(midi - before.midi) <= STEP &&
    Math.abs(after.midi - midi) <= STEP &&
    midi !== after.midi
  )
}

/** A place of a chord melody that asks for another look. */
export interface Trouble {
  kind: 'unreachable' | 'sour' | 'jumpy' | 'hard'
  at: number
  says: string
  remedy: string
}

/**
 * The hand is said to jump when it has to travel faster than this, in mm a second (common practice,
 * no source).
 */
const JUMP_MM_S = 350
const JUMP_LEAST_MM = 60
/** Effort of a grip from which it is said to be hard. */
const HARD = 5

/** What of a chord melody the hand cannot follow or the ear may mind, with what would mend it. */
export function troubles(
  notes: readonly HarmonisedNote[],
  tempo: number,
  limits: Pick<Limits, 'instrument'>,
): Trouble[] {
  const hands = notes.map(({ voicing }) => handPlace(voicing, limits.instrument))
  return notes.flatMap((one, at): Trouble[] => {
    const found: Trouble[] = []
    const name = one.note ? pitchName(one.note.note) : (one.chord?.canonical ?? 'the chord')
    if (one.kind === 'single note' && one.chord && one.note)
      found.push({
        kind: 'unreachable',
        at,
        says: `${name} stands alone: no hand reaches it with a chord.`,
        remedy: 'another octave, another position, or a thinner texture',
      })
    if (one.chord && one.under === 'chord' && soursIn(one.voicing.midis, one.chord).length > 0)
      found.push({
        kind: 'sour',
        at,
        says: `A minor ninth sounds under ${name}.`,
        remedy: 'another grip of the chord, or another chord under the note',
      })
    const before = notes[at - 1]
    if (before) {
      const mm = handTravelMm(itemAt(hands, at - 1), itemAt(hands, at))
      const seconds = (before.beats * 60) / tempo
      if (mm >= JUMP_LEAST_MM && mm / seconds > JUMP_MM_S)
        found.push({
          kind: 'jumpy',
          at,
          says: `The hand jumps ${Math.round(mm)} mm to ${name} in ${seconds.toFixed(1)} s.`,
          remedy: 'one position, fewer chords, or a slower tempo',
        })
    }
    if (one.under === 'chord' && one.voicing.fingering.difficulty > HARD)
      found.push({
        kind: 'hard',
        at,
        says: `The grip under ${name} is hard.`,
        remedy: 'an easier grip of the same chord, or a thinner texture',
      })
    return found
  })
}
