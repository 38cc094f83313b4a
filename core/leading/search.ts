import type { ChordSymbol } from '../chord/symbol'
import type { Instrument } from '../neck/instrument'
import type { Voicing } from '../voicing/voicing'
import { fingersAnew, gripMeasures, handPlace, layoutOf, outlineMeasures, tendenciesOf, tensionsOf, voiceMeasures, type HandPlace } from './measures'
import { leastMotion } from '../pitch/motion'
import { TERM_NAMES, type Term, type Weights } from './weights'

/** The candidates of one chord of the tune. */
export interface Layer {
  chord: ChordSymbol
  voicings: readonly Voicing[]
  /** Where the candidates are not those of the chord in general (a fixed grip): what they are instead. */
  only?: string
  /** An extra cost for each voicing, beside the weights; used to look for lines unlike those already found. */
  extra?: readonly number[]
}

/** A way through the layers: the index of a voicing in each. */
export interface Path {
  cost: number
  indexes: number[]
}

/**
 * The exact `count` cheapest ways through the layers, best first, by dynamic programming over all candidates.
 *
 * A state keeps its `count` cheapest arrivals. Predecessors are tried from the cheapest up and left as soon as even a
 * free step could not improve the state; the price of a step is bounded from below first by its outer voices, which
 * every pairing must join, then by its motion, before its inner voices are looked at. No cut can lose a best path, so
 * the answer is that of a full search.
 * @param onLayer called after each layer with layers done and layers in all; returning false stops the search (null)
 * @param book prices from an earlier search with the same weights
 */
export function bestPaths(
  layers: readonly Layer[], weights: Weights, instrument: Instrument, count: number,
  onLayer: (done: number, of: number) => boolean = () => true,
  book = new PriceBook(weights),
): Path[] | null {
  if (layers.some((layer) => layer.voicings.length === 0)) return []
  const stages: Stage[] = []
  for (const layer of layers) {
    const stage = openStage(layer, weights, instrument)
    const before = stages.at(-1)
    if (before) arriveFrom(before, stage, weights, count, book)
    else stage.arrivals = stage.own.map((cost, node) => [{ cost, node, before: null }])
    stages.push(stage)
    if (!onLayer(stages.length, layers.length)) return null
  }
  const last = stages.at(-1)
  if (!last) return []
  return last.arrivals.flat().sort(byCost).slice(0, count).map((arrival) => ({ cost: arrival.cost, indexes: trace(arrival) }))
}

interface Arrival {
  cost: number
  node: number
  before: Arrival | null
}

interface Stage {
  chord: ChordSymbol
  /** Tells chord and candidates apart from those of every other stage of one problem. */
  name: string
  /** Cost of each voicing by itself. */
  own: number[]
  hands: HandPlace[]
  /** Different sets of sounding notes; many grips share one. */
  sounds: (readonly number[])[]
  soundOf: number[]
  /** Layout of each sound. */
  layouts: (string | null)[]
  arrivals: Arrival[][]
}

/** Ties are broken by position so that every answer is deterministic. */
const byCost = (a: Arrival, b: Arrival): number => a.cost - b.cost || a.node - b.node

function trace(arrival: Arrival): number[] {
  const indexes: number[] = []
  for (let at: Arrival | null = arrival; at; at = at.before) indexes.unshift(at.node)
  return indexes
}

const weigh = (measures: Partial<Record<Term, number>>, weights: Weights): number => {
  let sum = 0
  for (const term of TERM_NAMES) {
    const measure = measures[term]
    if (measure !== undefined) sum += measure * weights[term]
  }
  return sum
}

function openStage(layer: Layer, weights: Weights, instrument: Instrument): Stage {
  const known = new Map<string, number>()
  const sounds: (readonly number[])[] = []
  const layouts: (string | null)[] = []
  const soundOf = layer.voicings.map((voicing) => {
    const key = voicing.midis.join()
    let sound = known.get(key)
    if (sound === undefined) {
      sound = sounds.push(voicing.midis) - 1
      layouts.push(layoutOf(voicing))
      known.set(key, sound)
    }
    return sound
  })
  return {
    chord: layer.chord, name: `${layer.chord.canonical} ${layer.only ?? ''}`, sounds, soundOf, layouts, arrivals: [],
    own: layer.voicings.map((voicing, node) => weigh(gripMeasures(voicing, layer.chord), weights) + (layer.extra?.[node] ?? 0)),
    hands: layer.voicings.map((voicing) => handPlace(voicing, instrument)),
  }
}

/** Prices of steps between two stages' sounds, each worked out once and only when it is asked for. */
class StepPrices {
  private readonly motions: Float64Array
  private readonly voices: Float64Array
  private readonly wants: ReturnType<typeof tendenciesOf>
  private readonly width: number
  private readonly tensions: number

  /** Numbers kept. */
  get size(): number {
    return 2 * this.motions.length
  }

  constructor(private readonly before: Stage, private readonly stage: Stage, private readonly weights: Weights) {
    this.width = stage.sounds.length
    this.motions = new Float64Array(before.sounds.length * this.width).fill(NaN)
    this.voices = new Float64Array(before.sounds.length * this.width).fill(NaN)
    this.wants = tendenciesOf(before.chord, stage.chord)
    this.tensions = tensionsOf(stage.chord)
  }

  /** Motion, outer voices and number of voices: most of the price. */
  outline(a: number, b: number): number {
    const at = a * this.width + b
    const known = this.motions[at]!
    if (!Number.isNaN(known)) return known
    const [from, to] = [this.before.sounds[a]!, this.stage.sounds[b]!]
    // Said term by term: this is the hottest line of the search, and `weigh` would look at every term there is.
    const { bass, top, outer, voices } = outlineMeasures(from, to)
    const w = this.weights
    return (this.motions[at] = w.motion * leastMotion(from, to) + w.bass * bass + w.top * top + w.outer * outer + w.voices * voices)
  }

  /** Parallels, tendencies and layout. */
  inner(a: number, b: number): number {
    const at = a * this.width + b
    const known = this.voices[at]!
    if (!Number.isNaN(known)) return known
    const [from, to] = [this.before.layouts[a], this.stage.layouts[b]]
    const family = from && to && from !== to ? this.weights.family : 0
    return (this.voices[at] = family + weigh(voiceMeasures(this.before.sounds[a]!, this.stage.sounds[b]!, this.wants, this.tensions), this.weights))
  }
}

/** Most numbers a price book keeps: 24 million, about 190 MB. The pair used longest ago goes first. */
const MOST_PRICES = 24e6

/** Prices kept while the same pair of chords comes again, in a repeat or in a second search. */
export class PriceBook {
  private readonly books = new Map<string, StepPrices>()
  private size = 0

  constructor(private readonly weights: Weights) {}

  pricesOf(before: Stage, stage: Stage): StepPrices {
    const key = `${before.name} > ${stage.name}`
    const prices = this.books.get(key) ?? new StepPrices(before, stage, this.weights)
    if (!this.books.delete(key)) this.size += prices.size
    this.books.set(key, prices)
    for (const [oldest, old] of this.books) {
      if (this.size <= MOST_PRICES || oldest === key) break
      this.books.delete(oldest)
      this.size -= old.size
    }
    return prices
  }
}

/** What the inner loop compares of each predecessor, side by side in memory. */
function columnsOf(before: Stage, entries: readonly Arrival[]) {
  const column = (value: (entry: Arrival) => number) => Float64Array.from(entries, value)
  const soundAt = (entry: Arrival) => before.sounds[before.soundOf[entry.node]!]!
  return {
    cost: column((entry) => entry.cost),
    sound: Int32Array.from(entries, (entry) => before.soundOf[entry.node]!),
    low: column((entry) => soundAt(entry)[0]!),
    high: column((entry) => soundAt(entry).at(-1)!),
    /** Place of the hand in mm, NaN when nothing is held. */
    hand: column((entry) => before.hands[entry.node]!.mm ?? NaN),
  }
}

const hasInner = ({ parallels, tendency, tame, family }: Weights): boolean => parallels > 0 || tendency > 0 || tame > 0 || family > 0

function arriveFrom(before: Stage, stage: Stage, weights: Weights, count: number, book: PriceBook): void {
  const entries = before.arrivals.flat().sort(byCost)
  const from = columnsOf(before, entries)
  const prices = book.pricesOf(before, stage)
  const innerMatters = hasInner(weights)

  stage.arrivals = stage.own.map((own, node) => {
    const best: Arrival[] = []
    let worst = Infinity
    const sound = stage.soundOf[node]!
    const notes = stage.sounds[sound]!
    const [low, high] = [notes[0]!, notes.at(-1)!]
    const hand = stage.hands[node]!
    const place = hand.mm ?? NaN
    for (let at = 0; at < entries.length; at += 1) {
      let cost = from.cost[at]! + own
      if (cost > worst) break
      // Every pairing joins the lowest with the lowest and the highest with the highest note.
      const outer = Math.max(Math.abs(from.low[at]! - low), Math.abs(from.high[at]! - high))
      const travel = Math.abs(from.hand[at]! - place)
      if (travel > 0) cost += weights.hand * travel
      if (cost + weights.motion * outer > worst) continue
      const entry = entries[at]!
      cost += prices.outline(from.sound[at]!, sound)
      if (cost > worst) continue
      cost += weights.fingers * fingersAnew(before.hands[entry.node]!, hand)
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

/**
 * The exact `count` cheapest ways that lead back from the last layer to the first, the step back counted. For each first grip the least
 * cost of going on from it is found backwards; first grips are tried from the least up, as long as one could still improve the answer.
 */
export function bestLoops(
  layers: readonly Layer[], weights: Weights, instrument: Instrument, count: number,
  onLayer: (done: number, of: number) => boolean = () => true,
): Path[] | null {
  if (layers.length === 0 || layers.some((layer) => layer.voicings.length === 0)) return []
  const book = new PriceBook(weights)
  const onward = costsOnward(layers, weights, instrument, book)
  const firsts = onward.map((cost, node) => ({ cost, node })).sort((a, b) => a.cost - b.cost)
  const best: Path[] = []
  for (const [tried, { cost, node }] of firsts.entries()) {
    if (best.length === count && cost >= best[count - 1]!.cost) break
    if (!onLayer(tried, firsts.length)) return null
    const { chord, voicings, extra, only = '' } = layers[0]!
    const here: Layer = { chord, voicings: [voicings[node]!], only: `${only} ${node}`, ...(extra ? { extra: [extra[node]!] } : {}) }
    // The first grip again at the end, where only the way to it counts.
    const closed = bestPaths([here, ...layers.slice(1), { ...here, extra: [-ownCost(here, weights, instrument)] }], weights, instrument, count, undefined, book)
    for (const path of closed ?? []) {
      best.push({ cost: path.cost, indexes: [node, ...path.indexes.slice(1, -1)] })
      best.sort((a, b) => a.cost - b.cost)
      if (best.length > count) best.pop()
    }
  }
  return best
}

/** What a layer of one grip costs by itself, the extra not counted. */
const ownCost = (layer: Layer, weights: Weights, instrument: Instrument): number => openStage({ chord: layer.chord, voicings: layer.voicings }, weights, instrument).own[0]!

/** For each grip of the first layer the least cost of a way from it to the last layer. */
function costsOnward(layers: readonly Layer[], weights: Weights, instrument: Instrument, book: PriceBook): number[] {
  const stages = layers.map((layer) => openStage(layer, weights, instrument))
  let onward = stages.at(-1)!.own
  for (let at = stages.length - 2; at >= 0; at -= 1) {
    const [stage, next] = [stages[at]!, stages[at + 1]!]
    const prices = book.pricesOf(stage, next)
    const order = onward.map((cost, node) => ({ cost, node })).sort((a, b) => a.cost - b.cost)
    const inner = hasInner(weights)
    onward = stage.own.map((own, node) => {
      let least = Infinity
      const [sound, hand] = [stage.soundOf[node]!, stage.hands[node]!]
      for (const { cost, node: to } of order) {
        if (cost >= least) break
        const there = next.hands[to]!
        let whole = cost + prices.outline(sound, next.soundOf[to]!) + weights.hand * (hand.mm === null || there.mm === null ? 0 : Math.abs(hand.mm - there.mm))
        if (whole >= least) continue
        whole += weights.fingers * fingersAnew(hand, there)
        if (whole < least && inner) whole += prices.inner(sound, next.soundOf[to]!)
        if (whole < least) least = whole
      }
      return own + least
    })
  }
  return onward
}
