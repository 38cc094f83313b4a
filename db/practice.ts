import { and, asc, count, desc, eq, gte, isNotNull, isNull, lte, max, min, sql, sum } from 'drizzle-orm'
import { daysIn } from '../core/practice/days'
import { itemKey, type Grade, type ItemKind } from '../core/practice/grade'
import type { Correction, LoggedPass } from '../core/practice/passSchema'
import { recordOf, type ItemRecord } from '../core/practice/record'
import type { Db } from './connect'
import { goals, passes, practised, tunes } from './schema'

type Tx = Parameters<Parameters<Db['transaction']>[0]>[0]

/** A pass as it stands in the log. */
export type PassRow = typeof passes.$inferSelect

/** The key of what belongs to no tune, in the table of what the passes say. */
const NO_TUNE = ''

const ofItem = ({ tuneId, kind, item }: Pick<PassRow, 'tuneId' | 'kind' | 'item'>) =>
  and(
    tuneId === null ? isNull(passes.tuneId) : eq(passes.tuneId, tuneId),
    eq(passes.kind, kind),
    eq(passes.item, item),
  )

/** What the passes of one item say, written anew. */
function refresh(tx: Tx, of: Pick<PassRow, 'tuneId' | 'kind' | 'item'>): void {
  const rows = tx
    .select({ at: passes.at, day: passes.day, tempo: passes.tempo, grade: passes.grade })
    .from(passes)
    .where(and(ofItem(of), isNull(passes.deletedAt)))
    .orderBy(asc(passes.at))
    .all()
  const days = new Map(rows.map(({ at, day }) => [at, day]))
  const record = recordOf(
    rows.map(({ at, tempo, grade }) => ({
      kind: of.kind,
      item: of.item,
      at,
      grade,
      ...(tempo === null ? {} : { tempo }),
    })),
    (at) => days.get(at)!,
  )
  const key = { tuneId: of.tuneId ?? NO_TUNE, kind: of.kind, item: of.item }
  if (!record) {
    tx.delete(practised)
      .where(
        and(eq(practised.tuneId, key.tuneId), eq(practised.kind, key.kind), eq(practised.item, key.item)),
      )
      .run()
    return
  }
  const said = { due: record.recall.due, record }
  tx.insert(practised)
    .values({ ...key, ...said })
    .onConflictDoUpdate({ target: [practised.tuneId, practised.kind, practised.item], set: said })
    .run()
}

/** The row of a pass: its day is the player's, counted in their zone. A tune that is gone for good is left out. */
function rowOf(tx: Tx, pass: LoggedPass): typeof passes.$inferInsert {
  const known =
    pass.tuneId !== null &&
    tx.select({ id: tunes.id }).from(tunes).where(eq(tunes.id, pass.tuneId)).get() !== undefined
  return { ...pass, tuneId: known ? pass.tuneId : null, day: daysIn(pass.zone)(pass.at) }
}

/** Puts passes into the log; one that is in it already, taken out or not, counts once. @returns how many were new */
export function keepPasses(db: Db, all: readonly LoggedPass[]): number {
  return db.transaction(
    (tx) => {
      const changed = new Map<string, Pick<PassRow, 'tuneId' | 'kind' | 'item'>>()
      let kept = 0
      for (const pass of all) {
        const row = rowOf(tx, pass)
        if (tx.insert(passes).values(row).onConflictDoNothing().run().changes === 0) continue
        kept += 1
        changed.set(`${row.tuneId} ${itemKey(pass)}`, { ...pass, tuneId: row.tuneId ?? null })
      }
      for (const of of changed.values()) refresh(tx, of)
      return kept
    },
    { behavior: 'immediate' },
  )
}

/** Changes what a pass says. @returns the pass as it is then; null where there is none of that id */
function changePass(db: Db, id: string, set: Partial<typeof passes.$inferInsert>): PassRow | null {
  return db.transaction(
    (tx) => {
      const row = tx.update(passes).set(set).where(eq(passes.id, id)).returning().get()
      if (!row) return null
      refresh(tx, row)
      return row
    },
    { behavior: 'immediate' },
  )
}
export const correctPass = (db: Db, id: string, { grade, tempo, note, hurt }: Correction): PassRow | null =>
  changePass(db, id, {
    ...(grade === undefined ? {} : { grade }),
    ...(tempo === undefined ? {} : { tempo }),
    ...(note === undefined ? {} : { note }),
    ...(hurt === undefined ? {} : { hurt }),
  })
export const takePassOut = (db: Db, id: string, now = Date.now()): PassRow | null =>
  changePass(db, id, { deletedAt: now })
export const putPassBack = (db: Db, id: string): PassRow | null => changePass(db, id, { deletedAt: null })

/** What the log says of everything practised of a tune (null: of what belongs to none), by `kind item`. */
export function practisedOf(db: Db, tuneId: string | null): Map<string, ItemRecord> {
  const rows = db
    .select()
    .from(practised)
    .where(eq(practised.tuneId, tuneId ?? NO_TUNE))
    .all()
  return new Map(rows.map((row) => [itemKey(row), row.record]))
}

/** How many things are due in each tune on a day or before it. */
export function dueByTune(db: Db, today: number): Map<string, number> {
  const rows = db
    .select({ tuneId: practised.tuneId, due: count() })
    .from(practised)
    .where(lte(practised.due, today))
    .groupBy(practised.tuneId)
    .all()
  return new Map(rows.map(({ tuneId, due }) => [tuneId, due]))
}

/** Tunes that have been practised at all. */
export const tunesInPractice = (db: Db): Set<string> =>
  new Set(
    db
      .selectDistinct({ tuneId: practised.tuneId })
      .from(practised)
      .all()
      .map(({ tuneId }) => tuneId),
  )

export interface Goal {
  kind: ItemKind
  item: string
  tempo: number | null
  wanted: boolean
}
export const goalsOf = (db: Db, tuneId: string): Goal[] =>
  db
    .select({ kind: goals.kind, item: goals.item, tempo: goals.tempo, wanted: goals.wanted })
    .from(goals)
    .where(eq(goals.tuneId, tuneId))
    .all()

export function setGoal(db: Db, tuneId: string, { kind, item, ...said }: Goal, now = Date.now()): void {
  db.insert(goals)
    .values({ tuneId, kind, item, ...said, madeAt: now })
    .onConflictDoUpdate({ target: [goals.tuneId, goals.kind, goals.item], set: { ...said, madeAt: now } })
    .run()
}

/** Days of the log that are shown at a time. */
export const DAYS_SHOWN = 14

export interface LogDay {
  day: number
  passes: PassRow[]
}

/** The last days on which something was practised, the newest first. @param before days earlier than this one only */
export function logDays(
  db: Db,
  before: number | null = null,
  days = DAYS_SHOWN,
): { days: LogDay[]; more: boolean } {
  const found = db
    .selectDistinct({ day: passes.day })
    .from(passes)
    .where(and(isNull(passes.deletedAt), before === null ? undefined : lte(passes.day, before - 1)))
    .orderBy(desc(passes.day))
    .limit(days + 1)
    .all()
    .map(({ day }) => day)
  const shown = found.slice(0, days)
  if (shown.length === 0) return { days: [], more: false }
  const rows = db
    .select()
    .from(passes)
    .where(and(isNull(passes.deletedAt), gte(passes.day, shown.at(-1)!), lte(passes.day, shown[0]!)))
    .orderBy(desc(passes.day), asc(passes.at))
    .all()
  return {
    days: shown.map((day) => ({ day, passes: rows.filter((row) => row.day === day) })),
    more: found.length > days,
  }
}

/** Minutes practised on each day that had any, oldest first. */
export const minutesByDay = (db: Db, from: number, to: number): { day: number; minutes: number }[] =>
  db
    .select({ day: passes.day, seconds: sum(passes.seconds).mapWith(Number) })
    .from(passes)
    .where(and(isNull(passes.deletedAt), gte(passes.day, from), lte(passes.day, to)))
    .groupBy(passes.day)
    .orderBy(asc(passes.day))
    .all()
    .map(({ day, seconds }) => ({ day, minutes: seconds / 60 }))

export interface Climbed {
  at: number
  day: number
  tempo: number
  goal: number | null
  grade: Grade
}

/** The passes of one thing that had a tempo, oldest first. */
export const tempoOf = (db: Db, of: Pick<PassRow, 'tuneId' | 'kind' | 'item'>): Climbed[] =>
  db
    .select({ at: passes.at, day: passes.day, tempo: passes.tempo, goal: passes.goal, grade: passes.grade })
    .from(passes)
    .where(and(ofItem(of), isNull(passes.deletedAt), isNotNull(passes.tempo)))
    .orderBy(asc(passes.at))
    .all()
    .map((row) => ({ ...row, tempo: row.tempo! }))

/** What has been practised of a tune with a tempo, the most often first. */
export const climbedIn = (db: Db, tuneId: string): { kind: ItemKind; item: string; passes: number }[] =>
  db
    .select({ kind: passes.kind, item: passes.item, passes: count() })
    .from(passes)
    .where(and(eq(passes.tuneId, tuneId), isNull(passes.deletedAt), isNotNull(passes.tempo)))
    .groupBy(passes.kind, passes.item)
    .orderBy(desc(count()))
    .all()

/** For each bar of a tune: passes over it, and those that were not clean (nearly counts half). A bar of a long passage bears its doubt with the others. */
export function doubtsByBar(db: Db, tuneId: string): Map<number, { passes: number; doubt: number }> {
  const rows = db
    .select({ from: passes.fromBar, to: passes.toBar, grade: passes.grade, passes: count() })
    .from(passes)
    .where(
      and(
        eq(passes.tuneId, tuneId),
        isNull(passes.deletedAt),
        isNotNull(passes.fromBar),
        isNotNull(passes.toBar),
      ),
    )
    .groupBy(passes.fromBar, passes.toBar, passes.grade)
    .all()
  const bars = new Map<number, { passes: number; doubt: number }>()
  for (const { from, to, grade, passes: times } of rows) {
    const share = 1 / (to! - from! + 1)
    for (let bar = from!; bar <= to!; bar += 1) {
      const here = bars.get(bar) ?? { passes: 0, doubt: 0 }
      here.passes += times * share
      here.doubt += times * share * DOUBT[grade]
      bars.set(bar, here)
    }
  }
  return bars
}
const DOUBT: Readonly<Record<Grade, number>> = { clean: 0, nearly: 0.5, failed: 1 }

/** When a tune (or anything, where none is named) was last played in each key it was played in. */
export const keysPlayed = (db: Db, tuneId: string | null): { key: string; day: number }[] =>
  db
    .select({ key: passes.key, day: max(passes.day) })
    .from(passes)
    .where(
      and(
        tuneId === null ? undefined : eq(passes.tuneId, tuneId),
        isNull(passes.deletedAt),
        isNotNull(passes.key),
      ),
    )
    .groupBy(passes.key)
    .all()
    .map(({ key, day }) => ({ key: key!, day: day! }))

/** The first and last day of the log, and how much is in it. */
export const logInShort = (
  db: Db,
): { passes: number; first: number | null; last: number | null; minutes: number } => {
  const row = db
    .select({
      passes: count(),
      first: min(passes.day),
      last: max(passes.day),
      seconds: sql<number>`coalesce(sum(${passes.seconds}), 0)`,
    })
    .from(passes)
    .where(isNull(passes.deletedAt))
    .get()!
  return { passes: row.passes, first: row.first, last: row.last, minutes: row.seconds / 60 }
}

/** Tunes with their titles that the log speaks of, by how lately. */
export const tunesInLog = (db: Db): { id: string; title: string }[] =>
  db
    .select({ id: tunes.id, title: tunes.title, last: max(passes.at) })
    .from(passes)
    .innerJoin(tunes, and(eq(tunes.id, passes.tuneId), isNull(tunes.deletedAt)))
    .where(isNull(passes.deletedAt))
    .groupBy(tunes.id)
    .orderBy(desc(max(passes.at)))
    .all()
    .map(({ id, title }) => ({ id, title }))

/** Every pass that is not taken out, oldest first, one at a time. */
export const everyPass = (db: Db): PassRow[] =>
  db.select().from(passes).where(isNull(passes.deletedAt)).orderBy(asc(passes.at)).all()
