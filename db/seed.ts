import type { Db } from './connect'
import { demoBook } from './demo'
import { seedDemoGrips } from './demoGrips'
import { createTune, hasAnyTune } from './tunes'

const DAY_MS = 86_400_000

/** Puts the demo book into a database that has never held a tune (deleted ones count). */
export function seedDemoBook(db: Db, now = Date.now()): boolean {
  if (hasAnyTune(db)) return false
  seedDemoGrips(db, now)
  for (const { document, touchedDaysAgo } of demoBook())
    createTune(db, document, now - touchedDaysAgo * DAY_MS)
  return true
}
