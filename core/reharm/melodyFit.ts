import { itemAt } from '../lists'
import { NEAR } from '../chart/beats'
import type { Chart, Slot } from '../chart/chart'
import type { ChordSymbol } from '../chord/symbol'
import { kindOf } from '../analysis/kind'
import { modulo, pitchClass, pitchName, type Pitch } from '../pitch/note'
import type { Put } from './change'

/** A note of the tune's melody at its place; beats count from 1. */
export interface MelodyNote {
  bar: number
  beat: number
  beats: number
  note: Pitch
}

/** How a melody note is heard over a chord. */
export type Heard = 'chord tone' | 'tension' | 'avoid' | 'sour'

export interface MelodyFit {
  bar: number
  beat: number
  note: string
  over: string
  heard: Heard
}

/**
 * A note over a chord (common practice: availability, the sour interval): one of its tones; a
 * tension; a natural 11 over a major third, to avoid; or a half step above another chord tone, a
 * sour minor ninth, unless it is the b9 of a dominant that falls a fifth. Over a dominant that does
 * not, such as a substitute, b9, #9 and b13 are notes to avoid.
 * @param resolves the chord goes a fifth down
 */
export function heardOver(sound: number, chord: ChordSymbol, resolves = true): Heard {
  const tones = chord.tones.map((tone) => pitchClass(tone.note))
  if (tones.includes(sound)) return 'chord tone'
  const kind = kindOf(chord)
  const above = modulo(sound - pitchClass(chord.root), 12)
  if (kind === 'dominant' && [1, 3, 8].includes(above)) return resolves ? 'tension' : 'avoid'
  if (above === 5 && chord.tones.some((tone) => tone.degree === '3')) return 'avoid'
  return tones.some((tone) => modulo(sound - tone, 12) === 1) ? 'sour' : 'tension'
}

/**
 * Every melody note that sounds over some chords in the place of some slots, once for each of them
 * it sounds over: also when a chord enters under it.
 */
export function fitOf(
  puts: readonly Put[],
  replaced: readonly Slot[],
  melody: readonly MelodyNote[],
  starts: BarStarts,
  next: number | null = null,
): MelodyFit[] {
  const [first] = replaced
  if (!first) return []
  let from = starts(first.bar) + first.beat - 1
  return puts.flatMap((put, at) => {
    const begins = from
    from += put.beats
    const goal = puts[at + 1] ? pitchClass(itemAt(puts, at + 1).chord.root) : next
    const resolves = goal === null || modulo(pitchClass(put.chord.root) - goal, 12) === FIFTH
    return melody
      .filter((one) => {
        const sounds = starts(one.bar) + one.beat - 1
        return sounds < from - NEAR && sounds + one.beats > begins + NEAR
      })
      .map((one): MelodyFit => ({
        bar: one.bar,
        beat: one.beat,
        note: pitchName(one.note),
        over: put.chord.canonical,
        heard: heardOver(pitchClass(one.note), put.chord, resolves),
      }))
  })
}
const FIFTH = 7

/**
 * Beats from the beginning of the tune to the first beat of a bar, by its number, as the page
 * stands.
 */
export type BarStarts = (bar: number) => number
export function barStarts({ bars }: Pick<Chart, 'bars'>): BarStarts {
  const starts = new Map<number, number>()
  let sum = 0
  for (const { number, beats, from } of bars) {
    // A pickup begins in the middle of its bar: its beats are counted from where they stand.
    starts.set(number, sum - (from - 1))
    sum += beats
  }
  return (bar) => starts.get(bar) ?? sum
}
