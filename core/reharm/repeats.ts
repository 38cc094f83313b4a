import { itemAt, lastOf } from '../lists'
import { slotsOf, type Chart } from '../chart/chart'
import { between, type Arc } from './lattice'
import type { Taste } from './taste'

/** A section that says the same as an earlier one: slots of both, from and to (included). */
interface Repeat {
  first: readonly [number, number]
  again: readonly [number, number]
  /** Nothing behind it repeats the same once more. */
  isLast: boolean
}

/** Sections whose plain chords begin as those of an earlier section do, as far as they agree. */
export function repeatsOf(chart: Chart): Repeat[] {
  const slots = slotsOf(chart)
  const sections: [number, number][] = []
  let at = 0
  chart.bars.forEach((bar, index) => {
    if (index === 0 || bar.opensSection) sections.push([at, at - 1])
    at += bar.slots.length
    lastOf(sections)[1] = at - 1
  })
  const name = (index: number) => `${itemAt(slots, index).text}*${itemAt(slots, index).beats}`
  const alike = ([a, aEnd]: readonly [number, number], [b, bEnd]: readonly [number, number]): number => {
    let length = 0
    while (a + length <= aEnd && b + length <= bEnd && name(a + length) === name(b + length)) length += 1
    return length
  }
  const found = sections.flatMap((again, order): { first: number; length: number; again: number }[] => {
    const first = sections.slice(0, order).findIndex((other) => alike(other, again) >= LEAST)
    return first < 0 ? [] : [{ first, length: alike(itemAt(sections, first), again), again: order }]
  })
  return found.map(({ first, length, again }, order) => {
    const [from, to] = [itemAt(sections, first)[0], itemAt(sections, again)[0]]
    return {
      first: [from, from + length - 1],
      again: [to, to + length - 1],
      isLast: !found.slice(order + 1).some((other) => other.first === first),
    }
  })
}
/** Fewer chords alike are no repeat. */
const LEAST = 4

/**
 * A path in which repeats get the same change as the first time; the last of them keeps its own
 * where that goes further. What cannot stand there, or does not join, stays as it was found.
 * @param isOut what must not stand
 */
export function withRepeatsAlike(
  path: readonly Arc[],
  arcs: readonly (readonly Arc[])[],
  repeats: readonly Repeat[],
  taste: Taste,
  isOut: (arc: Arc) => boolean = () => false,
): readonly Arc[] {
  return repeats.reduce<readonly Arc[]>((now, { first, again, isLast }) => {
    const offset = again[0] - first[0]
    const inside = ([from, to]: readonly [number, number]) =>
      now.filter(({ index, span }) => index >= from && index + span - 1 <= to)
    const [model, own] = [inside(first), inside(again)]
    const weight = (list: readonly Arc[]) => list.reduce((sum, one) => sum + one.weight, 0)
    if (isLast && weight(own) > weight(model)) return now
    const copies: Arc[] = []
    for (const one of model) {
      const copy = arcs[one.index + offset]?.find((other) => sameSound(one, other) && !isOut(other))
      if (!copy) break
      copies.push(copy)
    }
    // As far as the copies go and join what was found behind them.
    while (copies.length > 0) {
      const end = lastOf(copies).index + lastOf(copies).span
      const rest = now.filter(({ index }) => index >= end)
      const before = now.filter(({ index, span }) => index + span <= again[0])
      const joined = [...before, ...copies, ...rest]
      if (
        isWhole(joined, arcs.length) &&
        joined.every((one, at) => at === 0 || between(itemAt(joined, at - 1), one, taste) < Infinity)
      )
        return joined
      copies.pop()
    }
    return now
  }, path)
}

/**
 * Paths whose last repeat goes further than the time before, each by one other change near its end;
 * none where it goes its own way already.
 */
export function lastFurther(
  path: readonly Arc[],
  arcs: readonly (readonly Arc[])[],
  repeats: readonly Repeat[],
  taste: Taste,
): Arc[][] {
  return repeats
    .filter(({ isLast }) => isLast)
    .flatMap(({ first, again }) => {
      const offset = again[0] - first[0]
      const last = path.filter(({ index }) => index >= again[0] && index <= again[1])
      const isAlike = last.every((one) =>
        path.some((other) => other.index + offset === one.index && sameSound(other, one)),
      )
      if (!isAlike) return []
      // The cadence and what leads to it, not the chord it arrives at.
      return last.slice(-CADENCE - 1, -1).flatMap((one) => {
        const at = path.indexOf(one)
        const fits = (other: Arc) =>
          other.span === one.span &&
          other.weight > one.weight &&
          (at === 0 || between(itemAt(path, at - 1), other, taste) < Infinity) &&
          (at === path.length - 1 || between(other, itemAt(path, at + 1), taste) < Infinity)
        return itemAt(arcs, one.index)
          .filter(fits)
          .sort((a, b) => a.price - b.price)
          .slice(0, TRIED)
          .map((other) => path.map((here) => (here === one ? other : here)))
      })
    })
}
/** Chords of a cadence that may go further, and changes tried for each. */
const CADENCE = 4
const TRIED = 3

const sameSound = (a: Arc, b: Arc): boolean =>
  a.span === b.span &&
  (a.change === null) === (b.change === null) &&
  a.puts.length === b.puts.length &&
  a.puts.every(
    (put, at) =>
      put.chord.canonical === itemAt(b.puts, at).chord.canonical && put.beats === itemAt(b.puts, at).beats,
  )

/** Every slot is covered once. */
const isWhole = (path: readonly Arc[], slots: number): boolean => {
  let at = 0
  for (const { index, span } of path) {
    if (index !== at) return false
    at += span
  }
  return at === slots
}
