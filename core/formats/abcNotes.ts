import { firstOf, itemAt } from '../lists'
import type { Bar } from '../chart/chart'
import type { Pitch } from '../pitch/note'
import { DIVISIONS, noteValues } from './noteValues'

/**
 * Places and lengths nearer than this are the same, in beats: melodies are kept in thousandths of a
 * beat.
 */
export const SAME_PLACE = 2e-3

const ACCIDENTALS: Readonly<Record<string, string>> = { '-2': '__', '-1': '_', '0': '=', '1': '^', '2': '^^' }

/** A pitch as ABC 2.1 has it. @param signed its sign is written, whatever the key says */
export function abcPitch({ letter, alter, octave }: Pitch, signed: boolean): string {
  const name = itemAt('CDEFGAB', letter)
  const height = octave >= 5 ? name.toLowerCase() + "'".repeat(octave - 5) : name + ','.repeat(4 - octave)
  return (signed ? (ACCIDENTALS[String(alter)] ?? '') : '') + height
}

/** A note, chord or rest of one value. */
export interface AbcValue {
  /** Symbols and signs that stand before it. */
  before: string
  name: string
  /** As it is written, in units of length: of a triplet half as long again as it lasts. */
  written: number
  triplet: boolean
  tied: boolean
}

/**
 * A length as one value or several that are tied, rests side by side; what is finer than sixteenths
 * stays one.
 * @param beats of the bar
 * @param unit units of length in a beat
 */
export function abcValues(
  { name, before, tied }: Pick<AbcValue, 'name' | 'before' | 'tied'>,
  beats: number,
  { meter }: Bar,
  unit: number,
): AbcValue[] {
  const length = (beats * 4 * DIVISIONS) / meter.unit
  const found = Math.abs(length - Math.round(length)) < SAME_PLACE ? noteValues(Math.round(length)) : []
  const parts =
    found.length < 2 || found.some(({ type }) => type === null) ? [length] : found.map((one) => one.length)
  return parts.map((part, at) => ({
    before: at === 0 ? before : '',
    name,
    ...writtenAs((part * meter.unit * unit) / (4 * DIVISIONS)),
    tied: name !== REST && (at < parts.length - 1 || tied),
  }))
}
export const REST = 'z'

/**
 * Halves, quarters and the like of a unit; else a note of a triplet; else the nearest that can be
 * written.
 */
function writtenAs(units: number): Pick<AbcValue, 'written' | 'triplet'> {
  for (const below of PARTS) {
    if (isWhole(units * below)) return { written: Math.round(units * below) / below, triplet: false }
    if (isWhole(units * 1.5 * below))
      return { written: Math.round(units * 1.5 * below) / below, triplet: true }
  }
  return { written: Math.max(1, Math.round(units * FINEST)) / FINEST, triplet: false }
}
const PARTS = [1, 2, 4, 8, 16, 32]
const FINEST = 32
const isWhole = (value: number): boolean =>
  Math.abs(value - Math.round(value)) < SAME_PLACE * 4 && Math.round(value) > 0

/**
 * Values of a bar in a line. Triplets stand in groups: one is over where it fills two of its
 * shortest values, or a multiple.
 */
export function inALine(values: readonly AbcValue[]): string {
  const opens = new Map<number, string>()
  let group: number[] = []
  const close = () => {
    if (group.length > 0) opens.set(firstOf(group), group.length === 3 ? '(3' : `(3:2:${group.length}`)
    group = []
  }
  values.forEach((value, at) => {
    if (!value.triplet) return close()
    group.push(at)
    const written = group.map((one) => itemAt(values, one).written)
    const filled = written.reduce((sum, one) => sum + one, 0) / (3 * Math.min(...written))
    if (Math.abs(filled - Math.round(filled)) < SAME_PLACE) close()
  })
  close()
  return values
    .map(
      ({ before, name, written, tied }, at) =>
        `${opens.get(at) ?? ''}${before}${name}${lengthOf(written)}${tied ? '-' : ''}`,
    )
    .join(' ')
}

/** A length in units as ABC writes it: `2`, `3/2`, `/2`; nothing for one. */
function lengthOf(units: number): string {
  const below = PARTS.find((part) => Math.abs(units * part - Math.round(units * part)) < NEAR_WHOLE) ?? FINEST
  const above = Math.round(units * below)
  return `${above === 1 ? '' : above}${below === 1 ? '' : `/${below}`}`
}
const NEAR_WHOLE = 1e-6
