import { and, desc, eq, inArray, isNull } from 'drizzle-orm'
import type { Db } from './connect'
import { arrangements, grips, tunes, voicings } from './schema'

/** A grip of the book, and the tunes that use it now. */
export interface BookGrip {
  id: string
  frets: (number | null)[]
  symbol: string
  tags: string[]
  note: string
  usedIn: { id: string; title: string }[]
}

/** All grips of the book, the latest first. */
export function listGrips(db: Db): BookGrip[] {
  const rows = db.select().from(grips).where(isNull(grips.deletedAt)).orderBy(desc(grips.createdAt), grips.symbol).all()
  const used = new Map<string, Map<string, string>>()
  const shapes = [...new Set(rows.map(({ frets }) => JSON.stringify(frets)))]
  if (shapes.length > 0) {
    const uses = db.selectDistinct({ frets: voicings.frets, id: tunes.id, title: tunes.title }).from(voicings)
      .innerJoin(arrangements, and(eq(arrangements.id, voicings.arrangementId), isNull(arrangements.version)))
      .innerJoin(tunes, and(eq(tunes.id, arrangements.tuneId), isNull(tunes.deletedAt)))
      .where(inArray(voicings.frets, rows.map(({ frets }) => frets))).all()
    for (const { frets, id, title } of uses) {
      const shape = JSON.stringify(frets)
      used.set(shape, (used.get(shape) ?? new Map<string, string>()).set(id, title))
    }
  }
  return rows.map(({ id, frets, symbol, tags, note }) => ({
    id, frets, symbol, tags, note, usedIn: [...(used.get(JSON.stringify(frets)) ?? [])].map(([tune, title]) => ({ id: tune, title })),
  }))
}

/** Keeps a grip for a chord; one that is in the book for that chord already is changed, or taken back. */
export function keepGrip(db: Db, { frets, symbol, tags, note }: Pick<BookGrip, 'frets' | 'symbol' | 'tags' | 'note'>, now = Date.now()): string {
  return db.transaction((tx) => {
    const known = tx.select().from(grips).where(and(eq(grips.symbol, symbol), eq(grips.frets, frets))).get()
    if (known) {
      tx.update(grips).set({ tags, note, deletedAt: null }).where(eq(grips.id, known.id)).run()
      return known.id
    }
    const id = crypto.randomUUID()
    tx.insert(grips).values({ id, frets, symbol, tags, note, createdAt: now }).run()
    return id
  }, { behavior: 'immediate' })
}

export const letGripGo = (db: Db, id: string, now = Date.now()): boolean =>
  db.update(grips).set({ deletedAt: now }).where(and(eq(grips.id, id), isNull(grips.deletedAt))).run().changes > 0

export const takeGripBack = (db: Db, id: string): boolean => db.update(grips).set({ deletedAt: null }).where(eq(grips.id, id)).run().changes > 0

export const hasAnyGrip = (db: Db): boolean => db.select({ id: grips.id }).from(grips).limit(1).get() !== undefined
