import { lastOf } from '../lists'
import { formMs, wayMs } from './handTime'
import type { ChordSymbol } from '../chord/symbol'
import type { Instrument } from '../neck/instrument'
import { leastMotion } from '../pitch/motion'
import type { Voicing } from '../voicing/voicing'
import {
  gripMeasures,
  handPlace,
  isWrittenStep,
  layoutOf,
  outlineMeasures,
  STEP,
  tendenciesOf,
  tensionsOf,
  upperOf,
  voiceMeasures,
  type HandPlace,
} from './measures'
import { kindOfGrip } from './texture'
import { TERM_NAMES, type Term, type Weights } from './weights'

/** The candidates of one chord of the tune. */
export interface Layer {
  chord: ChordSymbol
  voicings: readonly Voicing[]
  /**
   * Where the candidates are not those of the chord in general (a fixed grip): what they are
   * instead.
   */
  only?: string
  /**
   * An extra cost for each voicing, beside the weights; used to look for lines unlike those already
   * found.
   */
  extra?: readonly number[]
  /** The top note a contour wants here, as a MIDI number; none where it is not said. */
  contour?: number
  /** Where the voicings are not all of one chord: the chord of each. */
  chords?: readonly ChordSymbol[]
  /**
   * How many times dearer the hand's travel into this chord is than where there is time: 1 where it
   * is not said.
   */
  haste?: number
  /** The time the hand has to get here, in ms; none where it has all it wants. */
  time?: number
  /** Where the highest note has to go from the grip before; anywhere where it is not said. */
  topGoes?: TopGoes
}

/** Which way the highest note of a line goes from one grip to the next. */
export type TopGoes = 'up' | 'down' | 'same'

/** A layer as the search works with it. */
export interface SearchStage {
  chord: ChordSymbol
  /** Tells chord and candidates apart from those of every other stage of one problem. */
  name: string
  /** Cost of each voicing by itself. */
  own: number[]
  hands: HandPlace[]
  haste: number
  topGoes: TopGoes | null
  /** The time the hand has to get here, in ms: Infinity where it has all it wants. */
  time: number
  /** What each grip takes to be formed, in ms; empty where there is time. */
  forms: number[]
  /** Different sets of sounding notes; many grips share one. */
  sounds: (readonly number[])[]
  soundOf: number[]
  /** The voices above the bass of each sound. */
  uppers: (readonly number[])[]
  /** Layout and kind of each sound. */
  layouts: (string | null)[]
  kinds: string[]
  /**
   * Of each sound: lowest, lowest above the bass, highest note, and how many there are; side by
   * side, for bounds.
   */
  outlines: { low: Int16Array; second: Int16Array; high: Int16Array; notes: Int16Array }
}

const weigh = (measures: Partial<Record<Term, number>>, weights: Weights): number => {
  let sum = 0
  for (const term of TERM_NAMES) {
    const measure = measures[term]
    if (measure !== undefined) sum += measure * weights[term]
  }
  return sum
}

export function openStage(layer: Layer, weights: Weights, instrument: Instrument): SearchStage {
  const known = new Map<string, number>()
  const sounds: (readonly number[])[] = []
  const layouts: (string | null)[] = []
  const kinds: string[] = []
  const soundOf = layer.voicings.map((voicing) => {
    const key = voicing.midis.join()
    let sound = known.get(key)
    if (sound === undefined) {
      sound = sounds.push(voicing.midis) - 1
      layouts.push(layoutOf(voicing))
      kinds.push(kindOfGrip(voicing))
      known.set(key, sound)
    }
    return sound
  })
  return {
    chord: layer.chord,
    name: `${layer.chord.canonical} ${layer.only ?? ''}${layer.topGoes ? ` top ${layer.topGoes}` : ''}`,
    topGoes: layer.topGoes ?? null,
    sounds,
    soundOf,
    layouts,
    kinds,
    uppers: sounds.map(upperOf),
    outlines: {
      low: Int16Array.from(sounds, (midis) => midis[0]!),
      second: Int16Array.from(sounds, (midis) => upperOf(midis)[0]!),
      high: Int16Array.from(sounds, (midis) => lastOf(midis)),
      notes: Int16Array.from(sounds, (midis) => midis.length),
    },
    own: layer.voicings.map(
      (voicing, node) =>
        weigh(gripMeasures(voicing, layer.chords?.[node] ?? layer.chord, instrument), weights) +
        (layer.extra?.[node] ?? 0) +
        (layer.contour === undefined ? 0 : weights.contour * Math.abs(lastOf(voicing.midis) - layer.contour)),
    ),
    hands: layer.voicings.map((voicing) => handPlace(voicing, instrument)),
    haste: layer.haste ?? 1,
    time: layer.time ?? Infinity,
    forms: layer.time === undefined ? [] : layer.voicings.map(formMs),
  }
}

/**
 * Prices of steps between two stages' sounds, each worked out once and only when it is asked for.
 */
export class StepPrices {
  private readonly motions: Float64Array
  private readonly voices: Float64Array
  private readonly wants: ReturnType<typeof tendenciesOf>
  private readonly width: number
  private readonly tensions: number
  /** What a bass costs that leaps where a step is written. */
  private readonly walk: number

  /** Numbers kept. */
  get size(): number {
    return 2 * this.motions.length
  }

  constructor(
    private readonly before: SearchStage,
    private readonly stage: SearchStage,
    private readonly weights: Weights,
  ) {
    this.width = stage.sounds.length
    this.motions = new Float64Array(before.sounds.length * this.width).fill(NaN)
    this.voices = new Float64Array(before.sounds.length * this.width).fill(NaN)
    this.wants = tendenciesOf(before.chord, stage.chord)
    this.tensions = tensionsOf(stage.chord)
    this.walk = isWrittenStep(before.chord, stage.chord) ? weights.walk : 0
  }

  /**
   * No more than the outline costs: every pairing joins the lowest with the lowest and the highest
   * with the highest note, above the bass too, and what the outer voices, their number and the kind
   * of grip cost is known.
   */
  bound(a: number, b: number): number {
    const [from, to, w] = [this.before.outlines, this.stage.outlines, this.weights]
    const bass = to.low[b]! - from.low[a]!
    const top = to.high[b]! - from.high[a]!
    if (!this.goesItsWay(top)) return Infinity
    const [down, up] = [bass < 0 ? -bass : bass, top < 0 ? -top : top]
    let sum = 0
    if (w.motion > 0) sum += w.motion * (from.notes[a]! === 1 && to.notes[b]! === 1 ? up : down + up)
    if (w.upper > 0) {
      const inner = to.second[b]! - from.second[a]!
      sum += w.upper * (from.notes[a]! <= 2 && to.notes[b]! <= 2 ? up : (inner < 0 ? -inner : inner) + up)
    }
    if (down > STEP) sum += w.bass * (down - STEP) + this.walk
    if (up > STEP) sum += w.top * (up - STEP)
    if (bass * top > 0) sum += w.outer
    const voices = from.notes[a]! - to.notes[b]!
    if (voices !== 0) sum += w.voices * (voices < 0 ? -voices : voices)
    return this.before.kinds[a] === this.stage.kinds[b] ? sum : sum + w.texture
  }

  /** Whether the highest note goes where it has to. */
  private goesItsWay(semitones: number): boolean {
    const { topGoes } = this.stage
    if (topGoes === null) return true
    if (topGoes === 'same') return semitones === 0
    return topGoes === 'up' ? semitones > 0 : semitones < 0
  }

  /**
   * Motion, outer voices and number of voices: most of the price; without end where the highest
   * note goes another way than it has to.
   */
  outline(a: number, b: number): number {
    const at = a * this.width + b
    const known = this.motions[at]!
    if (!Number.isNaN(known)) return known
    const [from, to] = [this.before.sounds[a]!, this.stage.sounds[b]!]
    if (!this.goesItsWay(lastOf(to) - lastOf(from))) return (this.motions[at] = Infinity)
    // Said term by term: this is the hottest line of the search, and `weigh` would look at every
    // term there is.
    const { bass, top, outer, voices } = outlineMeasures(from, to)
    const w = this.weights
    const kind = this.before.kinds[a] === this.stage.kinds[b] ? 0 : w.texture
    const upper = w.upper > 0 ? w.upper * leastMotion(this.before.uppers[a]!, this.stage.uppers[b]!) : 0
    const motion = w.motion > 0 ? w.motion * leastMotion(from, to) : 0
    const walk = bass > 0 ? this.walk : 0
    return (this.motions[at] =
      motion + upper + kind + walk + w.bass * bass + w.top * top + w.outer * outer + w.voices * voices)
  }

  /** Parallels, tendencies and layout. */
  inner(a: number, b: number): number {
    const at = a * this.width + b
    const known = this.voices[at]!
    if (!Number.isNaN(known)) return known
    const [from, to] = [this.before.layouts[a], this.stage.layouts[b]]
    const family = from && to && from !== to ? this.weights.family : 0
    const { parallels, tendency, tame, held, leaps } = voiceMeasures(
      this.before.sounds[a]!,
      this.stage.sounds[b]!,
      this.wants,
      this.tensions,
    )
    const w = this.weights
    return (this.voices[at] =
      family +
      w.parallels * parallels +
      w.tendency * tendency +
      w.tame * tame +
      w.held * held +
      w.leaps * leaps)
  }
}

/**
 * Most numbers a price book keeps: 24 million, about 190 MB. The pair used longest ago goes first.
 */
const MOST_PRICES = 24e6

/** Prices kept while the same pair of chords comes again, in a repeat or in a second search. */
export class PriceBook {
  private readonly books = new Map<string, StepPrices>()
  private size = 0

  constructor(readonly weights: Weights) {}

  pricesOf(before: SearchStage, stage: SearchStage): StepPrices {
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

/**
 * By how much a hand is late at a grip, in tenths of a second, when it travels so far and sets so
 * many fingers down.
 */
export const lateAt = ({ time, forms }: SearchStage, node: number, mm: number, fingers: number): number =>
  Math.max(0, forms[node]! + wayMs(mm, fingers) - time) / 100

/** Whether a step's inner voices have to be looked at. */
export const hasInner = ({ parallels, tendency, tame, family, held, leaps }: Weights): boolean =>
  parallels > 0 || tendency > 0 || tame > 0 || family > 0 || held > 0 || leaps > 0
