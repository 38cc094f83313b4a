import type { Db } from './connect'
import { demoBook } from './demo'
import { seedDemoGrips } from './demoGrips'
import { demoPasses } from './demoPractice'
import { seedDemoSet } from './demoSets'
import { changePlayer } from './player'
import { keepPasses } from './practice'
import { createTune } from './tunes'
import { hasAnyTune } from './songbook'

const DAY_MS = 86_400_000

/** Its grips are kept: it is what the demo's player practises. */
const isArranged = ({ grips }: { grips: object }): boolean => Object.keys(grips).length > 0

/** Puts the demo book into a database that has never held a tune (deleted ones count). */
export function seedDemoBook(db: Db, now = Date.now()): boolean {
  if (hasAnyTune(db)) return false
  seedDemoGrips(db, now)
  const tunes = demoBook().map(({ document, touchedDaysAgo }) => ({
    id: createTune(db, document, now - touchedDaysAgo * DAY_MS),
    document,
  }))
  keepPasses(
    db,
    demoPasses(
      tunes.filter(({ document }) => isArranged(document)),
      now,
    ),
  )
  // Whoever opens a book for the first time is led.
  changePlayer(db, { firstSteps: 'offered' })
  seedDemoSet(db, new Map(tunes.map(({ id, document }) => [document.title, id])), now)
  return true
}
