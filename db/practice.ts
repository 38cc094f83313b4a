import { entryOf, firstOf, lastOf } from '../core/lists'
import {
  and,
  asc,
  count,
  desc,
  eq,
  getTableColumns,
  gte,
  inArray,
  isNotNull,
  isNull,
  lte,
  max,
  min,
  sql,
  sum,
} from 'drizzle-orm'
import { daysIn } from '../core/practice/days'
import { itemKey, type Grade, type ItemKind } from '../core/practice/grade'
import type { Correction, LoggedPass } from '../core/practice/passSchema'
import { recordOf, type ItemRecord } from '../core/practice/record'
import { groupedBy } from '../core/grouped'
import type { Db, Tx } from './connect'
import { goals, passes, practised, tunes } from './schema'

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

export type ItemOf = Pick<PassRow, 'tuneId' | 'kind' | 'item'>

/**
 * What the passes of some items say, written anew: read and written for all items of a tune at
 * once.
 */
export function refresh(tx: Tx, changed: readonly ItemOf[]): void {
  for (const [tuneId, items] of groupedBy(changed, (one) => one.tuneId ?? NO_TUNE)) {
    const rows = tx
      .select({
        kind: passes.kind,
        item: passes.item,
        at: passes.at,
        day: passes.day,
        tempo: passes.tempo,
        grade: passes.grade,
      })
      .from(passes)
      .where(
        and(
          tuneId === NO_TUNE ? isNull(passes.tuneId) : eq(passes.tuneId, tuneId),
          inArray(passes.item, [...new Set(items.map(({ item }) => item))]),
          isNull(passes.deletedAt),
        ),
      )
      .all()
    const ofItems = groupedBy(rows, itemKey)
    const said = items.flatMap(({ kind, item }) => {
      const own = ofItems.get(itemKey({ kind, item })) ?? []
      const days = new Map(own.map(({ at, day }) => [at, day]))
      const record = recordOf(
        own.map(({ at, tempo, grade }) => ({ kind, item, at, grade, ...(tempo === null ? {} : { tempo }) })),
        (at) => entryOf(days, at),
      )
      if (record) return [{ tuneId, kind, item, due: record.recall.due, record }]
      tx.delete(practised)
        .where(and(eq(practised.tuneId, tuneId), eq(practised.kind, kind), eq(practised.item, item)))
        .run()
      return []
    })
    for (let at = 0; at < said.length; at += AT_ONCE)
      tx.insert(practised)
        .values(said.slice(at, at + AT_ONCE))
        .onConflictDoUpdate({
          target: [practised.tuneId, practised.kind, practised.item],
          set: { due: sql`excluded.due`, record: sql`excluded.record` },
        })
        .run()
  }
}

/** Every column of a pass as it is given. */
const AS_GIVEN = Object.fromEntries(
  Object.keys(getTableColumns(passes))
    .filter((column) => column !== 'deletedAt')
    .map((column) => [column, sql.placeholder(column)]),
)
/** Items written with one statement. */
const AT_ONCE = 500

/**
 * Puts passes into the log; one that is in it already, taken out or not, counts once. @returns how
 * many were new
 */
export function keepPasses(db: Db, all: readonly LoggedPass[]): number {
  return db.transaction(
    (tx) => {
      // A tune that is gone for good is left out.
      const known = new Set(
        tx
          .select({ id: tunes.id })
          .from(tunes)
          .all()
          .map(({ id }) => id),
      )
      const rows = all.map((pass) => ({
        ...pass,
        tuneId: pass.tuneId !== null && known.has(pass.tuneId) ? pass.tuneId : null,
        day: daysIn(pass.zone)(pass.at),
      }))
      const changed = new Map<string, ItemOf>()
      let kept = 0
      // Prepared once: a log that is brought in has many thousands.
      const put = tx
        .insert(passes)
        .values(AS_GIVEN as never)
        .onConflictDoNothing()
        .prepare()
      for (const row of rows) {
        if (put.run(row).changes === 0) continue
        kept += 1
        changed.set(`${row.tuneId} ${itemKey(row)}`, row)
      }
      refresh(tx, [...changed.values()])
      return kept
    },
    { behavior: 'immediate' },
  )
}

/**
 * Changes what a pass says. @returns the pass as it is then; null where there is none of that id
 */
function changePass(db: Db, id: string, set: Partial<typeof passes.$inferInsert>): PassRow | null {
  return db.transaction(
    (tx) => {
      const row = tx.update(passes).set(set).where(eq(passes.id, id)).returning().get()
      if (!row) return null
      refresh(tx, [row])
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

/**
 * What the log says of everything practised of a tune (null: of what belongs to none), by `kind
 * item`.
 */
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
export const DAYS_SHOWN = 7

export interface LogDay {
  day: number
  passes: PassRow[]
}

/**
 * The last days on which something was practised, the newest first. @param before days earlier than
 * this one only
 */
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
    .where(and(isNull(passes.deletedAt), gte(passes.day, lastOf(shown)), lte(passes.day, firstOf(shown))))
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

/**
 * For each bar of a tune: passes over it, and those that were not clean (nearly counts half). A bar
 * of a long passage bears its doubt with the others.
 */
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
export function tunesInLog(db: Db): { id: string; title: string }[] {
  const last = max(sql<number>`json_extract(${practised.record}, '$.last.at')`)
  return db
    .select({ id: tunes.id, title: tunes.title, last })
    .from(practised)
    .innerJoin(tunes, and(eq(tunes.id, practised.tuneId), isNull(tunes.deletedAt)))
    .groupBy(tunes.id)
    .orderBy(desc(last))
    .all()
    .map(({ id, title }) => ({ id, title }))
}

/** Every pass that is not taken out, oldest first, one at a time. */
export const everyPass = (db: Db): PassRow[] =>
  db.select().from(passes).where(isNull(passes.deletedAt)).orderBy(asc(passes.at)).all()
