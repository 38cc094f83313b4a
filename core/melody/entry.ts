import { theOne } from '../lists'
import type { Chart } from '../chart/chart'
import { scaleNotes, type Key } from '../pitch/key'
import {
  midiOf,
  modulo,
  parsePitch,
  pitchAt,
  pitchClass,
  pitchName,
  plainSpelling,
  type Pitch,
} from '../pitch/note'
import type { MelodyNote } from '../reharm/melodyFit'
import { Clock, NEAR, rounded } from './clock'
import { quantised, type Grid } from './melody'

type NotePlace = Pick<MelodyNote, 'bar' | 'beat'>

/**
 * The melody with a note at a place; what sounded into it is cut, and what began in its time gives
 * way.
 */
export function withNote(chart: Chart, melody: readonly MelodyNote[], note: MelodyNote): MelodyNote[] {
  const clock = new Clock(chart)
  const from = clock.at(note)
  if (Number.isNaN(from)) return [...melody]
  const to = Math.min(clock.end, from + clock.lasts(note.bar, note.beats))
  return inOrder(clock, [
    ...cleared(clock, melody, from, to),
    { ...note, beats: rounded(clock.beatsIn(note.bar, to - from)) },
  ])
}

/** The melody with silence for a time. */
export function withRest(
  chart: Chart,
  melody: readonly MelodyNote[],
  place: NotePlace,
  beats: number,
): MelodyNote[] {
  const clock = new Clock(chart)
  const from = clock.at(place)
  return Number.isNaN(from)
    ? [...melody]
    : inOrder(clock, cleared(clock, melody, from, from + clock.lasts(place.bar, beats)))
}

/** Notes beyond the bars of the chart are kept as they are. */
function cleared(clock: Clock, melody: readonly MelodyNote[], from: number, to: number): MelodyNote[] {
  return melody.flatMap((one): MelodyNote[] => {
    const begins = clock.at(one)
    if (Number.isNaN(begins)) return [one]
    const ends = begins + clock.lasts(one.bar, one.beats)
    if (ends <= from + NEAR || begins >= to - NEAR) return [one]
    const before =
      begins < from - NEAR ? [{ ...one, beats: rounded(clock.beatsIn(one.bar, from - begins)) }] : []
    // Of a note that began inside, what is left behind goes too: it would be struck where nothing
    // was.
    return before
  })
}

const inOrder = (clock: Clock, melody: MelodyNote[]): MelodyNote[] => {
  const at = (one: MelodyNote) => {
    const time = clock.at(one)
    return Number.isNaN(time) ? Infinity : time
  }
  return melody.sort((a, b) => (at(a) === at(b) ? a.bar - b.bar || a.beat - b.beat : at(a) - at(b)))
}

/** One note, told by its place, made other; gone where null comes back. */
export const withChanged = (
  melody: readonly MelodyNote[],
  place: NotePlace,
  change: (note: MelodyNote) => MelodyNote | null,
): MelodyNote[] =>
  melody.flatMap((one) =>
    one.bar === place.bar && Math.abs(one.beat - place.beat) < NEAR ? (change(one) ?? []) : [one],
  )

/** A pitch that can be written down and sounded: octaves -1 to 9, and MIDI 0 to 127. */
export const canBeWritten = (pitch: Pitch): boolean =>
  parsePitch(pitchName(pitch)).ok && midiOf(pitch) >= 0 && midiOf(pitch) <= 127

/**
 * A note made longer by some beats, up to the next note or the end of the tune; null where there is
 * no room.
 * @param more in beats of the note's bar
 */
export function withLonger(
  chart: Chart,
  melody: readonly MelodyNote[],
  note: MelodyNote,
  more: number,
): { melody: MelodyNote[]; beats: number } | null {
  const clock = new Clock(chart)
  const from = clock.at(note)
  const next = melody
    .map((one) => clock.at(one))
    .filter((at) => at > from + NEAR)
    .reduce((a, b) => Math.min(a, b), clock.end)
  const beats = rounded(Math.min(note.beats + more, clock.beatsIn(note.bar, next - from)))
  return beats > note.beats + NEAR
    ? { melody: withChanged(melody, note, (one) => ({ ...one, beats })), beats }
    : null
}

/**
 * A letter as the pitch next to the one before, as the key has it; near G4 where nothing stands
 * before.
 */
export function pitchOfLetter(letter: number, key: Key, before: Pitch | null): Pitch {
  const note = theOne(scaleNotes(key), (one) => one.letter === letter)
  const near = before ?? { letter: 4, alter: 0, octave: 4 }
  const steps = (pitch: Pitch) => pitch.octave * 7 + pitch.letter
  return [near.octave - 1, near.octave, near.octave + 1]
    .map((octave): Pitch => ({ ...note, octave }))
    .reduce((best, one) =>
      Math.abs(steps(one) - steps(near)) < Math.abs(steps(best) - steps(near)) ? one : best,
    )
}

/**
 * A pitch some semitones on, spelled as the key has it, else with sharps going up and flats going
 * down.
 */
export function pitchNear(midi: number, key: Key, up: boolean): Pitch {
  const sound = modulo(midi, 12)
  const own = scaleNotes(key).find((note) => pitchClass(note) === sound)
  return pitchAt(midi, own ?? plainSpelling(sound, up))
}

/** A key that was pressed and let go, in seconds from the first beat. */
export interface Tap {
  from: number
  to: number
  pitch: Pitch
}

/**
 * What was played in time as a melody on a grid, from a place on.
 * @param tempo beats a minute
 */
export function playedIn(
  chart: Chart,
  begin: NotePlace,
  taps: readonly Tap[],
  tempo: number,
  grid: Grid,
): MelodyNote[] {
  const clock = new Clock(chart)
  const start = clock.at(begin)
  if (Number.isNaN(start)) return []
  const inBeats = (seconds: number) => (seconds * tempo) / 60
  const notes = taps.flatMap(({ from, to, pitch }): MelodyNote[] => {
    // Pressed a little before the first beat is meant on it.
    const time = start + Math.max(0, inBeats(from))
    if (inBeats(from) < -0.5 || time >= clock.end) return []
    const place = clock.place(time)
    return [
      {
        note: pitch,
        ...place,
        beats: Math.max(1 / grid, rounded(clock.beatsIn(place.bar, inBeats(to - from)))),
      },
    ]
  })
  return quantised(chart, notes, grid)
}

/** A melody with another one put over a stretch of it. */
export function withPassage(
  chart: Chart,
  melody: readonly MelodyNote[],
  passage: readonly MelodyNote[],
): MelodyNote[] {
  return passage.reduce<MelodyNote[]>((all, note) => withNote(chart, all, note), [...melody])
}
