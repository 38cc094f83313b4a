import { and, desc, eq, inArray, isNotNull, isNull, lt, or, sql, type SQL } from 'drizzle-orm'
import { newDocument, PLAIN_LEADING, type TuneDocument, type VersionKept } from '../core/tune/document'
import { joinsTyping } from '../core/tune/fold'
import { DOCUMENT_VERSION, openDocument } from '../core/tune/stored'
import { tryEdit } from '../core/tune/tryEdit'
import { homeKey } from '../core/analysis/analyse'
import { parseChart } from '../core/chart/parse'
import { keyName } from '../core/pitch/key'
import type { Db } from './connect'
import {
  arrangements,
  charts,
  choices,
  practised,
  revisions,
  tunes,
  voicings,
  writes,
  type HowFarATune,
  type TuneSummary,
} from './schema'
import { chartsOf } from '../core/tune/edits/chart'
import { isFound, labelOf, type TuneEdit } from '../core/tune/edit'

/** A tune as it stands, with what undo and redo would do. */
export interface TuneState {
  id: string
  /** Id of the present revision; every write says which one it was made on. */
  revision: string
  document: TuneDocument
  undo: string | null
  redo: string | null
  /** What this version could not read of it, in words. */
  unread: string[]
}

/** `repeated`: the same write was done before; `made` is the revision it made then. */
export type WriteOutcome =
  | { kind: 'written'; state: TuneState }
  | { kind: 'repeated'; state: TuneState; made: string }
  | { kind: 'conflict'; state: TuneState }
  | { kind: 'refused'; message: string }
  | { kind: 'missing' }

type Tx = Parameters<Parameters<Db['transaction']>[0]>[0]
const newId = () => crypto.randomUUID()

/** The rows of a tune put together, or null when there is no such tune (or it is deleted). */
export function readTune(db: Db | Tx, id: string): TuneState | null {
  return readRows(db, id, isNull(tunes.deletedAt))
}

/** The same, of a deleted tune too. */
export const readTuneAnyhow = (db: Db | Tx, id: string): TuneState | null => readRows(db, id)

function readRows(db: Db | Tx, id: string, which?: SQL): TuneState | null {
  const tune = db
    .select()
    .from(tunes)
    .where(and(eq(tunes.id, id), which))
    .get()
  return tune ? { id, revision: tune.head, ...documentIn(db, tune), ...historyOf(db, tune.head) } : null
}

/** The document that the rows of a tune make, and what of it this version could not read. */
export function documentIn(
  db: Db | Tx,
  { id, title }: Pick<typeof tunes.$inferSelect, 'id' | 'title'>,
): Pick<TuneState, 'document' | 'unread'> {
  const rows = db
    .select()
    .from(charts)
    .innerJoin(arrangements, and(eq(arrangements.chartId, charts.id), isNull(arrangements.version)))
    .where(eq(charts.tuneId, id))
    .orderBy(charts.place)
    .all()
  const all = rows.map(({ charts: chart, arrangements: made }) => ({
    chart,
    tempo: made.tempo,
    content: contentOf(db, chart, made),
  }))
  const at = Math.max(
    0,
    all.findIndex((one) => one.chart.shown),
  )
  const { name, ...shown } = all[at]!.content
  return openDocument({
    title,
    tempo: all[at]!.tempo,
    ...shown,
    chart: name,
    at,
    others: all.filter((_, index) => index !== at).map((one) => one.content),
  })
}

/** One chart with what was made of it and the versions kept. */
function contentOf(db: Db | Tx, chart: typeof charts.$inferSelect, made: typeof arrangements.$inferSelect) {
  const kept = db
    .select()
    .from(arrangements)
    .where(and(eq(arrangements.chartId, chart.id), isNotNull(arrangements.version)))
    .orderBy(arrangements.version)
    .all()
  return {
    name: chart.name,
    text: chart.text,
    melody: chart.melody,
    phrases: chart.phrases,
    lyrics: chart.lyrics,
    ...madeOf(db, made),
    versions: kept.map((one) => ({ name: one.name, at: one.keptAt, ...madeOf(db, one) })),
  }
}

function madeOf(
  db: Db | Tx,
  {
    id,
    colour,
    bass,
    style,
    line,
    conditions,
    leading,
    chordMelody,
    rhythm,
  }: typeof arrangements.$inferSelect,
) {
  const chosen = db.select().from(choices).where(eq(choices.arrangementId, id)).all()
  const held = db.select().from(voicings).where(eq(voicings.arrangementId, id)).all()
  const fretsBySlot = (rows: typeof held) => Object.fromEntries(rows.map((row) => [row.slot, row.frets]))
  return {
    colour,
    bass,
    style,
    line,
    conditions,
    leading,
    chordMelody,
    rhythm,
    choices: Object.fromEntries(
      chosen.map(({ slot, chords, span, rule, madeAt, by }) => [
        slot,
        { chords, span, rule, at: madeAt, ...(by ? { by } : {}) },
      ]),
    ),
    fixed: fretsBySlot(held.filter((row) => row.fixed)),
    grips: fretsBySlot(held),
    gripsOn: Object.fromEntries(
      held.flatMap(({ slot, instrument }) => (instrument === null ? [] : [[slot, instrument]])),
    ),
    called: Object.fromEntries(held.flatMap(({ slot, called }) => (called === null ? [] : [[slot, called]]))),
  }
}

function historyOf(db: Db | Tx, head: string): Pick<TuneState, 'undo' | 'redo'> {
  const present = db
    .select({ label: revisions.label, parentId: revisions.parentId })
    .from(revisions)
    .where(eq(revisions.id, head))
    .get()
  return { undo: present?.parentId ? present.label : null, redo: newestChild(db, head)?.label ?? null }
}

const newestChild = (db: Db | Tx, parent: string) =>
  db
    .select()
    .from(revisions)
    .where(eq(revisions.parentId, parent))
    .orderBy(desc(revisions.sequence))
    .limit(1)
    .get()

export function createTune(db: Db, document: TuneDocument, now = Date.now()): string {
  const id = newId()
  db.transaction(
    (tx) => {
      const head = newId()
      tx.insert(tunes).values({ id, title: document.title, createdAt: now, touchedAt: now, head }).run()
      tx.insert(revisions)
        .values({
          id: head,
          tuneId: id,
          parentId: null,
          sequence: 0,
          label: 'new tune',
          snapshot: document,
          version: DOCUMENT_VERSION,
          createdAt: now,
        })
        .run()
      writeRows(tx, id, document)
    },
    { behavior: 'immediate' },
  )
  return id
}

/** Makes the rows of a tune agree with a document. */
export function writeRows(tx: Tx, id: string, document: TuneDocument): void {
  tx.update(tunes)
    .set({ title: document.title, summary: summaryOf(document) })
    .where(eq(tunes.id, id))
    .run()
  // What hangs on a chart goes with it.
  tx.delete(charts).where(eq(charts.tuneId, id)).run()
  chartsOf(document).forEach(({ name, text, melody, phrases, lyrics, versions, ...made }, place) => {
    const chartId = newId()
    tx.insert(charts)
      .values({
        id: chartId,
        tuneId: id,
        name,
        text,
        melody,
        phrases,
        lyrics,
        place,
        shown: place === document.at,
      })
      .run()
    writeMade(
      tx,
      { tuneId: id, chartId, name: 'New line', version: null, keptAt: 0, tempo: document.tempo },
      made,
    )
    versions.forEach(({ name: kept, at, ...one }, version) =>
      writeMade(tx, { tuneId: id, chartId, name: kept, version, keptAt: at, tempo: document.tempo }, one),
    )
  })
}

type ArrangementRow = typeof arrangements.$inferInsert

/** One arrangement with its choices and grips. */
function writeMade(
  tx: Tx,
  where: Pick<ArrangementRow, 'tuneId' | 'chartId' | 'name' | 'version' | 'keptAt' | 'tempo'>,
  made: Omit<VersionKept, 'name' | 'at'>,
): void {
  const arrangementId = newId()
  const { colour, bass, style, line, conditions, leading, chordMelody, rhythm } = made
  tx.insert(arrangements)
    .values({
      id: arrangementId,
      ...where,
      colour,
      bass,
      style,
      line,
      conditions,
      leading,
      chordMelody,
      rhythm,
    })
    .run()
  const chosen = Object.entries(made.choices).map(([slot, { chords, span, rule, at, by }]) => ({
    arrangementId,
    slot,
    chords,
    span,
    rule,
    madeAt: at,
    by: by ?? null,
  }))
  if (chosen.length > 0) tx.insert(choices).values(chosen).run()
  const held = Object.entries({ ...made.grips, ...made.fixed }).map(([slot, frets]) => ({
    arrangementId,
    slot,
    frets,
    fixed: slot in made.fixed,
    instrument: made.gripsOn[slot] ?? null,
    called: made.called[slot] ?? null,
  }))
  if (held.length > 0) tx.insert(voicings).values(held).run()
}

/** Ids of writes are remembered so long: a tab that was shut away for longer is told of a conflict instead. */
const WRITES_KNOWN_MS = 90 * 86_400_000

/** A write as a tab sends it: the revision it saw, and the id by which a repetition is known. */
export interface WriteOf {
  id?: string | undefined
  base: string
}

/**
 * Runs a change on a tune if it was made on the present revision; otherwise nothing is written and the present state
 * comes back as a conflict, so that no tab silently overwrites another. A write that was done before is not done again.
 */
function write(
  db: Db,
  tune: string,
  { id, base }: WriteOf,
  now: number,
  change: (tx: Tx, state: TuneState) => string | undefined,
): WriteOutcome {
  return db.transaction(
    (tx): WriteOutcome => {
      const state = readTune(tx, tune)
      if (!state) return { kind: 'missing' }
      const before =
        id === undefined
          ? undefined
          : tx
              .select()
              .from(writes)
              .where(and(eq(writes.id, id), eq(writes.tuneId, tune)))
              .get()
      if (before) return { kind: 'repeated', state, made: before.made }
      if (state.revision !== base) return { kind: 'conflict', state }
      const message = change(tx, state)
      if (message !== undefined) return { kind: 'refused', message }
      const written = readTune(tx, tune)!
      if (id !== undefined) {
        tx.insert(writes).values({ id, tuneId: tune, made: written.revision, at: now }).run()
        tx.delete(writes)
          .where(lt(writes.at, now - WRITES_KNOWN_MS))
          .run()
      }
      return { kind: 'written', state: written }
    },
    { behavior: 'immediate' },
  )
}

/** One edit. Refused, with nothing written, where the tune as it is cannot take it. */
export function editTune(
  db: Db,
  tune: string,
  of: WriteOf | string,
  edit: TuneEdit,
  now = Date.now(),
): WriteOutcome {
  const from = typeof of === 'string' ? { base: of } : of
  return write(db, tune, from, now, (tx, state) => {
    const tried = tryEdit(state.document, edit)
    if (!tried.ok) return tried.message
    const { document } = tried
    writeRows(tx, tune, document)
    if (isFound(edit)) {
      tx.update(revisions)
        .set({ snapshot: document, version: DOCUMENT_VERSION })
        .where(eq(revisions.id, from.base))
        .run()
      return undefined
    }
    const present = tx
      .select({ label: revisions.label, parentId: revisions.parentId })
      .from(revisions)
      .where(eq(revisions.id, from.base))
      .get()!
    // A letter more of a word: undo goes back to before the word. What the revision in between held stays in the book beside it.
    const parentId =
      joinsTyping(edit) && present.label === labelOf(edit) && !newestChild(tx, from.base)
        ? present.parentId
        : from.base
    const last = tx
      .select({ sequence: revisions.sequence })
      .from(revisions)
      .where(eq(revisions.tuneId, tune))
      .orderBy(desc(revisions.sequence))
      .limit(1)
      .get()!
    const head = newId()
    tx.insert(revisions)
      .values({
        id: head,
        tuneId: tune,
        parentId,
        sequence: last.sequence + 1,
        label: labelOf(edit),
        snapshot: document,
        version: DOCUMENT_VERSION,
        createdAt: now,
      })
      .run()
    tx.update(tunes).set({ head, touchedAt: now }).where(eq(tunes.id, tune)).run()
    return undefined
  })
}

/** Goes back to the parent of the present revision, or forward to its newest child. Where there is none, nothing changes. */
export function stepHistory(
  db: Db,
  tune: string,
  of: WriteOf | string,
  direction: 'undo' | 'redo',
  now = Date.now(),
): WriteOutcome {
  const from = typeof of === 'string' ? { base: of } : of
  return write(db, tune, from, now, (tx) => {
    const present = tx.select().from(revisions).where(eq(revisions.id, from.base)).get()!
    const goal =
      direction === 'redo'
        ? newestChild(tx, from.base)
        : present.parentId
          ? tx.select().from(revisions).where(eq(revisions.id, present.parentId)).get()
          : undefined
    if (!goal) return undefined
    writeRows(tx, tune, openDocument(goal.snapshot, goal.version).document)
    tx.update(tunes).set({ head: goal.id, touchedAt: now }).where(eq(tunes.id, tune)).run()
    return undefined
  })
}

export interface SongbookEntry {
  id: string
  title: string
  summary: TuneSummary
  touchedAt: number
}

/** What the songbook says of a chart. */
export function summaryOf(document: TuneDocument): TuneSummary {
  const chart = parseChart(document.text)
  const key = chart.key ?? (chart.bars.length > 0 ? homeKey(chart) : null)
  return {
    key: key && keyName(key),
    meter: `${chart.meter.beats}/${chart.meter.unit}`,
    bars: chart.bars.length,
    far: howFarIs(document, chart.bars.length),
  }
}

/** The last thing the player did; grips that a search found by itself are nobody's work. */
function howFarIs(
  { colour, choices, style, leading, line, fixed, conditions, melody, rhythm }: TuneDocument,
  bars: number,
): HowFarATune {
  if (bars === 0) return 'empty'
  if (rhythm.figure !== null || Object.keys(rhythm.byHand).length > 0) return 'with rhythm'
  if (melody.length > 0) return 'with melody'
  if (
    style !== 'smooth' ||
    line !== 0 ||
    conditions.length > 0 ||
    Object.keys(fixed).length > 0 ||
    JSON.stringify(leading) !== JSON.stringify(PLAIN_LEADING)
  )
    return 'led'
  return colour > 0 || Object.keys(choices).length > 0 ? 'coloured' : 'typed'
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
    sort = 'touched',
  }: { words?: readonly string[]; most?: number; sort?: SongbookSort } = {},
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
    .all()
  return {
    entries: rows.map((row) => ({ ...row, summary: row.summary ?? NO_SUMMARY })),
    found: words.length > 0 ? counted(where) : total,
    total,
  }
}

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

/** A copy with everything made on the tune; its history begins anew. */
export function duplicateTune(db: Db, id: string): string | null {
  const source = readTune(db, id)
  return source && createTune(db, asCopy(source.document))
}

const asCopy = (document: TuneDocument): TuneDocument => ({
  ...document,
  title: `${document.title} (copy)`.slice(0, 120),
})

export type CopyOutcome =
  { kind: 'copied'; id: string } | { kind: 'refused'; message: string } | { kind: 'missing' }

/** A tune of its own from what a tab made on a revision, whatever became of the tune since. Asked again with the same id it is the same copy. */
export function copyTune(
  db: Db,
  tune: string,
  { id, base }: WriteOf,
  edits: readonly TuneEdit[],
  now = Date.now(),
): CopyOutcome {
  const before =
    id === undefined
      ? undefined
      : db
          .select()
          .from(writes)
          .where(and(eq(writes.id, id), eq(writes.tuneId, tune)))
          .get()
  if (before) return { kind: 'copied', id: before.made }
  const from = db
    .select()
    .from(revisions)
    .where(and(eq(revisions.id, base), eq(revisions.tuneId, tune)))
    .get()
  if (!from) return { kind: 'missing' }
  let { document } = openDocument(from.snapshot, from.version)
  for (const edit of edits) {
    const tried = tryEdit(document, edit)
    if (!tried.ok) return { kind: 'refused', message: tried.message }
    document = tried.document
  }
  const copy = createTune(db, asCopy(document), now)
  if (id !== undefined) db.insert(writes).values({ id, tuneId: tune, made: copy, at: now }).run()
  return { kind: 'copied', id: copy }
}

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

export { newDocument }
