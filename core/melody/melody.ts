import type { Chart } from '../chart/chart'
import { moveNote } from '../chart/transpose'
import { midiOf, pitchAt } from '../pitch/note'
import type { Key } from '../pitch/key'
import type { MelodyNote } from '../reharm/melodyFit'
import type { Limits } from '../voicing/gripLimits'
import { Clock, rounded, sungIn } from './clock'

/** The melody so many octaves higher or lower. */
export const byOctaves = (melody: readonly MelodyNote[], octaves: number): MelodyNote[] =>
  melody.map((one) => ({ ...one, note: { ...one.note, octave: one.note.octave + octaves } }))

/**
 * The melody some semitones higher, spelled as the tonic of one key moves to the tonic of another.
 */
export const melodyInKey = (
  melody: readonly MelodyNote[],
  from: Key,
  to: Key,
  semitones: number,
): MelodyNote[] =>
  melody.map((one) => ({
    ...one,
    note: pitchAt(midiOf(one.note) + semitones, moveNote(one.note, from.tonic, to.tonic)),
  }))

/**
 * Where a melody sings over its own chords on a guitar in standard tuning: on the two highest
 * strings, with room for a grip below. Common practice, no source.
 */
const SINGS = [59, 81] as const
const MIDDLE = 70

/**
 * How many octaves the melody has to go up or down to lie where the instrument sings: as many notes
 * as can be on the neck, then near the middle of the upper strings.
 */
export function octavesToSing(melody: readonly MelodyNote[], { instrument, frets }: Limits): number {
  if (melody.length === 0) return 0
  const [low, high] = [
    Math.max(SINGS[0], Math.min(...instrument.tuning) + instrument.capo),
    Math.min(SINGS[1] + 5, Math.max(...instrument.tuning) + frets[1]),
  ]
  const price = (octaves: number) =>
    melody.reduce((sum, { note }) => {
      const midi = midiOf(note) + 12 * octaves
      return sum + (midi < low || midi > high ? 100 : 0) + Math.abs(midi - MIDDLE)
    }, 0)
  return [0, -1, 1, -2, 2, -3, 3].reduce((best, one) => (price(one) < price(best) ? one : best))
}

/** A parts-of-a-beat grid that notes are put on. */
export const GRIDS = [1, 2, 3, 4, 6] as const
export type Grid = (typeof GRIDS)[number]

/**
 * The melody with beginnings and ends on the lines of a grid, parts of a beat; a note is never
 * shorter than one part, and of notes that fall together the first stays.
 */
export function quantised(chart: Chart, melody: readonly MelodyNote[], grid: Grid): MelodyNote[] {
  const clock = new Clock(chart)
  const on = (time: number) => Math.round(time * grid) / grid
  const taken = new Set<number>()
  return sungIn(clock, melody).flatMap(({ note, from, to }): MelodyNote[] => {
    const begin = on(from)
    if (taken.has(begin) || begin >= clock.end) return []
    taken.add(begin)
    const place = clock.place(begin)
    return [
      {
        note: note.note,
        ...place,
        beats: rounded(clock.beatsIn(place.bar, Math.max(1 / grid, on(to) - begin))),
      },
    ]
  })
}
