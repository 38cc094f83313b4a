import type { Chart, Idiom } from '../../chart/chart'
import { parseChart } from '../../chart/parse'
import type { MelodyNote } from '../melodyFit'
import { howFar } from '../howFar'
import { spotsOf } from '../spot'
import { aligned } from './aligned'
import { TERMS, type Found } from './terms'
import { JUDGE_PRICES } from './prices'

/** One term of the cost, with what was found. */
export interface JudgedPart {
  name: string
  /** How often it was found, by how much. */
  amount: number
  price: number
}

export interface Judgement {
  /** What all of it costs; lower is better, and only versions of one tune that go as far compare. */
  cost: number
  /** How far it goes, 0 to 1, measured as `howFar` does. */
  distance: number
  parts: JudgedPart[]
  faults: { bar: number; beat: number; what: string; why: string }[]
  /** What it does well, at its places. */
  ideas: string[]
}

const PHRASE_BARS = 8
/** What costs less is taste, and no fault. */
const TOLD = 0.3

/** How much of each term is in a version, in the order of the terms. */
export const amountsOf = (
  plain: Chart,
  version: Chart,
  melody: readonly MelodyNote[] = [],
  idiom: Idiom | null = null,
): { name: string; amount: number; found: Found[] }[] => {
  const laid = aligned(plain, version, melody, idiom)
  return TERMS.map((term) => {
    const found = laid.sounded.length > 0 && laid.plain.length > 0 ? term.find(laid) : []
    const phrases = term.isPerPhrase ? Math.max(1, laid.bars / PHRASE_BARS) : 1
    return { name: term.name, amount: found.reduce((sum, one) => sum + one.amount, 0) / phrases, found }
  })
}

/**
 * Judges a version of a tune against its plain chart, term by term, at the prices that were fitted on what players prefer (`npm run fit`).
 */
export function judge(
  text: string,
  version: string,
  { melody = [], idiom = null }: { melody?: readonly MelodyNote[]; idiom?: Idiom | null } = {},
): Judgement {
  const [plain, changed] = [parseChart(text), parseChart(version)]
  const judged = amountsOf(plain, changed, melody, idiom).map((one, at) => ({
    ...one,
    why: TERMS[at]!.why,
    price: JUDGE_PRICES[one.name] ?? 0,
  }))
  return {
    cost: judged.reduce((sum, { amount, price }) => sum + amount * price, 0),
    distance: distanceOf(plain, changed),
    parts: judged
      .filter(({ amount }) => amount !== 0)
      .map(({ name, amount, price }) => ({ name, amount, price })),
    faults: judged
      .filter(({ price }) => price > TOLD)
      .flatMap(({ found, name, why }) =>
        found
          .filter(({ amount }) => amount >= 0.25)
          .map(({ bar, beat, what }) => ({ bar, beat, what: `${name}: ${what}`, why })),
      )
      .sort((a, b) => a.bar - b.bar || a.beat - b.beat),
    ideas: judged
      .filter(({ price }) => price < 0)
      .flatMap(({ found, name }) => found.map(({ what, bar }) => `${name}: ${what} (bar ${bar})`)),
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
  return howFar(plain, spots, gone)
}
