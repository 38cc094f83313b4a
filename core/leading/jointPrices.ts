import { entryOf, lastOf } from '../lists'
import type { ChordSymbol } from '../chord/symbol'
import type { Limits } from '../voicing/gripLimits'
import type { Voicing } from '../voicing/voicing'
import { constrained } from './constraints'
import {
  fingersAnew,
  gripMeasures,
  handPlace,
  handTravelMm,
  isWrittenStep,
  motionMeasures,
  outlineMeasures,
  tendenciesOf,
  tensionsOf,
  voiceMeasures,
  type HandPlace,
} from './measures'
import { kindOfGrip } from './texture'
import { TERM_NAMES, type Term, type Weights } from './weights'

/** Grips of each chord that are tried. */
const GRIPS_TRIED = 14

export interface Grip {
  voicing: Voicing
  hand: HandPlace
  own: number
}
/** One chord of an arc with the grips tried for it. */
export interface Placed {
  chord: ChordSymbol
  bar: number
  beat: number
  beats: number
  top: number | null
  grips: Grip[]
}

/** @param terms those that can cost something */
function weigh(
  measures: Partial<Record<Term, number>>,
  weights: Weights,
  terms: readonly Term[] = TERM_NAMES,
): number {
  let sum = 0
  for (const term of terms) sum += (measures[term] ?? 0) * weights[term]
  return sum
}

/**
 * For a chord and a top note the grips tried: the cheapest by themselves, not too many with the
 * same note on top.
 */
export function gripBook(
  limits: Limits,
  weights: Weights,
): (chord: ChordSymbol, top: number | null) => Grip[] {
  const known = new Map<string, Grip[]>()
  return (chord, top) => {
    const key = `${chord.canonical} ${top ?? ''}`
    const grips =
      known.get(key) ??
      few(
        constrained(chord, limits, top === null ? [] : [{ from: 0, to: 0, kind: 'top', midi: top }]).map(
          (voicing) => ({
            voicing,
            hand: handPlace(voicing, limits.instrument),
            own: weigh(gripMeasures(voicing, chord, limits.instrument), weights),
          }),
        ),
      )
    known.set(key, grips)
    return grips
  }
}

/** Grips with one note on top that are tried at most, so that the line can move. */
const ONE_TOP = 4

function few(grips: Grip[]): Grip[] {
  const tops = new Map<number, number>()
  const inOrder = [...grips].sort((a, b) => a.own - b.own)
  const spread = inOrder.filter(({ voicing }) => {
    const top = lastOf(voicing.midis)
    tops.set(top, (tops.get(top) ?? 0) + 1)
    return entryOf(tops, top) <= ONE_TOP
  })
  // Where the top is given there is only one: then the cheapest are taken.
  return (
    spread.length >= GRIPS_TRIED ? spread : [...spread, ...inOrder.filter((one) => !spread.includes(one))]
  ).slice(0, GRIPS_TRIED)
}

/**
 * Prices of steps between grips of chords, each worked out once. Grips are those of the grip book,
 * so that they can be told apart by themselves.
 */
export class JointPrices {
  private readonly known = new Map<string, WeakMap<Grip, WeakMap<Grip, number>>>()
  /** Measures that cost something, in the order in which they are summed. */
  private readonly counted: readonly Term[]
  constructor(private readonly weights: Weights) {
    this.counted = TERM_NAMES.filter((term) => weights[term] !== 0)
  }

  /** What it costs to go from one grip to each grip of another chord. */
  from(from: Placed, a: Grip, to: Placed): (b: Grip) => number {
    const pair = `${from.chord.canonical} ${to.chord.canonical}`
    const chords = this.known.get(pair) ?? new WeakMap<Grip, WeakMap<Grip, number>>()
    this.known.set(pair, chords)
    const row = chords.get(a) ?? new WeakMap<Grip, number>()
    chords.set(a, row)
    return (b) => {
      const known = row.get(b)
      if (known !== undefined) return known
      const price = this.priceOf(from, a, to, b)
      row.set(b, price)
      return price
    }
  }

  private priceOf(from: Placed, a: Grip, to: Placed, b: Grip): number {
    const [x, y] = [a.voicing.midis, b.voicing.midis]
    const measures: Partial<Record<Term, number>> = voiceMeasures(
      x,
      y,
      tendenciesOf(from.chord, to.chord),
      tensionsOf(to.chord),
    )
    Object.assign(measures, motionMeasures(x, y), outlineMeasures(x, y))
    if (measures.bass! > 0 && isWrittenStep(from.chord, to.chord)) measures.walk = 1
    measures.hand = handTravelMm(a.hand, b.hand)
    measures.fingers = fingersAnew(a.hand, b.hand)
    measures.texture = kindOfGrip(a.voicing) === kindOfGrip(b.voicing) ? 0 : 1
    return weigh(measures, this.weights, this.counted)
  }
}
