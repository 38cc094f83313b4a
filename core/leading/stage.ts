import type { ChordSymbol } from '../chord/symbol'
import type { Instrument } from '../neck/instrument'
import { leastMotion } from '../pitch/motion'
import type { Voicing } from '../voicing/voicing'
import { gripMeasures, handPlace, layoutOf, outlineMeasures, tendenciesOf, tensionsOf, voiceMeasures, type HandPlace } from './measures'
import { TERM_NAMES, type Term, type Weights } from './weights'

/** The candidates of one chord of the tune. */
export interface Layer {
  chord: ChordSymbol
  voicings: readonly Voicing[]
  /** Where the candidates are not those of the chord in general (a fixed grip): what they are instead. */
  only?: string
  /** An extra cost for each voicing, beside the weights; used to look for lines unlike those already found. */
  extra?: readonly number[]
  /** The top note a contour wants here, as a MIDI number; none where it is not said. */
  contour?: number
  /** Where the voicings are not all of one chord: the chord of each. */
  chords?: readonly ChordSymbol[]
  /** How many times dearer the hand's travel into this chord is than where there is time: 1 where it is not said. */
  haste?: number
}

/** A layer as the search works with it. */
export interface Stage {
  chord: ChordSymbol
  /** Tells chord and candidates apart from those of every other stage of one problem. */
  name: string
  /** Cost of each voicing by itself. */
  own: number[]
  hands: HandPlace[]
  haste: number
  /** Different sets of sounding notes; many grips share one. */
  sounds: (readonly number[])[]
  soundOf: number[]
  /** Layout of each sound. */
  layouts: (string | null)[]
}

const weigh = (measures: Partial<Record<Term, number>>, weights: Weights): number => {
  let sum = 0
  for (const term of TERM_NAMES) {
    const measure = measures[term]
    if (measure !== undefined) sum += measure * weights[term]
  }
  return sum
}

export function openStage(layer: Layer, weights: Weights, instrument: Instrument): Stage {
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
    chord: layer.chord, name: `${layer.chord.canonical} ${layer.only ?? ''}`, sounds, soundOf, layouts,
    own: layer.voicings.map((voicing, node) => weigh(gripMeasures(voicing, layer.chords?.[node] ?? layer.chord), weights) + (layer.extra?.[node] ?? 0) + (layer.contour === undefined ? 0 : weights.contour * Math.abs(voicing.midis.at(-1)! - layer.contour))),
    hands: layer.voicings.map((voicing) => handPlace(voicing, instrument)), haste: layer.haste ?? 1,
  }
}

/** Prices of steps between two stages' sounds, each worked out once and only when it is asked for. */
export class StepPrices {
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

  constructor(readonly weights: Weights) {}

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

/** Whether a step's inner voices have to be looked at. */
export const hasInner = ({ parallels, tendency, tame, family }: Weights): boolean => parallels > 0 || tendency > 0 || tame > 0 || family > 0
