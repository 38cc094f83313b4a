import { firstOf, lastOf } from '../lists'
import { groupedBy } from '../grouped'
import { NEAR } from '../chart/beats'
import type { Slot } from '../chart/chart'
import type { Put } from './change'
import { standsStill } from './guards'
import { between, type Arc } from './lattice'
import type { Spot } from './spot'
import type { Taste } from './taste'

/**
 * Arcs of one slot that are alike to the search: they end at the same place, stand alike beside
 * their neighbours and ask the same of the next.
 */
interface ArcGroup {
  /** Places of the arcs in the list of the slot. */
  orders: readonly number[]
  end: number
  /** Its signature's place among those that end at the same slot. */
  arrival: number
  onward: Onward
}

/**
 * What each group of a slot costs beside what comes before it; and the least and the most of it.
 */
interface Onward {
  each: Float64Array
  least: number
  most: number
}

/** What paths are looked for in. */
export interface Ways {
  /** At each slot, what may be played from there on. */
  arcs: readonly (readonly Arc[])[]
  groups: readonly (readonly ArcGroup[])[]
  /** How many signatures end at each slot, and at the end. */
  arrivals: readonly number[]
}

export function waysOf(arcs: Ways['arcs'], taste: Taste): Ways {
  const alike = arcs.map((list) => [
    ...groupedBy(list.keys(), (order) => {
      const arc = list[order]!
      return [arc.span, arc.firstRoot, arc.firstBass, arc.swaps, arc.change !== null, signatureOf(arc)].join()
    }).values(),
  ])
  // At each slot, by what comes before it: what every group there costs.
  const prices = arcs.map(() => new Map<number, Onward>())
  const onwardFrom = (arc: Arc, end: number, signature: number): Onward => {
    const known = prices[end]?.get(signature)
    if (known) return known
    const each = Float64Array.from(alike[end] ?? [], ([order]) => between(arc, arcs[end]![order!]!, taste))
    const made = { each, least: Math.min(...each), most: Math.max(...each) }
    prices[end]?.set(signature, made)
    return made
  }
  const arrivals = Array.from({ length: arcs.length + 1 }, () => new Map<number, number>())
  const groups = alike.map((all, at) =>
    all.map((orders): ArcGroup => {
      const arc = arcs[at]![firstOf(orders)]!
      const end = at + arc.span
      const signature = signatureOf(arc)
      const there = arrivals[end]
      const arrival = there?.get(signature) ?? there?.size ?? 0
      there?.set(signature, arrival)
      return { orders, end, arrival, onward: onwardFrom(arc, end, signature) }
    }),
  )
  return { arcs, groups, arrivals: arrivals.map(({ size }) => size) }
}

/**
 * All that an arc asks of the next one, as one number: what has to come, the bass it leaves,
 * whether it swapped, whether it changed anything.
 */
function signatureOf({ landsOn, lastBass, swaps, goesOn, change }: Arc): number {
  if (!goesOn) return 0
  return ((((landsOn ?? -1) + 1) * 13 + lastBass + 1) * 2 + (swaps ? 1 : 0)) * 2 + (change ? 1 : 0)
}

interface ChangePath {
  arcs: Arc[]
  weight: number
}

/**
 * The cheapest path whose weight comes near the goal. Weight is paid for at a price found by
 * halving: at no price the plain chart wins, at the highest the farthest path; between them the
 * path grows with the price, however long the tune is.
 */
export function bestPath(ways: Ways, goal: number, extra: (arc: Arc) => number): Arc[] {
  const prices = ways.arcs.map((list) => list.map((arc) => arc.price + extra(arc)))
  let [low, high] = [0, HIGHEST_REWARD]
  let best: ChangePath | null = null
  for (let step = 0; step < HALVINGS; step += 1) {
    const reward = (low + high) / 2
    const path = pathAt(ways, prices, reward)
    if (!best || Math.abs(path.weight - goal) < Math.abs(best.weight - goal)) best = path
    if (path.weight < goal) low = reward
    else high = reward
  }
  return best!.arcs
}

/**
 * Points a unit of weight (one beat changed all the way) can be worth at most: enough to buy the
 * dearest change.
 */
export const HIGHEST_REWARD = 64
/** 64 / 2^14 is far below any price. */
export const HALVINGS = 14

/** The best way to a slot that asks one thing of what comes next. */
interface PathState {
  cost: number
  arc: Arc
  group: ArcGroup
  from: PathState | null
  weight: number
}

/**
 * The cheapest path when weight is worth so much: for each slot and signature the best way there.
 */
export function pathAt(
  { arcs, groups, arrivals }: Ways,
  prices: readonly (readonly number[])[],
  reward: number,
): ChangePath {
  const slots = arcs.length
  /**
   * At each slot the best way of each signature, and the signatures in the order they were come to.
   */
  const best = arrivals.map((count) => new Array<PathState | undefined>(count))
  const order: number[][] = arrivals.map(() => [])
  for (let at = 0; at < slots; at += 1) {
    const here = groups[at]!
    // The cheapest of a group stands for all of it.
    const offers = here.map(({ orders }) => cheapest(arcs[at]!, prices[at]!, orders, reward))
    const reach = (place: number, before: number, weight: number, from: PathState | null) => {
      const group = here[place]!
      const { arc, cost: own } = offers[place]!
      if (group.end > slots) return
      const cost = before + own
      const known = best[group.end]![group.arrival]
      if (known && cost >= known.cost) return
      if (!known) order[group.end]!.push(group.arrival)
      best[group.end]![group.arrival] = { cost, arc, group, from, weight: weight + arc.weight }
    }
    if (at === 0) for (let place = 0; place < here.length; place += 1) reach(place, 0, 0, null)
    const states = order[at]!.map((arrival) => best[at]![arrival]!)
    // What goes on at its cheapest dearer than another at its dearest is the best way to nothing.
    const bound = states.reduce(
      (least, { cost, group }) => Math.min(least, cost + group.onward.most),
      Infinity,
    )
    for (const state of states) {
      const { cost, weight, group } = state
      if (cost + group.onward.least > bound) continue
      const { each } = group.onward
      for (let place = 0; place < each.length; place += 1)
        if (each[place]! < Infinity) reach(place, cost + each[place]!, weight, state)
    }
  }
  const ends = order[slots]!.map((arrival) => best[slots]![arrival]!)
  const last = ends.reduce<PathState | null>(
    (least, one) => (least && least.cost <= one.cost ? least : one),
    null,
  )
  const path: Arc[] = []
  for (let state = last; state; state = state.from) path.push(state.arc)
  return { arcs: path.reverse(), weight: last?.weight ?? 0 }
}

function cheapest(
  arcs: readonly Arc[],
  prices: readonly number[],
  orders: readonly number[],
  reward: number,
): { arc: Arc; cost: number } {
  let [best, least] = [-1, Infinity]
  for (const order of orders) {
    const cost = prices[order]! - reward * arcs[order]!.weight
    if (best < 0 || cost < least) [best, least] = [order, cost]
  }
  return { arc: arcs[best]!, cost: least }
}

/**
 * Changes of a path that promise what is then not played: where the form goes somewhere else than
 * on over the page, what they lead to has to stand there.
 */
export function unlanded(path: readonly Arc[], spots: readonly (Spot | null)[]): Arc[] {
  const beginning = new Map(path.map((arc) => [arc.index, arc]))
  return path.filter(({ landsOn, index, span }) => {
    if (landsOn === null) return false
    const end = index + span
    return spots[end - 1]?.nexts.some(
      (next) => next.index !== end && beginning.get(next.index)?.firstRoot !== landsOn,
    )
  })
}

/** Changed chords of a path that stand where two moved. */
export function standingAfterMoves(path: readonly Arc[], spots: readonly (Spot | null)[]): Arc[] {
  return path.flatMap((arc, at) => {
    const next = path[at + 1]
    if (
      !next ||
      !arc.goesOn ||
      (!arc.change && !next.change) ||
      arc.puts.length === 0 ||
      next.puts.length === 0
    )
      return []
    const [here, there] = [spots[arc.index + arc.span - 1], spots[next.index]]
    return here && there && standsStill(lastOf(arc.puts), firstOf(next.puts), here, there)
      ? [next.change ? next : arc]
      : []
  })
}

/** What is played along a path, chord by chord, at its place. */
export function soundingsOf(
  path: readonly Arc[],
  slots: readonly Slot[],
): { put: Put; slot: Slot; changed: boolean }[] {
  return path.flatMap(({ puts, index, span, change }) => {
    let offset = 0
    return puts.map((put) => {
      let [left, at] = [offset, index]
      while (at < index + span - 1 && left >= slots[at]!.beats - NEAR) {
        left -= slots[at]!.beats
        at += 1
      }
      offset += put.beats
      return { put, slot: slots[at]!, changed: change !== null }
    })
  })
}

/** How much a path changes: reach times beats, summed. */
export const weightOfPath = (path: readonly Arc[]): number => path.reduce((sum, arc) => sum + arc.weight, 0)
