import { lastOf } from '../lists'
import type { Instrument } from '../neck/instrument'
import { fingersAnew } from './measures'
import { hasInner, lateAt, openStage, PriceBook, type Layer, type SearchStage } from './searchStage'
import { cheapest, columnInto, openColumn, type Column } from './table'
import type { Weights } from './weights'

/** A way through the layers: the index of a voicing in each. */
export interface Path {
  cost: number
  indexes: number[]
}

/**
 * The exact `count` cheapest ways through the layers, best first, by dynamic programming over all
 * candidates.
 *
 * A state keeps its `count` cheapest arrivals. Predecessors are tried from the cheapest up and left
 * as soon as even a free step could not improve the state; the price of a step is bounded from
 * below first by its outer voices, which every pairing must join, then by its motion, before its
 * inner voices are looked at. No cut can lose a best path, so the answer is that of a full search.
 * @param onLayer called after each layer with layers done and layers in all; returning false stops
 *   the search (null)
 * @param book prices from an earlier search with the same weights
 */
export function bestPaths(
  layers: readonly Layer[],
  weights: Weights,
  instrument: Instrument,
  count: number,
  onLayer: (done: number, of: number) => boolean = () => true,
  book = new PriceBook(weights),
): Path[] | null {
  if (layers.some((layer) => layer.voicings.length === 0)) return []
  if (count === 1) return bestPath(layers, weights, instrument, onLayer, book)
  let before: SearchStage | null = null
  let arrivals: Arrival[][] = []
  for (const [at, layer] of layers.entries()) {
    const stage = openStage(layer, weights, instrument)
    arrivals = before
      ? arrivalsFrom(before, arrivals, stage, weights, count, book)
      : stage.own.map((cost, node) => [{ cost, node, before: null }])
    before = stage
    if (!onLayer(at + 1, layers.length)) return null
  }
  return arrivals
    .flat()
    .sort(byCost)
    .slice(0, count)
    .map((arrival) => ({ cost: arrival.cost, indexes: trace(arrival) }))
}

/** The one cheapest way, by a table of columns: nothing but its cost is kept of each grip. */
function bestPath(
  layers: readonly Layer[],
  weights: Weights,
  instrument: Instrument,
  onLayer: (done: number, of: number) => boolean,
  book: PriceBook,
): Path[] | null {
  const columns: Column[] = []
  let before: SearchStage | null = null
  for (const [at, layer] of layers.entries()) {
    const stage = openStage(layer, weights, instrument)
    columns.push(before ? columnInto(before, lastOf(columns), stage, weights, book) : openColumn(stage))
    before = stage
    if (!onLayer(at + 1, layers.length)) return null
  }
  if (columns.length === 0) return [{ cost: 0, indexes: [] }]
  let node = cheapest(lastOf(columns))
  if (node < 0) return []
  const { cost } = lastOf(columns)
  const total = cost[node]!
  const indexes = [node]
  for (let at = columns.length - 1; at > 0; at -= 1) {
    node = columns[at]!.by[node]!
    indexes.unshift(node)
  }
  return [{ cost: total, indexes }]
}

interface Arrival {
  cost: number
  node: number
  before: Arrival | null
}

/** Ties are broken by position so that every answer is deterministic. */
const byCost = (a: Arrival, b: Arrival): number => a.cost - b.cost || a.node - b.node

function trace(arrival: Arrival): number[] {
  const indexes: number[] = []
  for (let at: Arrival | null = arrival; at; at = at.before) indexes.unshift(at.node)
  return indexes
}

/** What the inner loop compares of each predecessor, side by side in memory. */
function columnsOf(before: SearchStage, entries: readonly Arrival[]) {
  const column = (value: (entry: Arrival) => number) => Float64Array.from(entries, value)
  const soundAt = (entry: Arrival) => before.sounds[before.soundOf[entry.node]!]!
  return {
    cost: column((entry) => entry.cost),
    sound: Int32Array.from(entries, (entry) => before.soundOf[entry.node]!),
    low: column((entry) => soundAt(entry)[0]!),
    high: column((entry) => lastOf(soundAt(entry))),
    /** Place of the hand in mm, NaN when nothing is held. */
    hand: column((entry) => before.hands[entry.node]!.mm ?? NaN),
  }
}

function arrivalsFrom(
  before: SearchStage,
  arrivals: readonly Arrival[][],
  stage: SearchStage,
  weights: Weights,
  count: number,
  book: PriceBook,
): Arrival[][] {
  const entries = arrivals.flat().sort(byCost)
  const from = columnsOf(before, entries)
  const prices = book.pricesOf(before, stage)
  const innerMatters = hasInner(weights)
  const handWeight = weights.hand * stage.haste
  const hurried = stage.time < Infinity && weights.late > 0

  return stage.own.map((own, node) => {
    const best: Arrival[] = []
    let worst = Infinity
    const sound = stage.soundOf[node]!
    const notes = stage.sounds[sound]!
    const [low, high] = [notes[0]!, lastOf(notes)]
    const hand = stage.hands[node]!
    const place = hand.mm ?? NaN
    for (let at = 0; at < entries.length; at += 1) {
      let cost = from.cost[at]! + own
      if (cost > worst) break
      // Every pairing joins the lowest with the lowest and the highest with the highest note, which
      // is an upper one.
      const highs = Math.abs(from.high[at]! - high)
      const outer = weights.motion * Math.max(Math.abs(from.low[at]! - low), highs) + weights.upper * highs
      const travel = Math.abs(from.hand[at]! - place)
      if (travel > 0) cost += handWeight * travel
      if (cost + outer > worst) continue
      const entry = entries[at]!
      cost += prices.outline(from.sound[at]!, sound)
      if (cost > worst || cost === Infinity) continue
      const again = fingersAnew(before.hands[entry.node]!, hand)
      cost += weights.fingers * again
      if (hurried) cost += weights.late * lateAt(stage, node, travel > 0 ? travel : 0, again)
      if (cost >= worst) continue
      if (innerMatters) cost += prices.inner(from.sound[at]!, sound)
      if (cost >= worst) continue
      insert(best, { cost, node, before: entry }, count)
      if (best.length === count) worst = best[count - 1]!.cost
    }
    return best
  })
}

function insert(best: Arrival[], arrival: Arrival, count: number): void {
  let at = best.length
  while (at > 0 && best[at - 1]!.cost > arrival.cost) at -= 1
  best.splice(at, 0, arrival)
  if (best.length > count) best.pop()
}
