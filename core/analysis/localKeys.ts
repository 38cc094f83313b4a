import { itemAt } from '../lists'
import type { Key } from '../pitch/key'
import { modulo, pitchClass } from '../pitch/note'
import { MODES, spelledKey, weightOf } from './findKey'
import { keyFit } from './keyFit'
import type { Sounding } from './chordPlaces'

/**
 * Points lost by changing the key, and gained by each chord read at home. A visit has to be worth
 * two changes, there and back: about four chords of a key of their own. Common practice, no source.
 */
const CHANGE = 3
/** Between major and minor on one tonic: home stays home. */
const PARALLEL_CHANGE = 1.5
const AT_HOME = 0.25
/** A key that is written in the chart is taken at its word there. */
const WRITTEN = 1.5
const KEYS = 24

/**
 * The key each chord is read in: the best path through all 24 keys over the whole tune, where every
 * chord is scored in every key and a change of key costs. A passage whose own I never sounds stays
 * at home: a ii-V on the way is read there as what it points at.
 * @param written the key the chart names at each chord, or null where it names none
 * @returns one for each chord
 */
export function localKeys(sounding: readonly Sounding[], home: Key, written: readonly (Key | null)[]): Key[] {
  // In an order counted from home, so that what is equal is settled alike in every key.
  const from0 = pitchClass(home.tonic)
  const keys = MODES.flatMap((mode) =>
    Array.from({ length: 12 }, (_, above) => ({ tonic: (from0 + above) % 12, mode })),
  )
  const indexOf = (key: Key) => modulo(pitchClass(key.tonic) - from0, 12) + (key.mode === 'major' ? 0 : 12)
  const judged = sounding.map(({ chord, kind, sounds, slot }) => ({
    root: pitchClass(chord.root),
    kind,
    sounds,
    weight: weightOf(slot.beats),
  }))
  const homeIndex = indexOf(home)

  let scores = keys.map((_, at) => (at === homeIndex ? 0 : -CHANGE))
  /** For each chord and key the key before it on the best way there. */
  const from: number[][] = []
  judged.forEach((one, index) => {
    let best = 0
    for (let at = 1; at < KEYS; at += 1) if (itemAt(scores, at) > itemAt(scores, best)) best = at
    const named = written[index] ? indexOf(written[index]) : -1
    const arrivals = new Array<number>(KEYS)
    const next = new Array<number>(KEYS)
    for (let at = 0; at < KEYS; at += 1) {
      const parallel = (at + 12) % KEYS
      let before = at
      let score = itemAt(scores, at)
      if (itemAt(scores, best) - CHANGE > score) {
        before = best
        score = itemAt(scores, best) - CHANGE
      }
      if (itemAt(scores, parallel) - PARALLEL_CHANGE > score) {
        before = parallel
        score = itemAt(scores, parallel) - PARALLEL_CHANGE
      }
      arrivals[at] = before
      next[at] =
        score +
        keyFit(one, judged[index + 1], itemAt(keys, at).tonic, itemAt(keys, at).mode) * one.weight +
        (at === homeIndex ? AT_HOME : 0) +
        (at === named ? WRITTEN : 0)
    }
    from.push(arrivals)
    scores = next
  })

  const path: number[] = []
  // A tune that begins and ends on its home ends at home: IV iv I is an ending, never a half
  // cadence of IV.
  const endsAtHome = [judged[0], judged.at(-1)].every(
    (one) => one?.root === pitchClass(home.tonic) && one.kind === home.mode,
  )
  let at = endsAtHome
    ? homeIndex
    : scores.reduce((top, score, index) => (score > itemAt(scores, top) ? index : top), 0)
  for (let index = judged.length - 1; index >= 0; index -= 1) {
    path[index] = at
    at = itemAt(itemAt(from, index), at)
  }
  return settled(
    sounding,
    path.map((key, index) => ({ ...itemAt(keys, key), named: written[index] ?? null })),
    home,
  )
}

/** Chords of a visit to IV and back. */
const MOST_OF_A_VISIT = 4
/** Different chords in a row. */
const runs = (chords: readonly Sounding[]): number =>
  chords.filter(({ chord }, at) => chord.canonical !== chords[at - 1]?.chord.canonical).length

interface FoundKey {
  tonic: number
  mode: Key['mode']
  named: Key | null
}

/** Passages without their own I go back home; the others get a spelling from their own roots. */
function settled(sounding: readonly Sounding[], path: readonly FoundKey[], home: Key): Key[] {
  const result: Key[] = []
  for (let begin = 0; begin < path.length;) {
    let end = begin
    while (
      end < path.length &&
      itemAt(path, end).tonic === itemAt(path, begin).tonic &&
      itemAt(path, end).mode === itemAt(path, begin).mode
    )
      end += 1
    const { tonic, mode } = itemAt(path, begin)
    const chords = sounding.slice(begin, end)
    const hasTonic = chords.some((one) => pitchClass(one.chord.root) === tonic && one.kind === mode)
    const isHome = tonic === pitchClass(home.tonic) && mode === home.mode
    // A ii-V-I on IV is a visit.
    const isVisit =
      home.mode === 'major' &&
      tonic === (pitchClass(home.tonic) + 5) % 12 &&
      runs(chords) <= MOST_OF_A_VISIT &&
      !path.slice(begin, end).some(({ named }) => named)
    const named = path
      .slice(begin, end)
      .find((one) => one.named && pitchClass(one.named.tonic) === tonic && one.named.mode === mode)?.named
    const key =
      isHome || !hasTonic || isVisit
        ? home
        : (named ??
          spelledKey(
            tonic,
            mode,
            chords.map((one) => one.chord.root),
          ))
    for (let at = begin; at < end; at += 1) result.push(key)
    begin = end
  }
  return result
}

export const sameKey = (a: Key, b: Key): boolean =>
  a.mode === b.mode && a.tonic.letter === b.tonic.letter && a.tonic.alter === b.tonic.alter
