import { and, desc, eq, inArray, isNotNull, isNull, or } from 'drizzle-orm'
import { groupedBy } from '../core/grouped'
import type { Db } from './connect'
import { fretsKey } from './head'
import { grips, gripUses, tunes } from './schema'

/** A grip of the book, and the tunes that use it now. */
export interface BookGrip {
  id: string
  frets: (number | null)[]
  symbol: string
  tags: string[]
  note: string
  /** Open strings it was kept for; null where that was not written down. */
  instrument: string | null
  usedIn: { id: string; title: string }[]
}

/** All grips of the book, the latest first. */
export function listGrips(db: Db): BookGrip[] {
  const rows = db
    .select()
    .from(grips)
    .where(isNull(grips.deletedAt))
    .orderBy(desc(grips.createdAt), grips.symbol)
    .all()
  const uses = db
    .select({ shape: gripUses.shape, id: tunes.id, title: tunes.title })
    .from(gripUses)
    .innerJoin(tunes, and(eq(tunes.id, gripUses.tuneId), isNull(tunes.deletedAt)))
    .where(inArray(gripUses.shape, [...new Set(rows.map(({ frets }) => fretsKey(frets)))]))
    .all()
  const used = groupedBy(uses, ({ shape }) => shape)
  return rows.map(({ id, frets, symbol, tags, note, instrument }) => ({
    id,
    frets,
    symbol,
    tags,
    note,
    instrument,
    usedIn: (used.get(fretsKey(frets)) ?? []).map(({ shape: _, ...tune }) => tune),
  }))
}

type Shape = Pick<BookGrip, 'frets' | 'symbol'> & { instrument?: string | null }

const sameGrip = ({ frets, symbol, instrument }: Shape) =>
  and(
    eq(grips.symbol, symbol),
    eq(grips.frets, frets),
    instrument ? or(eq(grips.instrument, instrument), isNull(grips.instrument)) : undefined,
  )

/**
 * Keeps a grip for a chord with its tags and note; one that is in the book for that chord already
 * gets these instead of its own, one taken out comes back with them.
 */
export function keepGrip(
  db: Db,
  { frets, symbol, tags, note, instrument = null }: Shape & Pick<BookGrip, 'tags' | 'note'>,
  now = Date.now(),
): string {
  return db.transaction(
    (tx) => {
      const known = tx.select().from(grips).where(sameGrip({ frets, symbol, instrument })).get()
      if (known) {
        tx.update(grips).set({ tags, note, deletedAt: null }).where(eq(grips.id, known.id)).run()
        return known.id
      }
      const id = crypto.randomUUID()
      tx.insert(grips).values({ id, frets, symbol, tags, note, instrument, createdAt: now }).run()
      return id
    },
    { behavior: 'immediate' },
  )
}

/**
 * Puts a grip into the book from a tune: tags and note of one that is there, or was there, stay as
 * they are.
 */
export function putInBook(
  db: Db,
  { frets, symbol, instrument = null }: Shape,
  now = Date.now(),
): 'new' | 'back' | 'there' {
  return db.transaction(
    (tx) => {
      const known = tx.select().from(grips).where(sameGrip({ frets, symbol, instrument })).get()
      if (known && known.deletedAt === null) return 'there'
      if (known) tx.update(grips).set({ deletedAt: null }).where(eq(grips.id, known.id)).run()
      else
        tx.insert(grips)
          .values({ id: crypto.randomUUID(), frets, symbol, tags: [], note: '', instrument, createdAt: now })
          .run()
      return known ? 'back' : 'new'
    },
    { behavior: 'immediate' },
  )
}

/** What is in the book, without what is said of it: `symbol frets` for each grip. */
export const shapesInBook = (db: Db): string[] =>
  db
    .select({ frets: grips.frets, symbol: grips.symbol })
    .from(grips)
    .where(isNull(grips.deletedAt))
    .all()
    .map(bookGripKey)

export const bookGripKey = ({ frets, symbol }: Pick<BookGrip, 'frets' | 'symbol'>): string =>
  `${symbol} ${frets.map((fret) => fret ?? 'x').join(' ')}`

/** Grips that were taken out of the book, the last first: each can be brought back. */
export const listTakenOut = (db: Db): Pick<BookGrip, 'id' | 'frets' | 'symbol'>[] =>
  db
    .select({ id: grips.id, frets: grips.frets, symbol: grips.symbol })
    .from(grips)
    .where(isNotNull(grips.deletedAt))
    .orderBy(desc(grips.deletedAt))
    .all()

export const letGripGo = (db: Db, id: string, now = Date.now()): boolean =>
  db
    .update(grips)
    .set({ deletedAt: now })
    .where(and(eq(grips.id, id), isNull(grips.deletedAt)))
    .run().changes > 0

export const takeGripBack = (db: Db, id: string): boolean =>
  db.update(grips).set({ deletedAt: null }).where(eq(grips.id, id)).run().changes > 0

export const hasAnyGrip = (db: Db): boolean =>
  db.select({ id: grips.id }).from(grips).limit(1).get() !== undefined
