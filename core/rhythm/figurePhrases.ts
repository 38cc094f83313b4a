import { firstOf, itemAt } from '../lists'
import { NEAR } from '../chart/beats'
import type { RawHit } from './hit'
import type { PlayedBar } from './playedTime'
import { halfOf, isCompound, walkingStep } from './pulses'
import { scattered } from './scattered'

/** One thing changed in a bar of a phrase; null where the bar has nothing to change in that way. */
interface Variation {
  name: string
  vary: (hits: readonly RawHit[], bar: PlayedBar, chance: number) => RawHit[] | null
}

const within = (hits: readonly RawHit[], from: number, to: number) =>
  hits.filter(({ time }) => time >= from - NEAR && time < to - NEAR)

/** The times of a bar at which hits stand, without those at its beginning. */
const laterTimes = (hits: readonly RawHit[], { from }: PlayedBar) => [
  ...new Set(hits.filter(({ time }) => time > from + NEAR).map(({ time }) => time)),
]
const pick = <One>(from: readonly One[], chance: number): One | undefined =>
  from[Math.floor(chance * from.length)]
const at = (time: number) => (hit: RawHit) => Math.abs(hit.time - time) < NEAR

// Common practice, no source. Nothing is random for its own sake: the first hit of a bar always
// stays.
const VARIATIONS: readonly Variation[] = [
  {
    name: 'one hit left out',
    vary: (hits, bar, chance) => {
      const time = pick(laterTimes(hits, bar), chance)
      return time === undefined ? null : hits.filter((hit) => !at(time)(hit))
    },
  },
  {
    name: 'one hit half a beat later',
    vary: (hits, bar, chance) => {
      const free = laterTimes(hits, bar).filter((time) => {
        const later = time + 0.5 * bar.scale
        return later < bar.to - NEAR && !hits.some((hit) => hit.time > time + NEAR && hit.time < later + NEAR)
      })
      const time = pick(free, chance)
      if (time === undefined) return null
      return hits.map((hit) => (at(time)(hit) ? { ...hit, time: time + 0.5 * bar.scale } : hit))
    },
  },
  {
    name: 'a ghost before a hit',
    vary: (hits, bar, chance) => {
      const free = laterTimes(hits, bar).filter(
        (time) => !hits.some((hit) => hit.time > time - 0.75 * bar.scale && hit.time < time - NEAR),
      )
      const time = pick(free, chance)
      const hit = hits.find(at(time ?? NaN))
      if (!hit) return null
      const ghost: RawHit = {
        ...hit,
        time: hit.time - 0.5 * bar.scale,
        length: 'short',
        accent: 'ghost',
        push: false,
      }
      return [...hits, ghost].sort((a, b) => a.time - b.time)
    },
  },
  {
    name: 'a short hit held, or a held one short',
    vary: (hits, _bar, chance) => {
      const time = pick([...new Set(hits.map((hit) => hit.time))], chance)
      if (time === undefined) return null
      return hits.map((hit) =>
        at(time)(hit) ? { ...hit, length: hit.length === 'short' ? 'held' : 'short' } : hit,
      )
    },
  },
]

/**
 * Fills of the second half of a bar: where their hits stand, in steps of the metre from the middle
 * of the bar. The last one leads into the next phrase.
 */
const FILLS: readonly (readonly number[])[] = [
  [0, 0.5, 1, 1.5],
  [0, 0.5, 1.5],
  [0.5, 1, 1.5],
  [0, 1, 1.5],
  [0.5, 1.5],
]
/** The same in thirds, for metres of three and three. */
const FILLS_IN_THIRDS: readonly (readonly number[])[] = [
  [0, 1 / 3, 2 / 3, 1, 5 / 3],
  [0, 2 / 3, 1, 5 / 3],
  [1 / 3, 2 / 3, 4 / 3, 5 / 3],
  [0, 2 / 3, 5 / 3],
]

/**
 * A figure in phrases of so many bars: one thing is changed in one bar of each, and the second half
 * of its last bar is a fill that leads on.
 * @param ends times at which a phrase begins anew, whatever its length: sections
 * @param seed any whole number but 0; the same one always gives the same
 */
export function varied(
  hits: readonly RawHit[],
  bars: readonly PlayedBar[],
  ends: readonly number[],
  { seed, phrase }: { seed: number; phrase: number },
): RawHit[] {
  const starts = new Set(ends)
  let place = 0
  let next = 0
  return bars.flatMap((bar, turn) => {
    if (starts.has(bar.from)) place = 0
    const begin = next
    while (next < hits.length && itemAt(hits, next).time < bar.to - NEAR) next += 1
    const own = hits.slice(begin, next)
    if (bar.bar.number === 0 || own.length === 0) return own
    const here = place % phrase
    // Counted from the beginning of the phrase, so that a repeated phrase is the same one.
    const number = turn - here
    const chance = (which: number) => scattered(seed, number, which)
    place += 1
    if (here === phrase - 1) return filled(own, bar, chance(1))
    // The first bar states the figure; of the others one is changed.
    const changed = phrase === 2 ? 0 : 1 + Math.floor(chance(2) * (phrase - 2))
    if (here !== changed) return own
    const from = Math.floor(chance(3) * VARIATIONS.length)
    for (let turnOf = 0; turnOf < VARIATIONS.length; turnOf += 1) {
      const { name, vary } = itemAt(VARIATIONS, (from + turnOf) % VARIATIONS.length)
      const made = vary(own, bar, chance(4))
      if (made) return made.map((hit) => (own.includes(hit) ? hit : { ...hit, why: `varied: ${name}` }))
    }
    return own
  })
}

function filled(hits: readonly RawHit[], { bar, from, to, scale }: PlayedBar, chance: number): RawHit[] {
  const middle = from + (halfOf(bar.meter) - bar.from) * scale
  const step = walkingStep(bar.meter) * scale
  const like = hits.find(({ part }) => part === 'all' || part === 'upper') ?? firstOf(hits)
  const places = pick(isCompound(bar.meter) ? FILLS_IN_THIRDS : FILLS, chance)!
    .map((one) => middle + one * step)
    .filter((time) => time < to - NEAR)
  if (places.length === 0 || middle <= from + NEAR) return [...hits]
  return [
    ...within(hits, from, middle),
    ...places.map((time, turn): RawHit => {
      const last = turn === places.length - 1
      return {
        ...like,
        part: like.part === 'all' ? 'all' : 'upper',
        time,
        scale,
        length: last ? 'held' : 'short',
        accent: last ? 'accent' : 'plain',
        push: last,
        why: 'a fill at the end of the phrase',
      }
    }),
  ]
}
