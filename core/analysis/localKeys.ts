import { keyName, type Key } from '../pitch/key'
import { pitchClass } from '../pitch/note'
import { MODES, spelledKey, weightOf } from './findKey'
import { keyFit } from './keyFit'
import type { Sounding } from './places'

/**
 * Points lost by changing the key, and gained by each chord read at home. A visit has to be worth two changes, there and
 * back: about four chords of a key of their own. Common practice, no source.
 */
const CHANGE = 3
/** Between major and minor on one tonic: home stays home. */
const PARALLEL_CHANGE = 1.5
const AT_HOME = 0.25
/** A key that is written in the chart is taken at its word there. */
const WRITTEN = 1.5

/**
 * The key each chord is read in: the best path through all 24 keys over the whole tune, where every chord is scored in
 * every key and a change of key costs. A passage whose own I never sounds stays at home: a ii-V on the way is read there as
 * what it points at.
 * @param written the key the chart names at each chord, or null where it names none
 * @returns one for each chord
 */
export function localKeys(sounding: readonly Sounding[], home: Key, written: readonly (Key | null)[]): Key[] {
  const keys = MODES.flatMap((mode) => Array.from({ length: 12 }, (_, tonic) => ({ tonic, mode })))
  const isKey = (key: Key, at: number) => pitchClass(key.tonic) === keys[at]!.tonic && key.mode === keys[at]!.mode
  const judged = sounding.map((one) => ({ ...one, root: pitchClass(one.chord.root) }))

  let scores: number[] = keys.map((_, at) => (isKey(home, at) ? 0 : -CHANGE))
  const from: number[][] = []
  judged.forEach((one, index) => {
    const best = scores.reduce((top, score, at) => (score > scores[top]! ? at : top), 0)
    const cameFrom = scores.map((score, at) => {
      const parallel = (at + 12) % 24
      const ways = [[at, score], [best, scores[best]! - CHANGE], [parallel, scores[parallel]! - PARALLEL_CHANGE]] as const
      return ways.reduce((top, way) => (way[1] > top[1] ? way : top))
    })
    const arrivals = cameFrom.map(([at]) => at)
    from.push(arrivals)
    const named = written[index]
    scores = keys.map(({ tonic, mode }, at) => {
      const fit = keyFit(one, judged[index + 1], tonic, mode) * weightOf(one.slot.beats)
      return cameFrom[at]![1] + fit + (isKey(home, at) ? AT_HOME : 0) + (named && isKey(named, at) ? WRITTEN : 0)
    })
  })

  const path: number[] = []
  let at = scores.reduce((top, score, index) => (score > scores[top]! ? index : top), 0)
  for (let index = judged.length - 1; index >= 0; index -= 1) {
    path[index] = at
    at = from[index]![at]!
  }
  return settled(sounding, path.map((key, index) => ({ ...keys[key]!, named: written[index] ?? null })), home)
}

interface Found { tonic: number; mode: Key['mode']; named: Key | null }

/** Passages without their own I go back home; the others get a spelling from their own roots. */
function settled(sounding: readonly Sounding[], path: readonly Found[], home: Key): Key[] {
  const result: Key[] = []
  for (let begin = 0; begin < path.length;) {
    let end = begin
    while (end < path.length && path[end]!.tonic === path[begin]!.tonic && path[end]!.mode === path[begin]!.mode) end += 1
    const { tonic, mode } = path[begin]!
    const chords = sounding.slice(begin, end)
    const hasTonic = chords.some((one) => pitchClass(one.chord.root) === tonic && one.kind === mode)
    const isHome = tonic === pitchClass(home.tonic) && mode === home.mode
    const named = path.slice(begin, end).find((one) => one.named && pitchClass(one.named.tonic) === tonic && one.named.mode === mode)?.named
    const key = isHome || !hasTonic ? home : named ?? spelledKey(tonic, mode, chords.map((one) => one.chord.root))
    for (let at = begin; at < end; at += 1) result.push(key)
    begin = end
  }
  return result
}

export const sameKey = (a: Key, b: Key): boolean => keyName(a) === keyName(b)
