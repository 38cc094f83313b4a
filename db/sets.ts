import { and, asc, count, desc, eq, gt, isNotNull, isNull, max, sql } from 'drizzle-orm'
import type { Db, Tx } from './connect'
import { sets, setTunes, tunes } from './schema'

/** Tunes one set can have: more than a night holds. */
export const MOST_IN_A_SET = 200

export interface SetShort {
  id: string
  name: string
  note: string
  tunes: number
  touchedAt: number
}

/** A tune in its place of a set. */
export interface SetTune {
  id: string
  /** Null, or `deleted`, where the tune is not in the songbook any more. */
  tuneId: string | null
  title: string
  deleted: boolean
  place: number
  key: string | null
  tempo: number | null
  version: string | null
  note: string
}
export type HowInSet = Pick<SetTune, 'key' | 'tempo' | 'version' | 'note'>

const inSet = (setId: string) => and(eq(setTunes.setId, setId), isNull(setTunes.deletedAt))

/** The sets that are not deleted, the last touched first. */
export const listSets = (db: Db): SetShort[] =>
  db
    .select({
      id: sets.id,
      name: sets.name,
      note: sets.note,
      touchedAt: sets.touchedAt,
      tunes: count(setTunes.id),
    })
    .from(sets)
    .leftJoin(setTunes, and(eq(setTunes.setId, sets.id), isNull(setTunes.deletedAt)))
    .where(isNull(sets.deletedAt))
    .groupBy(sets.id)
    .orderBy(desc(sets.touchedAt))
    .all()

/** A set with its tunes in order; null where there is none (or it is deleted). */
export function readSet(db: Db, id: string): (Omit<SetShort, 'tunes'> & { tunes: SetTune[] }) | null {
  const one = db
    .select({ id: sets.id, name: sets.name, note: sets.note, touchedAt: sets.touchedAt })
    .from(sets)
    .where(and(eq(sets.id, id), isNull(sets.deletedAt)))
    .get()
  if (!one) return null
  const rows = db
    .select({ row: setTunes, title: tunes.title, deletedAt: tunes.deletedAt })
    .from(setTunes)
    .leftJoin(tunes, eq(tunes.id, setTunes.tuneId))
    .where(inSet(id))
    .orderBy(asc(setTunes.place))
    .all()
  return {
    ...one,
    tunes: rows.map(({ row, title, deletedAt }, place) => ({
      id: row.id,
      tuneId: row.tuneId,
      title: title ?? row.title,
      deleted: row.tuneId === null || deletedAt !== null,
      place,
      key: row.key,
      tempo: row.tempo,
      version: row.version,
      note: row.note,
    })),
  }
}

export function createSet(db: Db, name: string, now = Date.now()): string {
  const id = crypto.randomUUID()
  db.insert(sets).values({ id, name, createdAt: now, touchedAt: now }).run()
  return id
}

export const changeSet = (
  db: Db,
  id: string,
  said: { name?: string; note?: string },
  now = Date.now(),
): boolean =>
  db
    .update(sets)
    .set({ ...said, touchedAt: now })
    .where(and(eq(sets.id, id), isNull(sets.deletedAt)))
    .run().changes > 0

export const deleteSet = (db: Db, id: string, now = Date.now()): boolean =>
  db
    .update(sets)
    .set({ deletedAt: now })
    .where(and(eq(sets.id, id), isNull(sets.deletedAt)))
    .run().changes > 0
export const restoreSet = (db: Db, id: string): boolean =>
  db
    .update(sets)
    .set({ deletedAt: null })
    .where(and(eq(sets.id, id), isNotNull(sets.deletedAt)))
    .run().changes > 0

const touched = (tx: Tx, id: string, now: number) =>
  tx.update(sets).set({ touchedAt: now }).where(eq(sets.id, id)).run()

/** Puts a tune at the end of a set. @returns why not, where it cannot be put in */
export function addToSet(db: Db, setId: string, tuneId: string, now = Date.now()): string | null {
  return db.transaction(
    (tx) => {
      const set = tx
        .select({ id: sets.id })
        .from(sets)
        .where(and(eq(sets.id, setId), isNull(sets.deletedAt)))
        .get()
      const tune = tx
        .select({ title: tunes.title })
        .from(tunes)
        .where(and(eq(tunes.id, tuneId), isNull(tunes.deletedAt)))
        .get()
      if (!set) return 'This set is not there any more.'
      if (!tune) return 'This tune is not in the songbook any more.'
      const { in: held, last } = tx
        .select({ in: count(), last: max(setTunes.place) })
        .from(setTunes)
        .where(inSet(setId))
        .get()!
      if (held >= MOST_IN_A_SET) return `There are ${MOST_IN_A_SET} tunes, as many as a set can have.`
      tx.insert(setTunes)
        .values({
          id: crypto.randomUUID(),
          setId,
          tuneId,
          title: tune.title,
          place: (last ?? -1) + 1,
        })
        .run()
      touched(tx, setId, now)
      return null
    },
    { behavior: 'immediate' },
  )
}

export function changeInSet(
  db: Db,
  setId: string,
  id: string,
  how: Partial<HowInSet>,
  now = Date.now(),
): boolean {
  return db.transaction(
    (tx) => {
      const { changes } = tx
        .update(setTunes)
        .set(how)
        .where(and(inSet(setId), eq(setTunes.id, id)))
        .run()
      if (changes > 0) touched(tx, setId, now)
      return changes > 0
    },
    { behavior: 'immediate' },
  )
}

/** Puts a tune of a set to another place, from 0; the others close up. */
export function moveInSet(db: Db, setId: string, id: string, to: number, now = Date.now()): boolean {
  return db.transaction(
    (tx) => {
      const ids = tx
        .select({ id: setTunes.id })
        .from(setTunes)
        .where(inSet(setId))
        .orderBy(asc(setTunes.place))
        .all()
        .map((row) => row.id)
      if (!ids.includes(id)) return false
      const others = ids.filter((one) => one !== id)
      const order = [...others.slice(0, to), id, ...others.slice(to)]
      order.forEach((one, place) => tx.update(setTunes).set({ place }).where(eq(setTunes.id, one)).run())
      touched(tx, setId, now)
      return true
    },
    { behavior: 'immediate' },
  )
}

export const takeFromSet = (db: Db, setId: string, id: string, now = Date.now()): boolean =>
  db
    .update(setTunes)
    .set({ deletedAt: now })
    .where(and(inSet(setId), eq(setTunes.id, id)))
    .run().changes > 0

/** Puts a tune that was taken out back to its place; the others make room. */
export function putBackInSet(db: Db, setId: string, id: string): boolean {
  return db.transaction(
    (tx) => {
      const row = tx
        .select({ place: setTunes.place })
        .from(setTunes)
        .where(and(eq(setTunes.setId, setId), eq(setTunes.id, id), isNotNull(setTunes.deletedAt)))
        .get()
      if (!row) return false
      tx.update(setTunes)
        .set({ place: sql`${setTunes.place} + 1` })
        .where(and(inSet(setId), gt(setTunes.place, row.place - 1)))
        .run()
      tx.update(setTunes).set({ deletedAt: null }).where(eq(setTunes.id, id)).run()
      return true
    },
    { behavior: 'immediate' },
  )
}

export const hasAnySet = (db: Db): boolean =>
  db.select({ id: sets.id }).from(sets).limit(1).get() !== undefined
