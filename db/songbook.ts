import { and, desc, eq, inArray, isNotNull, isNull, or, sql, type SQL } from 'drizzle-orm'
import Fuse from 'fuse.js'
import type { NumeralsAsked } from '../core/analysis/sought'
import type { Db } from './connect'
import { practised, tunes, type HowFarATune, type TunePlace, type TuneSummary } from './schema'
import { summaryOf } from './summary'
import { readTune } from './tunes'

export interface SongbookEntry {
  id: string
  title: string
  summary: TuneSummary
  tags: string[]
  /** Where it was left; null where it was never opened. */
  place: TunePlace | null
  touchedAt: number
}

/**
 * Writes the summaries of tunes that were kept before the songbook had them, or before they said
 * how far the tune is and what it is found by.
 */
export function fillSummaries(db: Db): void {
  const without = db
    .select({ id: tunes.id })
    .from(tunes)
    .where(
      or(
        isNull(tunes.summary),
        sql`json_extract(${tunes.summary}, '$.far') IS NULL`,
        sql`json_type(${tunes.summary}, '$.sought') IS NULL`,
      ),
    )
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

/** What is asked of the songbook; everything asked holds of each tune listed. */
export interface TunesAsked {
  /**
   * Each must be in the title, a tag, the chart's text, what is sung, or what happens in the
   * changes ("turnaround", "walking up").
   */
  words?: readonly string[]
  /** Where the same words are numerals: tunes with these changes are found as well. */
  numerals?: NumeralsAsked | null
  tag?: string | null
  /** Those alone that stand in the book twice, side by side. */
  twice?: boolean
}

const sought = (field: 'inKey' | 'steps' | 'says' | 'changes') =>
  sql`json_extract(${tunes.summary}, ${`$.sought.${field}`})`
const like = (what: SQL, word: string) =>
  sql`${what} LIKE ${`%${word.replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`} ESCAPE '\\'`

function isAsked({ words = [], numerals = null, tag = null, twice = false }: TunesAsked): SQL | undefined {
  const inWords = and(
    ...words.map((word) =>
      or(
        like(sql`${tunes.title}`, word),
        like(sql`${tunes.tags}`, word),
        like(sql`${tunes.words}`, word),
        like(sought('says'), word),
      ),
    ),
  )
  // Numerals are letters that stand in many a chart: as words they are looked for in titles.
  const inTitle = and(...words.map((word) => like(sql`${tunes.title}`, word)))
  const inChanges =
    numerals &&
    ('steps' in numerals
      ? sql`${sought('steps')} LIKE ${numerals.steps}`
      : sql`${sought('inKey')} LIKE ${numerals.inKey}`)
  const asked = inChanges ? or(inTitle, inChanges) : inWords
  return and(
    isNull(tunes.deletedAt),
    words.length > 0 ? asked : undefined,
    tag === null ? undefined : hasTag(tag),
    twice ? or(standsTwice(plainTitle), standsTwice(sought('changes'))) : undefined,
  )
}

const hasTag = (tag: string) => sql`EXISTS (SELECT 1 FROM json_each(${tunes.tags}) WHERE value = ${tag})`

const plainTitle = sql`lower(trim(${tunes.title}))`
/** Other tunes of the book are equal in this. */
const standsTwice = (what: SQL) =>
  sql`${what} IN (SELECT ${what} FROM ${tunes} WHERE ${tunes.deletedAt} IS NULL AND ${what} <> '' GROUP BY 1 HAVING count(*) > 1)`

/**
 * Tunes of the book in an order, of those that are asked for; and how many there are of them.
 * Charts are not read, only searched.
 */
export function listTunes(
  db: Db,
  {
    most = -1,
    from = 0,
    sort = 'touched',
    ...asked
  }: TunesAsked & { most?: number; from?: number; sort?: SongbookSort } = {},
): { entries: SongbookEntry[]; found: number; total: number } {
  const where = isAsked(asked)
  const isAll = !asked.words?.length && !asked.tag && !asked.twice
  const count = sql<number>`count(*)`
  const total = db.select({ count }).from(tunes).where(isNull(tunes.deletedAt)).get()!.count
  const rows = db
    .select({
      id: tunes.id,
      title: tunes.title,
      summary: tunes.summary,
      tags: tunes.tags,
      place: tunes.place,
      touchedAt: tunes.touchedAt,
    })
    .from(tunes)
    .where(where)
    .orderBy(...(asked.twice ? [sought('changes'), plainTitle] : []), ...ORDERS[sort])
    .limit(most)
    .offset(from)
    .all()
  return {
    entries: rows.map((row) => ({ ...row, summary: row.summary ?? NO_SUMMARY })),
    found: isAll ? total : db.select({ count }).from(tunes).where(where).get()!.count,
    total,
  }
}

/** Titles and tags that a misspelt word may mean, the nearest first. */
const MOST_NEAR = 6
export function nearTitles(db: Db, query: string): { id: string; title: string }[] {
  const all = db.select({ id: tunes.id, title: tunes.title }).from(tunes).where(isNull(tunes.deletedAt)).all()
  const fuse = new Fuse(all, {
    keys: ['title'],
    threshold: 0.4,
    ignoreLocation: true,
    ignoreDiacritics: true,
  })
  return fuse.search(query, { limit: MOST_NEAR }).map(({ item }) => item)
}

/**
 * How many tunes stand in the book more than once: by their title, or with the same changes in any
 * key.
 */
export const countTwice = (db: Db): number =>
  db
    .select({ count: sql<number>`count(*)` })
    .from(tunes)
    .where(isAsked({ twice: true }))
    .get()!.count

/** Why a tune is among those that stand twice, and with which others. */
export interface Twin {
  title: string
  equal: 'title' | 'changes'
}
export function twinsOf(db: Db, ids: readonly string[]): Map<string, Twin> {
  const what = {
    id: tunes.id,
    title: tunes.title,
    plain: sql<string>`${plainTitle}`,
    changes: sql<string | null>`${sought('changes')}`,
  }
  const asked = db
    .select(what)
    .from(tunes)
    .where(inArray(tunes.id, [...ids]))
    .all()
  const changes = asked.flatMap((one) => (one.changes ? [one.changes] : []))
  // One pass through the book, however many are asked for.
  const alike = db
    .select(what)
    .from(tunes)
    .where(
      and(
        isNull(tunes.deletedAt),
        or(
          inArray(
            plainTitle,
            asked.map(({ plain }) => plain),
          ),
          inArray(sought('changes'), changes),
        ),
      ),
    )
    .all()
  return new Map(
    asked.flatMap((one): [string, Twin][] => {
      const others = alike.filter(({ id }) => id !== one.id)
      const titled = others.find(({ plain }) => plain === one.plain)
      const played = one.changes ? others.find((other) => other.changes === one.changes) : undefined
      if (titled) return [[one.id, { title: titled.title, equal: 'title' }]]
      return played ? [[one.id, { title: played.title, equal: 'changes' }]] : []
    }),
  )
}

/** Tags in use with the number of their tunes, by name. */
export const listTags = (db: Db): { tag: string; tunes: number }[] =>
  db.all(
    sql`SELECT value AS tag, count(*) AS tunes FROM ${tunes}, json_each(${tunes.tags}) WHERE ${tunes.deletedAt} IS NULL GROUP BY value ORDER BY value COLLATE NOCASE`,
  )

/** Tags one tune can have. */
export const MOST_TAGS = 30
/** Puts a tag on tunes, or takes it off. @returns how many it was put on or taken off */
export function tagTunes(db: Db, ids: readonly string[], tag: string, on: boolean): number {
  return db.transaction(
    (tx) => {
      const rows = tx
        .select({ id: tunes.id, tags: tunes.tags })
        .from(tunes)
        .where(and(inArray(tunes.id, [...ids]), isNull(tunes.deletedAt)))
        .all()
        .filter(({ tags }) => tags.includes(tag) !== on && (!on || tags.length < MOST_TAGS))
      for (const { id, tags } of rows)
        tx.update(tunes)
          .set({ tags: on ? [...tags, tag].sort() : tags.filter((one) => one !== tag) })
          .where(eq(tunes.id, id))
          .run()
      return rows.length
    },
    { behavior: 'immediate' },
  )
}

/** Keeps where a tune is left. It is no change of the tune. */
export const keepPlace = (db: Db, id: string, place: TunePlace): boolean =>
  db
    .update(tunes)
    .set({ place })
    .where(and(eq(tunes.id, id), isNull(tunes.deletedAt)))
    .run().changes > 0

export const placeInSongbook = (db: Db, id: string): TunePlace | null =>
  db.select({ place: tunes.place }).from(tunes).where(eq(tunes.id, id)).get()?.place ?? null

/**
 * The tune of the book that has just this title, the one touched last where several have; null
 * where none has.
 */
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

/**
 * Erases deleted tunes with all that was made of them, for good; the log keeps their passes under
 * their titles.
 */
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

/** @returns how many of them were in the book */
export const deleteTunes = (db: Db, ids: readonly string[], now = Date.now()): number =>
  db
    .update(tunes)
    .set({ deletedAt: now })
    .where(and(inArray(tunes.id, [...ids]), isNull(tunes.deletedAt)))
    .run().changes
export const deleteTune = (db: Db, id: string, now = Date.now()): boolean => deleteTunes(db, [id], now) > 0

/** Brings back what was deleted in one go. */
export const restoreDeletedAt = (db: Db, at: number): number =>
  db.update(tunes).set({ deletedAt: null }).where(eq(tunes.deletedAt, at)).run().changes

export const restoreTunes = (db: Db, ids: string[]): number =>
  db.update(tunes).set({ deletedAt: null }).where(inArray(tunes.id, ids)).run().changes

export const hasAnyTune = (db: Db): boolean =>
  db.select({ id: tunes.id }).from(tunes).limit(1).get() !== undefined
