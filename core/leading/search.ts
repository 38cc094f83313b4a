import type { ChordSymbol } from '../chord/symbol'
import type { Instrument } from '../neck/instrument'
import type { Voicing } from '../voicing/voicing'
import { fingersAnew, gripMeasures, handPlace, outlineMeasures, tendenciesOf, voiceMeasures, type HandPlace } from './measures'
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
  const soundOf = layer.voicings.map((voicing) => {
    const key = voicing.midis.join()
    let sound = known.get(key)
    if (sound === undefined) {
      sound = sounds.push(voicing.midis) - 1
      known.set(key, sound)
    }
    return sound
  })
  return {
    chord: layer.chord, name: `${layer.chord.canonical} ${layer.only ?? ''}`, sounds, soundOf, arrivals: [],
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

  /** Numbers kept. */
  get size(): number {
    return 2 * this.motions.length
  }

  constructor(private readonly before: Stage, private readonly stage: Stage, private readonly weights: Weights) {
    this.width = stage.sounds.length
    this.motions = new Float64Array(before.sounds.length * this.width).fill(NaN)
    this.voices = new Float64Array(before.sounds.length * this.width).fill(NaN)
    this.wants = tendenciesOf(before.chord, stage.chord)
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

  /** Parallels and tendencies. */
  inner(a: number, b: number): number {
    const at = a * this.width + b
    const known = this.voices[at]!
    if (!Number.isNaN(known)) return known
    return (this.voices[at] = weigh(voiceMeasures(this.before.sounds[a]!, this.stage.sounds[b]!, this.wants), this.weights))
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

function arriveFrom(before: Stage, stage: Stage, weights: Weights, count: number, book: PriceBook): void {
  const entries = before.arrivals.flat().sort(byCost)
  const from = columnsOf(before, entries)
  const prices = book.pricesOf(before, stage)
  const innerMatters = weights.parallels > 0 || weights.tendency > 0

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
