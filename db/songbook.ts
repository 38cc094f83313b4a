import { and, desc, eq, inArray, isNotNull, isNull, or, sql, type SQL } from 'drizzle-orm'
import type { Db } from './connect'
import { charts, practised, tunes, type HowFarATune, type TuneSummary } from './schema'
import { summaryOf } from './summary'
import { readTune } from './tunes'

export interface SongbookEntry {
  id: string
  title: string
  summary: TuneSummary
  touchedAt: number
}

/** Writes the summaries of tunes that were kept before the songbook had them, or before they said how far the tune is. */
export function fillSummaries(db: Db): void {
  const without = db
    .select({ id: tunes.id })
    .from(tunes)
    .where(or(isNull(tunes.summary), sql`json_extract(${tunes.summary}, '$.far') IS NULL`))
    .all()
  db.transaction((tx) => {
    for (const { id } of without) {
      const state = readTune(db, id)
      if (state)
        tx.update(tunes)
          .set({ summary: summaryOf(state.document) })
          .where(eq(tunes.id, id))
          .run()
    }
  })
}

const NO_SUMMARY: TuneSummary = { key: null, meter: '4/4', bars: 0 }

/** Every word must be in the title or in the text of the chart shown (a chord, a key line). */
function hasWords(words: readonly string[]): SQL | undefined {
  const escaped = (word: string) => `%${word.replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`
  return and(
    ...words.map((word) =>
      or(
        sql`${tunes.title} LIKE ${escaped(word)} ESCAPE '\\'`,
        sql`${charts.text} LIKE ${escaped(word)} ESCAPE '\\'`,
        // What is sung, as it is kept: a list of words with their places.
        sql`EXISTS (SELECT 1 FROM json_each(${charts.lyrics}) WHERE json_extract(value, '$.text') LIKE ${escaped(word)} ESCAPE '\\')`,
      ),
    ),
  )
}

/** Tunes of the book in an order, of those that have all words; and how many there are of them. Charts are not read, only searched. */
export function listTunes(
  db: Db,
  {
    words = [],
    most = -1,
    from = 0,
    sort = 'touched',
  }: { words?: readonly string[]; most?: number; from?: number; sort?: SongbookSort } = {},
): { entries: SongbookEntry[]; found: number; total: number } {
  const book = isNull(tunes.deletedAt)
  const where = words.length > 0 ? and(book, hasWords(words)) : book
  const shown = and(eq(charts.tuneId, tunes.id), eq(charts.shown, true))
  const counted = (condition: SQL | undefined) =>
    db
      .select({ count: sql<number>`count(*)` })
      .from(tunes)
      .innerJoin(charts, shown)
      .where(condition)
      .get()!.count
  const total = db
    .select({ count: sql<number>`count(*)` })
    .from(tunes)
    .where(book)
    .get()!.count
  const rows = db
    .select({ id: tunes.id, title: tunes.title, summary: tunes.summary, touchedAt: tunes.touchedAt })
    .from(tunes)
    .innerJoin(charts, shown)
    .where(where)
    .orderBy(...ORDERS[sort])
    .limit(most)
    .offset(from)
    .all()
  return {
    entries: rows.map((row) => ({ ...row, summary: row.summary ?? NO_SUMMARY })),
    found: words.length > 0 ? counted(where) : total,
    total,
  }
}

/** The tune of the book that has just this title, the one touched last where several have; null where none has. */
export const tuneTitled = (db: Db, title: string): string | null =>
  db
    .select({ id: tunes.id })
    .from(tunes)
    .where(and(isNull(tunes.deletedAt), eq(tunes.title, title)))
    .orderBy(desc(tunes.touchedAt))
    .get()?.id ?? null

/** Orders of the songbook. */
export const SONGBOOK_SORTS = ['touched', 'title', 'key', 'bars', 'far'] as const
export type SongbookSort = (typeof SONGBOOK_SORTS)[number]

const said = (field: string) => sql`json_extract(${tunes.summary}, ${`$.${field}`})`
const byTitle = sql`${tunes.title} COLLATE NOCASE`
const FARNESS: readonly HowFarATune[] = ['empty', 'typed', 'coloured', 'led', 'with melody', 'with rhythm']
const ORDERS: Readonly<Record<SongbookSort, SQL[]>> = {
  touched: [desc(tunes.touchedAt), byTitle],
  title: [byTitle],
  key: [said('key'), byTitle],
  bars: [said('bars'), byTitle],
  far: [
    sql`CASE ${said('far')} ${sql.join(
      FARNESS.map((far, at) => sql`WHEN ${far} THEN ${at}`),
      sql` `,
    )} END DESC`,
    byTitle,
  ],
}

export interface DeletedTune {
  id: string
  title: string
  deletedAt: number
}

/** Deleted tunes, the last one first. They are kept until the list is emptied by hand. */
export const listDeleted = (db: Db): DeletedTune[] =>
  db
    .select({ id: tunes.id, title: tunes.title, deletedAt: tunes.deletedAt })
    .from(tunes)
    .where(isNotNull(tunes.deletedAt))
    .orderBy(desc(tunes.deletedAt))
    .all()
    .map((one) => ({ ...one, deletedAt: one.deletedAt ?? 0 }))

/** Erases deleted tunes with all that was made of them, for good; the log keeps their passes under their titles. */
export const eraseDeleted = (db: Db, ids: readonly string[]): number =>
  db.transaction(
    (tx) => {
      const gone = tx
        .delete(tunes)
        .where(and(inArray(tunes.id, [...ids]), isNotNull(tunes.deletedAt)))
        .returning({ id: tunes.id })
        .all()
        .map((row) => row.id)
      // What its passes said of it is due no more.
      if (gone.length > 0) tx.delete(practised).where(inArray(practised.tuneId, gone)).run()
      return gone.length
    },
    { behavior: 'immediate' },
  )

export const deleteTune = (db: Db, id: string, now = Date.now()): boolean =>
  db
    .update(tunes)
    .set({ deletedAt: now })
    .where(and(eq(tunes.id, id), isNull(tunes.deletedAt)))
    .run().changes > 0

export const restoreTunes = (db: Db, ids: string[]): number =>
  db.update(tunes).set({ deletedAt: null }).where(inArray(tunes.id, ids)).run().changes

export const hasAnyTune = (db: Db): boolean =>
  db.select({ id: tunes.id }).from(tunes).limit(1).get() !== undefined
