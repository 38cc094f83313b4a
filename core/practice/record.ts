import { itemKey, type Grade, type Pass } from './grade'
import { recallOf, type DayOf, type Recall } from './recall'

/** What the log says of one thing that is practised. */
export interface ItemRecord {
  passes: number
  /** Share of the last passes that were not clean, the newest counting most: 0 to 1. */
  weak: number
  /** The fastest clean pass, in beats a minute; null where there is none. */
  cleanTempo: number | null
  last: Pass
  recall: Recall | null
}

/** Passes that tell how something goes now. */
const RECENT = 5
const WEIGHT: Readonly<Record<Grade, number>> = { clean: 0, nearly: 0.5, failed: 1 }

/** The log by what was practised, by `kind item`. @param log in any order; what lies after `today` is left out */
export function recordsOf(log: readonly Pass[], today: number, dayOf: DayOf): Map<string, ItemRecord> {
  const byItem = new Map<string, Pass[]>()
  for (const pass of log) {
    if (dayOf(pass.at) > today) continue
    const key = itemKey(pass)
    const known = byItem.get(key)
    if (known) known.push(pass)
    else byItem.set(key, [pass])
  }
  return new Map(
    [...byItem].map(([key, passes]) => {
      passes.sort((a, b) => a.at - b.at)
      return [key, recordOf(passes, today, dayOf)]
    }),
  )
}

function recordOf(passes: readonly Pass[], today: number, dayOf: DayOf): ItemRecord {
  const recent = passes.slice(-RECENT).reverse()
  let [sum, all] = [0, 0]
  recent.forEach(({ grade }, back) => {
    const weight = 1 / (1 + back)
    sum += weight * WEIGHT[grade]
    all += weight
  })
  const clean = passes.flatMap(({ grade, tempo }) =>
    grade === 'clean' && tempo !== undefined ? [tempo] : [],
  )
  return {
    passes: passes.length,
    weak: sum / all,
    cleanTempo: clean.length > 0 ? clean.reduce((most, one) => Math.max(most, one), 0) : null,
    last: passes.at(-1)!,
    recall: recallOf(passes, today, dayOf),
  }
}
