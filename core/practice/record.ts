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
  /** The last pass that had a tempo. */
  lastTimed: Pass | null
  recall: Recall
}

/** Passes that tell how something goes now. */
const RECENT = 5
const WEIGHT: Readonly<Record<Grade, number>> = { clean: 0, nearly: 0.5, failed: 1 }

/** The log by what was practised, by `kind item`. @param log in any order */
export function recordsOf(log: readonly Pass[], dayOf: DayOf): Map<string, ItemRecord> {
  const byItem = new Map<string, Pass[]>()
  for (const pass of log) {
    const key = itemKey(pass)
    const known = byItem.get(key)
    if (known) known.push(pass)
    else byItem.set(key, [pass])
  }
  return new Map([...byItem].map(([key, passes]) => [key, recordOf(passes, dayOf)!]))
}

/** What the passes of one item say; null where there are none. @param all in any order */
export function recordOf(all: readonly Pass[], dayOf: DayOf): ItemRecord | null {
  const passes = [...all].sort((a, b) => a.at - b.at)
  const [last, recall] = [passes.at(-1), recallOf(passes, dayOf)]
  if (!last || !recall) return null
  const recent = passes.slice(-RECENT).reverse()
  let [sum, most] = [0, 0]
  recent.forEach(({ grade }, back) => {
    const weight = 1 / (1 + back)
    sum += weight * WEIGHT[grade]
    most += weight
  })
  const clean = passes.flatMap(({ grade, tempo }) =>
    grade === 'clean' && tempo !== undefined ? [tempo] : [],
  )
  return {
    passes: passes.length,
    weak: sum / most,
    cleanTempo: clean.length > 0 ? clean.reduce((most, one) => Math.max(most, one), 0) : null,
    last,
    lastTimed: passes.findLast(({ tempo }) => tempo !== undefined) ?? null,
    recall,
  }
}
