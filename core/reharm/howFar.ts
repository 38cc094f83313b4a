import { entryOf, firstOf, itemAt } from '../lists'
import { slotsOf, type Chart } from '../chart/chart'
import { isCrowd } from './atPlace'
import { changesAt } from './options'
import type { Put } from './change'
import { reachOf } from './distance'
import type { Spot } from './spot'

/**
 * One measure of how far a change, a way through the tune or a kept version goes: what it changes,
 * beat for beat (`reachOf`), against the most that the rules could change at the same place, from 0
 * (plain) to 1 (far out). The control of the whole tune reads the same measure off its own scale
 * (`onDial`).
 */
export interface Gone {
  index: number
  span: number
  puts: readonly Put[]
}

/**
 * How far some changes go, over the slots from one to another, both included; 0 where nobody plays.
 * Slots without a change count as plain.
 */
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

/**
 * What the control of a whole tune says for a share of the most that could be changed. Players who
 * are asked for 0.2, 0.5 and 0.8 change 0.21, 0.36 and 0.65 of it (the middle of the preferred
 * versions in `fit/versions`): tunes are changed in fewer places than they could be.
 */
const DIAL: readonly (readonly [dial: number, share: number])[] = [
  [0, 0],
  [0.2, 0.2],
  [0.5, 0.37],
  [0.8, 0.65],
  [1, 1],
]

const along = (value: number, from: 0 | 1, to: 0 | 1): number => {
  const at = Math.max(
    1,
    DIAL.findIndex((point) => value <= point[from]),
  )
  const [a, b] = [itemAt(DIAL, at - 1), itemAt(DIAL, at)]
  return a[to] + ((value - a[from]) / (b[from] - a[from])) * (b[to] - a[to])
}
export const onDial = (share: number): number => along(Math.min(1, Math.max(0, share)), 1, 0)
export const offDial = (dial: number): number => along(Math.min(1, Math.max(0, dial)), 0, 1)

/** How far a whole tune or a stretch of it goes, on the control's scale: 0 plain to 1 far out. */
export const tuneFar = (...asked: Parameters<typeof howFar>): number => onDial(howFar(...asked))

/** Bars that are heard as one passage. */
const PASSAGE = 4

/**
 * The passage of four bars that goes farthest, on the control's scale; null in a tune of no more
 * than that.
 */
export function farthestPassage(
  chart: Chart,
  spots: readonly (Spot | null)[],
  changes: readonly Gone[],
): { from: number; to: number; far: number } | null {
  if (chart.bars.length <= PASSAGE) return null
  const indexOf = new Map(chart.bars.map(({ number }, index) => [number, index]))
  const barOf = slotsOf(chart).map(({ bar }) => entryOf(indexOf, bar))
  const passages = chart.bars.slice(0, chart.bars.length - PASSAGE + 1).map((bar, first) => {
    const from = barOf.indexOf(first)
    const to = barOf.findLastIndex((at) => at < first + PASSAGE)
    const inside = changes.filter(({ index, span }) => index >= from && index + span - 1 <= to)
    return {
      from: bar.number,
      to: itemAt(chart.bars, first + PASSAGE - 1).number,
      far: from < 0 ? 0 : tuneFar(chart, spots, inside, from, to),
    }
  })
  return passages.reduce((a, b) => (b.far > a.far ? b : a))
}

/**
 * Where a way of saying it begins: for one chord, and for a whole tune. Common practice, no source.
 */
type Words = readonly (readonly [number, string])[]
const WORDS: Words = [
  [0.005, 'near home'],
  [0.38, 'a little way out'],
  [0.48, 'half way'],
  [0.7, 'well out'],
  [0.88, 'far out'],
]
const TUNE_WORDS: Words = [
  [0.005, 'near home'],
  [0.3, 'a little way out'],
  [0.45, 'half way'],
  [0.65, 'well out'],
  [0.85, 'far out'],
]

const said = (share: number, words: Words): string =>
  words.findLast(([begins]) => share >= begins)?.[1] ?? 'as it is'
const inFull = (share: number, words: Words): string =>
  share < firstOf(words)[0] ? said(share, words) : `${said(share, words)} (${Math.round(share * 100)} of 100)`

/** "as it is", "near home", "half way", "far out": of one chord. */
export const farInWords = (share: number): string => said(share, WORDS)
/** The words, and the number for those who compare: "half way (48 of 100)". */
export const farInFull = (share: number): string => inFull(share, WORDS)
/** The same of a whole tune or a stretch of it. */
export const tuneFarInWords = (dial: number): string => said(dial, TUNE_WORDS)
export const tuneFarInFull = (dial: number): string => inFull(dial, TUNE_WORDS)
