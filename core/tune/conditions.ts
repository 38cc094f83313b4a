import { firstOf, itemAt } from '../lists'
import { NEAR } from '../chart/beats'
import type { Constraint } from '../leading/constraints'
import { midiOf, parsePitch } from '../pitch/note'
import type { LineChord } from './decisions'
import type { Condition } from './document'

type KindOfCondition = Condition['kind']
const place = (key: string) => {
  const [bar, beat] = key.split(':').map(Number)
  return { bar: bar!, beat: beat! }
}

type AskedCondition = Condition extends infer One
  ? One extends { from: string; to: string }
    ? Omit<One, 'from' | 'to'>
    : never
  : never

/** A condition as it is typed; null where it cannot be read. */
export function readCondition(kind: KindOfCondition, text: string, strings: number): AskedCondition | null {
  const words = text
    .trim()
    .split(/[\s,–]+|(?<=\d)-/)
    .filter(Boolean)
  const pitches = words.map((word) => {
    const pitch = parsePitch(word)
    return pitch.ok ? midiOf(pitch.value) : NaN
  })
  const numbers = words.map((word) => (/^\d+$/.test(word) ? Number(word) : NaN))
  const [pitch = NaN] = pitches
  const [number = NaN] = numbers
  const string = strings - number
  const pair = (list: readonly number[], least: number, most: number) =>
    list.length === 2 && firstOf(list) <= itemAt(list, 1) && list.every((one) => one >= least && one <= most)
  switch (kind) {
    case 'top':
    case 'sounds':
      return words.length === 1 && pitch >= 0 ? { kind, midi: pitch } : null
    case 'silent':
    case 'open':
      return words.length === 1 && string >= 0 && string < strings ? { kind, string } : null
    case 'frets':
      return pair(numbers, 1, 36) ? { kind, low: firstOf(numbers), high: itemAt(numbers, 1) } : null
    case 'range':
      return pair(pitches, 0, 127) ? { kind, low: firstOf(pitches), high: itemAt(pitches, 1) } : null
  }
}

/**
 * Conditions as the search takes them: by the places of the sounding chords. Strings the instrument
 * lacks are passed over.
 */
export function constraintsOf(
  conditions: readonly Condition[],
  sounding: readonly LineChord[],
  strings: number,
): Constraint[] {
  const order = ({ bar, beat }: { bar: number; beat: number }) => bar * 1000 + beat
  return conditions.flatMap((one): Constraint[] => {
    if ('string' in one && one.string >= strings) return []
    const first = sounding.findIndex(({ slot }) => order(slot) >= order(place(one.from)) - NEAR)
    const last = sounding.findLastIndex(({ slot }) => order(slot) <= order(place(one.to)) + NEAR)
    return first >= 0 && last >= first ? [{ ...one, from: first, to: last }] : []
  })
}
