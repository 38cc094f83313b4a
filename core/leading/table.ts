import { fingersAnew } from './measures'
import { hasInner, type PriceBook, type Stage } from './stage'
import type { Weights } from './weights'

/** For each grip of a stage the least cost of a way that ends (or begins) with it, and the neighbouring grip by which that way goes. */
export interface Column {
  /** Infinity where no way leads. */
  cost: Float64Array
  /** Index in the stage before (or after); -1 at the end of the ways. */
  by: Int32Array
}

/** The column where the ways begin: each grip by itself, or only those of a set. */
export function openColumn({ own }: Stage, only?: ReadonlySet<number>): Column {
  return { cost: Float64Array.from(own, (cost, node) => (only && !only.has(node) ? Infinity : cost)), by: new Int32Array(own.length).fill(-1) }
}

/** The column of `stage` from that of the stage before it. `only` are the grips that are wanted, where not all are. */
export const columnInto = (before: Stage, known: Column, stage: Stage, weights: Weights, book: PriceBook, only?: ReadonlySet<number>): Column =>
  joined(before, known, stage, weights, book, true, only)

/** The column of `stage` from that of the stage after it: ways on from each grip. */
export const columnFrom = (stage: Stage, after: Stage, known: Column, weights: Weights, book: PriceBook): Column =>
  joined(after, known, stage, weights, book, false)

/**
 * Exact: grips of the known side are tried from the cheapest up, and left as soon as even a free step could not improve;
 * a step is bounded by its outer voices and the hand before its other terms are looked at.
 */
function joined(side: Stage, known: Column, stage: Stage, weights: Weights, book: PriceBook, forwards: boolean, only?: ReadonlySet<number>): Column {
  const prices = forwards ? book.pricesOf(side, stage) : book.pricesOf(stage, side)
  const order = reachable(known)
  const places = Float64Array.from(order, (node) => side.hands[node]!.mm ?? NaN)
  const lows = Float64Array.from(order, (node) => side.sounds[side.soundOf[node]!]![0]!)
  const highs = Float64Array.from(order, (node) => side.sounds[side.soundOf[node]!]!.at(-1)!)
  const inner = hasInner(weights)
  const handWeight = weights.hand * (forwards ? stage : side).haste
  const column: Column = { cost: new Float64Array(stage.own.length).fill(Infinity), by: new Int32Array(stage.own.length).fill(-1) }
  for (let node = 0; node < stage.own.length; node += 1) {
    if (only && !only.has(node)) continue
    const [own, sound, hand] = [stage.own[node]!, stage.soundOf[node]!, stage.hands[node]!]
    const notes = stage.sounds[sound]!
    const [low, high, place] = [notes[0]!, notes.at(-1)!, hand.mm ?? NaN]
    let [least, by] = [Infinity, -1]
    for (let at = 0; at < order.length; at += 1) {
      const other = order[at]!
      let cost = known.cost[other]! + own
      if (cost >= least) break
      const travel = Math.abs(places[at]! - place)
      if (travel > 0) cost += handWeight * travel
      if (cost + weights.motion * Math.max(Math.abs(lows[at]! - low), Math.abs(highs[at]! - high)) >= least) continue
      const there = side.soundOf[other]!
      cost += forwards ? prices.outline(there, sound) : prices.outline(sound, there)
      if (cost >= least) continue
      cost += weights.fingers * (forwards ? fingersAnew(side.hands[other]!, hand) : fingersAnew(hand, side.hands[other]!))
      if (cost < least && inner) cost += forwards ? prices.inner(there, sound) : prices.inner(sound, there)
      if (cost < least) { least = cost; by = other }
    }
    column.cost[node] = least
    column.by[node] = by
  }
  return column
}

/** Grips that can be reached, the cheapest first; equal ones in their order, so that every answer is deterministic. */
function reachable({ cost }: Column): number[] {
  const nodes: number[] = []
  cost.forEach((one, node) => { if (one < Infinity) nodes.push(node) })
  return nodes.sort((a, b) => cost[a]! - cost[b]! || a - b)
}

/** The cheapest grip of a column; -1 where none is reached. */
export function cheapest({ cost }: Column): number {
  let best = -1
  cost.forEach((one, node) => { if (one < Infinity && (best < 0 || one < cost[best]!)) best = node })
  return best
}
