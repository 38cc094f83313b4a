import { NEAR } from '../chart/beats'
import type { Slot } from '../chart/chart'
import type { Put } from './change'
import { standsStill } from './guards'
import { between, type Arc } from './lattice'
import type { Spot } from './spot'
import type { Taste } from './taste'

interface PathState {
  cost: number
  arc: Arc
  from: number
  weight: number
}

/** All that the next arc asks of the one before, as one number: what has to come, the bass it leaves, whether it swapped. */
export const signatureOf = ({ landsOn, lastBass, swaps, goesOn }: Arc): number =>
  goesOn ? (((landsOn ?? -1) + 1) * 13 + lastBass + 1) * 2 + (swaps ? 1 : 0) : 0
const SIGNATURES = 13 * 13 * 2

interface ChangePath {
  arcs: Arc[]
  weight: number
}

/**
 * The cheapest path whose weight comes near the goal. Weight is paid for at a price found by halving: at no price the plain
 * chart wins, at the highest the farthest path; between them the path grows with the price, however long the tune is.
 */
export function bestPath(
  arcs: readonly (readonly Arc[])[],
  slots: number,
  goal: number,
  taste: Taste,
  extra: (arc: Arc) => number,
): Arc[] {
  const prices = arcs.map((list) => list.map((arc) => arc.price + extra(arc)))
  const signatures = arcs.map((list) => list.map(signatureOf))
  let [low, high] = [0, HIGHEST_REWARD]
  let best: ChangePath | null = null
  for (let step = 0; step < HALVINGS; step += 1) {
    const reward = (low + high) / 2
    const path = pathAt(arcs, slots, taste, prices, signatures, reward)
    if (!best || Math.abs(path.weight - goal) < Math.abs(best.weight - goal)) best = path
    if (path.weight < goal) low = reward
    else high = reward
  }
  return best!.arcs
}

/** Points a unit of weight (one beat changed all the way) can be worth at most: enough to buy the dearest change. */
export const HIGHEST_REWARD = 64
/** 64 / 2^14 is far below any price. */
export const HALVINGS = 14

/** The cheapest path when weight is worth so much: for each slot and signature the best way there. */
export function pathAt(
  arcs: readonly (readonly Arc[])[],
  slots: number,
  taste: Taste,
  prices: readonly (readonly number[])[],
  signatures: readonly (readonly number[])[],
  reward: number,
): ChangePath {
  const states: PathState[] = []
  /** At each slot, by signature, the state that ends there; and which there are. */
  const table = Array.from({ length: slots + 1 }, () => new Int32Array(SIGNATURES).fill(-1))
  const ends: number[][] = Array.from({ length: slots + 1 }, () => [])
  const reach = (at: number, order: number, before: number, weight: number, from: number) => {
    const arc = arcs[at]![order]!
    const end = at + arc.span
    if (end > slots) return
    const cost = before + prices[at]![order]! - reward * arc.weight
    const key = signatures[at]![order]!
    const known = table[end]![key]!
    if (known < 0) {
      table[end]![key] = states.length
      ends[end]!.push(states.length)
      states.push({ cost, arc, from, weight: weight + arc.weight })
    } else if (cost < states[known]!.cost) states[known] = { cost, arc, from, weight: weight + arc.weight }
  }
  arcs[0]?.forEach((_, order) => reach(0, order, 0, 0, -1))
  for (let at = 1; at < slots; at += 1)
    for (const id of ends[at]!) {
      const state = states[id]!
      for (let order = 0; order < arcs[at]!.length; order += 1) {
        const price = between(state.arc, arcs[at]![order]!, taste)
        if (price < Infinity) reach(at, order, state.cost + price, state.weight, id)
      }
    }
  let last = -1
  for (const id of ends[slots]!) if (last < 0 || states[id]!.cost < states[last]!.cost) last = id
  const path: Arc[] = []
  for (let id = last; id >= 0; id = states[id]!.from) path.push(states[id]!.arc)
  return { arcs: path.reverse(), weight: last < 0 ? 0 : states[last]!.weight }
}

/** Changes of a path that promise what is then not played: where the form goes somewhere else than on over the page, what they lead to has to stand there. */
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
export function standing(path: readonly Arc[], spots: readonly (Spot | null)[]): Arc[] {
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
    return here && there && standsStill(arc.puts.at(-1)!, next.puts[0]!, here, there)
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
