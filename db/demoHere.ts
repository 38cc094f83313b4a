import { and, eq, inArray, isNull, lt, lte, sql } from 'drizzle-orm'
import type { Db, Tx } from './connect'
import { refresh, type ItemOf } from './practice'
import { goals, grips, layouts, likings, passes, revisions, sets, settings, tunes } from './schema'

/** The tunes of the demo book, by title, and its set. */
export const DEMO_TITLES: readonly string[] = [
  'Lantern on the Rail',
  'Four Planks',
  'Low Water Blues',
  'Halyard Waltz',
  'Warm Current',
  'Fog at the Second Bell',
  'Coil of Rope',
  'Ferryman, Wait',
]
const DEMO_SET = 'Evening crossing'
/** What a new book says of itself: the first steps are offered, or were taken. */
const OFFERED = 'firstSteps'

/** What of the demo is still in a book. */
export interface DemoHere {
  /** When it was put in, ms since 1970: what its player practised lies before. */
  at: number
  /** Tunes that nobody has changed since. */
  untouched: { id: string; title: string }[]
  /** Those that were changed are the player's own. */
  touched: { id: string; title: string }[]
  /** Passes of its invented player in the log. */
  passes: number
}

/**
 * What is there of the demo; null where nothing is. Told by titles and by when things were made, so
 * that books of earlier versions are known too.
 */
export function demoHere(db: Db | Tx): DemoHere | null {
  const rows = db
    .select({
      id: tunes.id,
      title: tunes.title,
      createdAt: tunes.createdAt,
      parent: revisions.parentId,
      tags: tunes.tags,
    })
    .from(tunes)
    .innerJoin(revisions, eq(revisions.id, tunes.head))
    .where(and(inArray(tunes.title, [...DEMO_TITLES]), isNull(tunes.deletedAt)))
    .all()
  // The first of its tunes is of the day the book was made.
  const first = rows.filter(({ title }) => title === DEMO_TITLES[0])
  if (first.length === 0) return null
  const at = Math.min(...first.map(({ createdAt }) => createdAt))
  const ofDemo = rows.filter(({ createdAt }) => createdAt <= at)
  const isTouched = ({ parent, tags }: (typeof rows)[number]) => parent !== null || tags.length > 0
  const plain = ({ id, title }: (typeof rows)[number]) => ({ id, title })
  return {
    at,
    untouched: ofDemo.filter((one) => !isTouched(one)).map(plain),
    touched: ofDemo.filter(isTouched).map(plain),
    passes: db
      .select({ count: sql<number>`count(*)` })
      .from(passes)
      .where(ofItsPlayer(ofDemo, at))
      .get()!.count,
  }
}

const ofItsPlayer = (ofDemo: readonly { id: string }[], at: number) =>
  and(
    inArray(
      passes.tuneId,
      ofDemo.map(({ id }) => id),
    ),
    lt(passes.at, at),
  )

/**
 * Nothing in the book is the player's own: no tune, grip, set, pass, liking, layout, goal or
 * setting beside those of the demo.
 */
export function isUntouched(db: Db | Tx): boolean {
  const demo = demoHere(db)
  if (!demo || demo.touched.length > 0) return false
  const counted = (table: typeof tunes | typeof passes | typeof likings | typeof layouts | typeof goals) =>
    db
      .select({ count: sql<number>`count(*)` })
      .from(table)
      .get()!.count
  return (
    counted(tunes) === demo.untouched.length &&
    counted(passes) === demo.passes &&
    counted(likings) === 0 &&
    counted(layouts) === 0 &&
    counted(goals) === 0 &&
    db
      .select({ name: settings.name })
      .from(settings)
      .all()
      .every(({ name }) => name === OFFERED) &&
    db
      .select()
      .from(sets)
      .all()
      .every(({ name, touchedAt }) => name === DEMO_SET && touchedAt <= demo.at) &&
    db
      .select({ createdAt: grips.createdAt, deletedAt: grips.deletedAt })
      .from(grips)
      .all()
      .every(({ createdAt, deletedAt }) => createdAt <= demo.at && deletedAt === null)
  )
}

/** What went with the demo. */
export interface DemoGone {
  tunes: number
  passes: number
  /** Tunes of it that stay, since the player has worked on them. */
  stay: string[]
}

/**
 * Begins the player's own book: the demo's tunes go to the deleted ones, from where they come back,
 * with its set and its grips; what its invented player practised is erased. Tunes of it that were
 * changed stay.
 */
export function beginOwnBook(db: Db, now = Date.now()): DemoGone | null {
  return db.transaction(
    (tx) => {
      const demo = demoHere(tx)
      if (!demo) return null
      const all = [...demo.untouched, ...demo.touched]
      const gone: ItemOf[] = tx.delete(passes).where(ofItsPlayer(all, demo.at)).returning().all()
      refresh(tx, gone)
      const ids = demo.untouched.map(({ id }) => id)
      tx.update(tunes).set({ deletedAt: now }).where(inArray(tunes.id, ids)).run()
      tx.update(sets)
        .set({ deletedAt: now })
        .where(and(eq(sets.name, DEMO_SET), lte(sets.touchedAt, demo.at), isNull(sets.deletedAt)))
        .run()
      tx.update(grips)
        .set({ deletedAt: now })
        .where(and(lte(grips.createdAt, demo.at), isNull(grips.deletedAt)))
        .run()
      return { tunes: ids.length, passes: gone.length, stay: demo.touched.map(({ title }) => title) }
    },
    { behavior: 'immediate' },
  )
}

/**
 * Erases an untouched demo for good: a backup that is brought into a book that nobody has used is
 * the book.
 */
export function eraseDemo(db: Db): void {
  db.transaction(
    (tx) => {
      tx.delete(passes).run()
      tx.delete(sets).run()
      tx.delete(grips).run()
      tx.delete(tunes).run()
    },
    { behavior: 'immediate' },
  )
}
