import { and, desc, eq, inArray, isNotNull, isNull } from 'drizzle-orm'
import { applyEdit, chartsOf, isFound, labelOf, newDocument, tuneDocument, type TuneDocument, type TuneEdit, type VersionKept } from '../app/features/tune/document'
import type { Db } from './connect'
import { arrangements, charts, choices, revisions, tunes, voicings } from './schema'

/** A tune as it stands, with what undo and redo would do. */
export interface TuneState {
  id: string
  /** Id of the present revision; every write says which one it was made on. */
  revision: string
  document: TuneDocument
  undo: string | null
  redo: string | null
}

export type WriteOutcome = { kind: 'written'; state: TuneState } | { kind: 'conflict'; state: TuneState } | { kind: 'missing' }

type Tx = Parameters<Parameters<Db['transaction']>[0]>[0]
const newId = () => crypto.randomUUID()

/** The rows of a tune put together, or null when there is no such tune (or it is deleted). */
export function readTune(db: Db | Tx, id: string): TuneState | null {
  const tune = db.select().from(tunes).where(and(eq(tunes.id, id), isNull(tunes.deletedAt))).get()
  if (!tune) return null
  const rows = db.select().from(charts).innerJoin(arrangements, and(eq(arrangements.chartId, charts.id), isNull(arrangements.version))).where(eq(charts.tuneId, id)).orderBy(charts.place).all()
  const all = rows.map(({ charts: chart, arrangements: made }) => ({ chart, tempo: made.tempo, content: contentOf(db, chart, made) }))
  const at = Math.max(0, all.findIndex((one) => one.chart.shown))
  const { name, ...shown } = all[at]!.content
  const document = tuneDocument.parse({
    title: tune.title, tempo: all[at]!.tempo, ...shown, chart: name, at, others: all.filter((_, index) => index !== at).map((one) => one.content),
  })
  return { id, revision: tune.head, document, ...historyOf(db, tune.head) }
}

/** One chart with what was made of it and the versions kept. */
function contentOf(db: Db | Tx, chart: typeof charts.$inferSelect, made: typeof arrangements.$inferSelect) {
  const kept = db.select().from(arrangements).where(and(eq(arrangements.chartId, chart.id), isNotNull(arrangements.version))).orderBy(arrangements.version).all()
  return { name: chart.name, text: chart.text, melody: chart.melody, phrases: chart.phrases, ...madeOf(db, made), versions: kept.map((one) => ({ name: one.name, at: one.keptAt, ...madeOf(db, one) })) }
}

function madeOf(db: Db | Tx, { id, colour, bass, style, line, conditions, leading, chordMelody }: typeof arrangements.$inferSelect) {
  const chosen = db.select().from(choices).where(eq(choices.arrangementId, id)).all()
  const held = db.select().from(voicings).where(eq(voicings.arrangementId, id)).all()
  const fretsBySlot = (rows: typeof held) => Object.fromEntries(rows.map((row) => [row.slot, row.frets]))
  return {
    colour, bass, style, line, conditions, leading, chordMelody,
    choices: Object.fromEntries(chosen.map(({ slot, chords, span, rule, madeAt, by }) => [slot, { chords, span, rule, at: madeAt, ...(by ? { by } : {}) }])),
    fixed: fretsBySlot(held.filter((row) => row.fixed)),
    grips: fretsBySlot(held),
  }
}

function historyOf(db: Db | Tx, head: string): Pick<TuneState, 'undo' | 'redo'> {
  const present = db.select({ label: revisions.label, parentId: revisions.parentId }).from(revisions).where(eq(revisions.id, head)).get()
  return { undo: present?.parentId ? present.label : null, redo: newestChild(db, head)?.label ?? null }
}

const newestChild = (db: Db | Tx, parent: string) =>
  db.select().from(revisions).where(eq(revisions.parentId, parent)).orderBy(desc(revisions.sequence)).limit(1).get()

export function createTune(db: Db, document: TuneDocument, now = Date.now()): string {
  const id = newId()
  db.transaction((tx) => {
    const head = newId()
    tx.insert(tunes).values({ id, title: document.title, createdAt: now, touchedAt: now, head }).run()
    tx.insert(revisions).values({ id: head, tuneId: id, parentId: null, sequence: 0, label: 'new tune', snapshot: document, createdAt: now }).run()
    writeRows(tx, id, document)
  }, { behavior: 'immediate' })
  return id
}

/** Makes the rows of a tune agree with a document. */
function writeRows(tx: Tx, id: string, document: TuneDocument): void {
  tx.update(tunes).set({ title: document.title }).where(eq(tunes.id, id)).run()
  // What hangs on a chart goes with it.
  tx.delete(charts).where(eq(charts.tuneId, id)).run()
  chartsOf(document).forEach(({ name, text, melody, phrases, versions, ...made }, place) => {
    const chartId = newId()
    tx.insert(charts).values({ id: chartId, tuneId: id, name, text, melody, phrases, place, shown: place === document.at }).run()
    writeMade(tx, { tuneId: id, chartId, name: 'New line', version: null, keptAt: 0, tempo: document.tempo }, made)
    versions.forEach(({ name: kept, at, ...one }, version) => writeMade(tx, { tuneId: id, chartId, name: kept, version, keptAt: at, tempo: document.tempo }, one))
  })
}

type Arrangement = typeof arrangements.$inferInsert

/** One arrangement with its choices and grips. */
function writeMade(tx: Tx, where: Pick<Arrangement, 'tuneId' | 'chartId' | 'name' | 'version' | 'keptAt' | 'tempo'>, made: Omit<VersionKept, 'name' | 'at'>): void {
  const arrangementId = newId()
  const { colour, bass, style, line, conditions, leading, chordMelody } = made
  tx.insert(arrangements).values({ id: arrangementId, ...where, colour, bass, style, line, conditions, leading, chordMelody }).run()
  const chosen = Object.entries(made.choices).map(([slot, { chords, span, rule, at, by }]) => ({ arrangementId, slot, chords, span, rule, madeAt: at, by: by ?? null }))
  if (chosen.length > 0) tx.insert(choices).values(chosen).run()
  const held = Object.entries({ ...made.grips, ...made.fixed }).map(([slot, frets]) => ({ arrangementId, slot, frets, fixed: slot in made.fixed }))
  if (held.length > 0) tx.insert(voicings).values(held).run()
}

/**
 * Runs a change on a tune if it was made on the present revision; otherwise nothing is written and the present state
 * comes back as a conflict, so that no tab silently overwrites another.
 */
function write(db: Db, id: string, base: string, change: (tx: Tx, state: TuneState) => void): WriteOutcome {
  return db.transaction((tx): WriteOutcome => {
    const state = readTune(tx, id)
    if (!state) return { kind: 'missing' }
    if (state.revision !== base) return { kind: 'conflict', state }
    change(tx, state)
    return { kind: 'written', state: readTune(tx, id)! }
  }, { behavior: 'immediate' })
}

export function editTune(db: Db, id: string, base: string, edit: TuneEdit, now = Date.now()): WriteOutcome {
  return write(db, id, base, (tx, state) => {
    const document = applyEdit(state.document, edit)
    writeRows(tx, id, document)
    if (isFound(edit)) {
      tx.update(revisions).set({ snapshot: document }).where(eq(revisions.id, base)).run()
      return
    }
    const last = tx.select({ sequence: revisions.sequence }).from(revisions).where(eq(revisions.tuneId, id)).orderBy(desc(revisions.sequence)).limit(1).get()!
    const head = newId()
    tx.insert(revisions).values({ id: head, tuneId: id, parentId: base, sequence: last.sequence + 1, label: labelOf(edit), snapshot: document, createdAt: now }).run()
    tx.update(tunes).set({ head, touchedAt: now }).where(eq(tunes.id, id)).run()
  })
}

/** Goes back to the parent of the present revision, or forward to its newest child. Where there is none, nothing changes. */
export function stepHistory(db: Db, id: string, base: string, direction: 'undo' | 'redo', now = Date.now()): WriteOutcome {
  return write(db, id, base, (tx) => {
    const present = tx.select().from(revisions).where(eq(revisions.id, base)).get()!
    const goal = direction === 'redo'
      ? newestChild(tx, base)
      : present.parentId ? tx.select().from(revisions).where(eq(revisions.id, present.parentId)).get() : undefined
    if (!goal) return
    writeRows(tx, id, tuneDocument.parse(goal.snapshot))
    tx.update(tunes).set({ head: goal.id, touchedAt: now }).where(eq(tunes.id, id)).run()
  })
}

export interface SongbookEntry {
  id: string
  title: string
  text: string
  touchedAt: number
}

/** All tunes, last touched first; the songbook itself searches by title, key and chords. */
export const listTunes = (db: Db): SongbookEntry[] =>
  db.select({ id: tunes.id, title: tunes.title, text: charts.text, touchedAt: tunes.touchedAt })
    .from(tunes).innerJoin(charts, eq(charts.tuneId, tunes.id))
    .where(and(isNull(tunes.deletedAt), eq(charts.shown, true))).orderBy(desc(tunes.touchedAt), tunes.title).all()

/** A copy with everything made on the tune; its history begins anew. */
export function duplicateTune(db: Db, id: string, document?: TuneDocument): string | null {
  const source = readTune(db, id)
  if (!source) return null
  const from = document ?? source.document
  return createTune(db, { ...from, title: `${from.title} (copy)`.slice(0, 120) })
}

export const deleteTune = (db: Db, id: string, now = Date.now()): boolean =>
  db.update(tunes).set({ deletedAt: now }).where(and(eq(tunes.id, id), isNull(tunes.deletedAt))).run().changes > 0

export const restoreTunes = (db: Db, ids: string[]): number =>
  db.update(tunes).set({ deletedAt: null }).where(inArray(tunes.id, ids)).run().changes

export const hasAnyTune = (db: Db): boolean => db.select({ id: tunes.id }).from(tunes).limit(1).get() !== undefined

export { newDocument }
