import { and, asc, count, eq, isNull } from 'drizzle-orm'
import { MOST_LAYOUTS, sheetLayout, type SheetLayout } from '../core/sheet/sheetLayout'
import type { Db } from './connect'
import { layouts } from './schema'

export interface KeptLayout {
  id: string
  name: string
  layout: SheetLayout
}

/**
 * Layouts a tune keeps, in the order of making; one this version cannot read is left out and stays
 * in the book.
 */
export const layoutsOf = (db: Db, tuneId: string): KeptLayout[] =>
  db
    .select({ id: layouts.id, name: layouts.name, layout: layouts.layout })
    .from(layouts)
    .where(and(eq(layouts.tuneId, tuneId), isNull(layouts.deletedAt)))
    .orderBy(asc(layouts.createdAt), asc(layouts.id))
    .all()
    .flatMap((one) => {
      const read = sheetLayout.safeParse(one.layout)
      return read.success ? [{ ...one, layout: read.data }] : []
    })

/** Names of the layouts that some tunes keep, once each, in the order of the alphabet. */
export const layoutNamesOf = (db: Db, tuneIds: readonly string[]): string[] =>
  [...new Set(tuneIds.flatMap((id) => layoutsOf(db, id).map(({ name }) => name)))].sort((a, b) =>
    a.localeCompare(b, 'en'),
  )

/**
 * Keeps a layout under a name; one of that name is changed. @returns its id, or null where the tune
 * can keep no more
 */
export function keepLayout(
  db: Db,
  tuneId: string,
  name: string,
  layout: SheetLayout,
  now = Date.now(),
): string | null {
  return db.transaction(
    (tx) => {
      const own = and(eq(layouts.tuneId, tuneId), isNull(layouts.deletedAt))
      const known = tx
        .select({ id: layouts.id })
        .from(layouts)
        .where(and(own, eq(layouts.name, name)))
        .get()
      if (known) {
        tx.update(layouts).set({ layout }).where(eq(layouts.id, known.id)).run()
        return known.id
      }
      const { kept } = tx.select({ kept: count() }).from(layouts).where(own).get()!
      if (kept >= MOST_LAYOUTS) return null
      const id = crypto.randomUUID()
      tx.insert(layouts).values({ id, tuneId, name, layout, createdAt: now }).run()
      return id
    },
    { behavior: 'immediate' },
  )
}

const ofTune = (tuneId: string, id: string) => and(eq(layouts.id, id), eq(layouts.tuneId, tuneId))
export const letLayoutGo = (db: Db, tuneId: string, id: string, now = Date.now()): boolean =>
  db.update(layouts).set({ deletedAt: now }).where(ofTune(tuneId, id)).run().changes > 0
export const takeLayoutBack = (db: Db, tuneId: string, id: string): boolean =>
  db.update(layouts).set({ deletedAt: null }).where(ofTune(tuneId, id)).run().changes > 0
