import { itemAt } from '../../lists'
import type { Chart, Idiom } from '../../chart/chart'
import { parseChart } from '../../chart/parseChart'
import type { MelodyNote } from '../melodyFit'
import { tuneFar } from '../howFar'
import { spotsOf, type Spot } from '../spot'
import type { Analysis } from '../../analysis/chordReading'
import { aligned, type Aligned } from './aligned'
import type { Found } from './heard'
import { JUDGED_TERMS } from './terms'
import { JUDGE_PRICES } from './prices'

/** One term of the cost, with what was found. */
export interface JudgedPart {
  name: string
  /** How often it was found, by how much. */
  amount: number
  price: number
}

export interface Judgement {
  /**
   * What all of it costs; lower is better, and only versions of one tune that go as far compare.
   */
  cost: number
  /** How far it goes, 0 to 1, on the scale of the control (`tuneFar`). */
  distance: number
  parts: JudgedPart[]
  faults: { bar: number; beat: number; what: string; why: string }[]
  /** What it does well, at its places. */
  ideas: string[]
  /** The same, by what it is. */
  does: { name: string; why: string; places: { bar: number; beat: number; what: string }[] }[]
}

const PHRASE_BARS = 8
/**
 * So far from the distance that was asked for nothing is said; each tenth more costs a tenth of the
 * price.
 */
const NEAR_ASKED = 0.15
const OFF_PRICE = 4
/** What costs less is taste, and no fault. */
const TOLD = 0.3
const LEAST_TOLD = 0.25

/** How much of each term is in a version, in the order of the terms. */
export const amountsOf = (
  plain: Chart,
  version: Chart,
  melody: readonly MelodyNote[] = [],
  idiom: Idiom | null = null,
): Amount[] => amountsIn(aligned(plain, version, melody, idiom))

interface Amount {
  name: string
  amount: number
  found: Found[]
}
const amountsIn = (laid: Aligned): Amount[] =>
  JUDGED_TERMS.map((term) => {
    const found = laid.sounded.length > 0 && laid.plain.length > 0 ? term.find(laid) : []
    const phrases = term.isPerPhrase ? Math.max(1, laid.bars / PHRASE_BARS) : 1
    return { name: term.name, amount: found.reduce((sum, one) => sum + one.amount, 0) / phrases, found }
  })

/** What a version costs as a whole, and what is at fault in it. */
export type JudgedWhole = Pick<Judgement, 'cost' | 'faults'>

/** Judges a version for a search that has the plain chart read already. */
export function judgedWhole(
  { chart, analysis, spots }: { chart: Chart; analysis: Analysis; spots: readonly (Spot | null)[] },
  version: string,
  melody: readonly MelodyNote[],
): JudgedWhole {
  const laid = aligned(chart, parseChart(version), melody, null, { analysis, spots })
  return wholeOf(pricedIn(laid))
}

type Priced = Amount & { why: string; price: number }
const pricedIn = (laid: Aligned): Priced[] =>
  amountsIn(laid).map((one, at) => ({
    ...one,
    why: itemAt(JUDGED_TERMS, at).why,
    price: JUDGE_PRICES[one.name] ?? 0,
  }))

const wholeOf = (judged: readonly Priced[]): JudgedWhole => ({
  cost: judged.reduce((sum, { amount, price }) => sum + amount * price, 0),
  faults: judged
    .filter(({ price }) => price > TOLD)
    .flatMap(({ found, name, why }) =>
      found
        .filter(({ amount }) => amount >= LEAST_TOLD)
        .map(({ bar, beat, what }) => ({ bar, beat, what: name, why: `${what}. ${why}` })),
    )
    .sort((a, b) => a.bar - b.bar || a.beat - b.beat),
})

/**
 * Judges a version of a tune against its plain chart, term by term, at the prices that were fitted
 * on what players prefer (`npm run fit`).
 */
export function judge(
  text: string,
  version: string,
  {
    melody = [],
    idiom = null,
    asked = null,
  }: { melody?: readonly MelodyNote[]; idiom?: Idiom | null; asked?: number | null } = {},
): Judgement {
  const [plain, changed] = [parseChart(text), parseChart(version)]
  const judged = pricedIn(aligned(plain, changed, melody, idiom))
  const whole = wholeOf(judged)
  const distance = distanceOf(plain, changed)
  const off = asked === null ? 0 : Math.max(0, Math.abs(distance - asked) - NEAR_ASKED)
  const parts = [...judged, { name: 'distance', amount: off, price: OFF_PRICE }]
  return {
    cost: whole.cost + off * OFF_PRICE,
    distance,
    parts: parts
      .filter(({ amount }) => amount !== 0)
      .map(({ name, amount, price }) => ({ name, amount, price })),
    faults: whole.faults,
    ideas: judged
      .filter(({ price }) => price < 0)
      .flatMap(({ found, name }) => found.map(({ what, bar }) => `${name}: ${what} (bar ${bar})`)),
    does: judged
      .filter(({ price, found }) => price < 0 && found.length > 0)
      .map(({ name, why, found }) => ({
        name,
        why,
        places: found.map(({ bar, beat, what }) => ({ bar, beat, what })),
      })),
  }
}

/** What stands in the place of each chord, beat for beat. */
function distanceOf(plain: Chart, version: Chart): number {
  const laid = aligned(plain, version, [], null)
  const spots = spotsOf(plain, laid.analysis)
  const gone = laid.plain.flatMap((spot) => {
    const puts = laid.over(spot).map(({ chord, beats }) => ({ chord, beats }))
    return puts.length > 0 ? [{ index: spot.index, span: 1, puts }] : []
  })
  return tuneFar(plain, spots, gone)
}
