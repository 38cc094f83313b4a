import type { Chart } from '../chart/chart'
import { isCrowd } from './atPlace'
import { changesAt } from './options'
import type { Put } from './change'
import { reachOf } from './distance'
import type { Spot } from './spot'

/**
 * One measure of how far a change, a way through the tune or a kept version goes: what it changes, beat for beat (`reachOf`), against the most that the
 * rules could change at the same place, from 0 (plain) to 1 (far out). What the control of the whole tune is set to is the same measure.
 */
export interface Gone {
  index: number
  span: number
  puts: readonly Put[]
}

/** How far some changes go, over the slots from one to another, both included; 0 where nobody plays. Slots without a change count as plain. */
export function howFar(
  chart: Chart,
  spots: readonly (Spot | null)[],
  changes: readonly Gone[],
  from = 0,
  to = spots.length - 1,
): number {
  const most = spots
    .slice(from, to + 1)
    .reduce((sum, spot) => sum + (spot ? mostAt(chart, spot) * spot.beats : 0), 0)
  const gone = changes.reduce((sum, { index, span, puts }) => {
    const replaced = spots.slice(index, index + span).flatMap((spot) => spot ?? [])
    const [first] = replaced
    return first
      ? sum +
          reachOf(
            replaced.map(({ chord, beats }) => ({ chord, beats })),
            puts,
            first.key,
          ) *
            replaced.reduce((beats, one) => beats + one.beats, 0)
      : sum
  }, 0)
  return most > 0 ? Math.min(1, gone / most) : 0
}

const known = new WeakMap<Chart, Map<number, number>>()
/** The most that one application of a rule could change at a place. */
function mostAt(chart: Chart, spot: Spot): number {
  const byIndex = known.get(chart) ?? new Map<number, number>()
  known.set(chart, byIndex)
  const most =
    byIndex.get(spot.index) ??
    changesAt(spot).reduce(
      (sum, change) =>
        change.span > 1 || change.outOfPlace || isCrowd(change, spot)
          ? sum
          : Math.max(sum, reachOf([{ chord: spot.chord, beats: spot.beats }], change.puts, spot.key)),
      0,
    )
  byIndex.set(spot.index, most)
  return most
}

/** Where a way of saying it begins. Common practice, no source. */
const WORDS: readonly (readonly [number, string])[] = [
  [0.005, 'near home'],
  [0.38, 'a little way out'],
  [0.48, 'half way'],
  [0.7, 'well out'],
  [0.88, 'far out'],
]

/** "as it is", "near home", "half way", "far out". */
export const farInWords = (share: number): string =>
  WORDS.findLast(([begins]) => share >= begins)?.[1] ?? 'as it is'

/** The words, and the number for those who compare: "half way (48 of 100)". */
export const farInFull = (share: number): string =>
  share < WORDS[0]![0] ? farInWords(share) : `${farInWords(share)} (${Math.round(share * 100)} of 100)`
