import { fingersAnew } from './measures'
import { hasInner, lateAt, type PriceBook, type SearchStage } from './searchStage'
import type { Weights } from './weights'

/**
 * For each grip of a stage the least cost of a way that ends (or begins) with it, and the
 * neighbouring grip by which that way goes.
 */
export interface Column {
  /** Infinity where no way leads. */
  cost: Float64Array
  /** Index in the stage before (or after); -1 at the end of the ways. */
  by: Int32Array
}

/** The column where the ways begin: each grip by itself, or only those of a set. */
export function openColumn({ own }: SearchStage, only?: ReadonlySet<number>): Column {
  return {
    cost: Float64Array.from(own, (cost, node) => (only && !only.has(node) ? Infinity : cost)),
    by: new Int32Array(own.length).fill(-1),
  }
}

/**
 * The column of `stage` from that of the stage before it. `only` are the grips that are wanted,
 * where not all are.
 */
export const columnInto = (
  before: SearchStage,
  known: Column,
  stage: SearchStage,
  weights: Weights,
  book: PriceBook,
  only?: ReadonlySet<number>,
): Column => joined(before, known, stage, weights, book, true, only)

/** The column of `stage` from that of the stage after it: ways on from each grip. */
export const columnFrom = (
  stage: SearchStage,
  after: SearchStage,
  known: Column,
  weights: Weights,
  book: PriceBook,
): Column => joined(after, known, stage, weights, book, false)

/**
 * Exact. Many grips sound the same and differ only in the hand: they are looked at together. Sounds
 * of the known side are tried from the cheapest up, and left as soon as even a free step could not
 * improve any grip of the sound they lead to; a step is bounded by its outer voices before its
 * motion, and that before its inner voices; only then the hand of each grip is asked.
 */
function joined(
  side: SearchStage,
  known: Column,
  stage: SearchStage,
  weights: Weights,
  book: PriceBook,
  forwards: boolean,
  only?: ReadonlySet<number>,
): Column {
  const prices = forwards ? book.pricesOf(side, stage) : book.pricesOf(stage, side)
  const inner = hasInner(weights)
  const into = forwards ? stage : side
  const hurried = into.time < Infinity && weights.late > 0
  const handWeight = weights.hand * (forwards ? stage : side).haste
  const column: Column = {
    cost: new Float64Array(stage.own.length).fill(Infinity),
    by: new Int32Array(stage.own.length).fill(-1),
  }
  const from = bySound(reachable(known), side, known.cost)
  const to = bySound(
    stage.own.map((_, node) => node).filter((node) => !only || only.has(node)),
    stage,
    stage.own,
  )
  const places = (of: SearchStage) => Float64Array.from(of.hands, ({ mm }) => mm ?? NaN)
  const [there, here] = [places(side), places(stage)]
  // What it costs to get to each grip, without the grip itself.
  const way = new Float64Array(stage.own.length).fill(Infinity)
  for (const { sound, nodes } of to) {
    let worst = Infinity
    for (const { sound: other, nodes: others, least } of from) {
      if (least >= worst) break
      if (least + (forwards ? prices.bound(other, sound) : prices.bound(sound, other)) >= worst) continue
      let price = forwards ? prices.outline(other, sound) : prices.outline(sound, other)
      if (least + price >= worst) continue
      if (inner) price += forwards ? prices.inner(other, sound) : prices.inner(sound, other)
      if (least + price >= worst) continue
      let changed = false
      for (const before of others) {
        const cost = known.cost[before]! + price
        if (cost >= worst) break
        for (const node of nodes) {
          let sum = cost
          if (sum >= way[node]!) continue
          const travel = Math.abs(there[before]! - here[node]!)
          if (travel > 0) sum += handWeight * travel
          if (sum >= way[node]!) continue
          const again = forwards
            ? fingersAnew(side.hands[before]!, stage.hands[node]!)
            : fingersAnew(stage.hands[node]!, side.hands[before]!)
          sum += weights.fingers * again
          if (hurried && sum < way[node]!)
            sum += weights.late * lateAt(into, forwards ? node : before, travel > 0 ? travel : 0, again)
          if (sum < way[node]!) {
            way[node] = sum
            column.by[node] = before
            changed = true
          }
        }
      }
      if (changed) {
        worst = 0
        for (const node of nodes) if (way[node]! > worst) worst = way[node]!
      }
    }
  }
  for (let node = 0; node < way.length; node += 1)
    if (column.by[node]! >= 0) column.cost[node] = way[node]! + stage.own[node]!
  return column
}

/**
 * Grips by what they sound: in each sound the cheapest first, and the sounds by their cheapest
 * grip.
 */
function bySound(
  nodes: readonly number[],
  stage: SearchStage,
  cost: ArrayLike<number>,
): { sound: number; nodes: number[]; least: number }[] {
  const sounds = new Map<number, { sound: number; nodes: number[]; least: number }>()
  for (const node of [...nodes].sort((a, b) => cost[a]! - cost[b]! || a - b)) {
    const sound = stage.soundOf[node]!
    const known = sounds.get(sound)
    if (known) known.nodes.push(node)
    else sounds.set(sound, { sound, nodes: [node], least: cost[node]! })
  }
  return [...sounds.values()]
}

/**
 * Grips that can be reached, the cheapest first; equal ones in their order, so that every answer is
 * deterministic.
 */
function reachable({ cost }: Column): number[] {
  const nodes: number[] = []
  cost.forEach((one, node) => {
    if (one < Infinity) nodes.push(node)
  })
  return nodes.sort((a, b) => cost[a]! - cost[b]! || a - b)
}

/** The cheapest grip of a column; -1 where none is reached. */
export function cheapest({ cost }: Column): number {
  let best = -1
  cost.forEach((one, node) => {
    if (one < Infinity && (best < 0 || one < cost[best]!)) best = node
  })
  return best
}
