import { entryOf, itemAt } from '../core/lists'
import type { Db } from './connect'
import { addToSet, changeInSet, changeSet, createSet, hasAnySet, readSet, type HowInSet } from './sets'

const NAME = 'Evening crossing'
const NOTE = 'On deck from eight. Two halves; the second begins at the lighthouse.'
/** The evening in its order, by title, with what is played otherwise than it is written. */
const EVENING: readonly (readonly [title: string, how: Partial<HowInSet>])[] = [
  ['Lantern on the Rail', { note: 'Guitar alone the first time' }],
  ['Halyard Waltz', { tempo: 116 }],
  ['Low Water Blues', { key: 'Dm', note: 'For the horn' }],
  ['Warm Current', {}],
  ['Fog at the Second Bell', { tempo: 84, note: 'Begin freely' }],
]

/** A set of the demo's trio. @param tunes of the demo book, by title */
export function seedDemoSet(db: Db, tunes: ReadonlyMap<string, string>, now: number): void {
  if (hasAnySet(db)) return
  const set = createSet(db, NAME, now)
  changeSet(db, set, { note: NOTE }, now)
  const evening = EVENING.filter(([title]) => tunes.has(title))
  for (const [title] of evening) addToSet(db, set, entryOf(tunes, title), now)
  const rows = readSet(db, set)!.tunes
  evening.forEach(([, how], place) => {
    if (Object.keys(how).length > 0) changeInSet(db, set, itemAt(rows, place).id, how, now)
  })
}
