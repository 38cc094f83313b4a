import { and, desc, eq, lt, sql } from 'drizzle-orm'
import { MOST_TITLE, newDocument, type TuneDocument } from '../core/tune/document'
import { isSearchResult, labelOf, type TuneEdit } from '../core/tune/tuneEdit'
import { coalescesTyping } from '../core/tune/optimistic'
import { tryEdit } from '../core/tune/tryEdit'
import { openDocument } from '../core/tune/stored'
import type { Db, Tx } from './connect'
import { writeHead } from './head'
import { keepState, newestChild, replaceState, stateAt } from './history'
import { preparedOn } from './prepared'
import { revisions, tunes, writes } from './schema'

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

const newId = () => crypto.randomUUID()

/** What a tune is found by, and what its present state is called. */
const reads = preparedOn((db) => ({
  tune: db
    .select()
    .from(tunes)
    .where(eq(tunes.id, sql.placeholder('tune')))
    .prepare(),
  present: db
    .select({ label: revisions.label, parentId: revisions.parentId })
    .from(revisions)
    .where(eq(revisions.id, sql.placeholder('revision')))
    .prepare(),
}))

/** A tune as its head says, or null when there is no such tune (or it is deleted). */
export function readTune(db: Db | Tx, id: string): TuneState | null {
  const tune = reads(db).tune.get({ tune: id })
  return tune && tune.deletedAt === null ? stateOf(db, tune) : null
}

/** The same, of a deleted tune too. */
export function readTuneAnyhow(db: Db | Tx, id: string): TuneState | null {
  const tune = reads(db).tune.get({ tune: id })
  return tune ? stateOf(db, tune) : null
}

const stateOf = (db: Db | Tx, tune: typeof tunes.$inferSelect): TuneState => ({
  id: tune.id,
  revision: tune.head,
  ...openDocument(tune.document, tune.version),
  ...historyOf(db, tune.head),
})

function historyOf(db: Db | Tx, head: string): Pick<TuneState, 'undo' | 'redo'> {
  const present = reads(db).present.get({ revision: head })
  return { undo: present?.parentId ? present.label : null, redo: newestChild(db, head)?.label ?? null }
}

/** A new tune, with a history that begins here. */
export function createTune(db: Db, document: TuneDocument, now = Date.now(), tags: string[] = []): string {
  return db.transaction((tx) => insertTune(tx, document, now, tags), { behavior: 'immediate' })
}

function insertTune(tx: Tx, document: TuneDocument, now: number, tags: string[]): string {
  const [id, head] = [newId(), newId()]
  tx.insert(tunes).values({ id, title: document.title, createdAt: now, touchedAt: now, head, tags }).run()
  keepState(
    tx,
    { id: head, tuneId: id, parentId: null, sequence: 0, label: 'new tune', createdAt: now },
    document,
    null,
  )
  writeHead(tx, id, document)
  return id
}

/**
 * Ids of writes are remembered so long: a tab that was shut away for longer is told of a conflict
 * instead.
 */
const WRITES_KNOWN_MS = 90 * 86_400_000

/** An id is made for one write: a second one under it would not be known as such. */
const OF_ANOTHER_TUNE =
  'This change has the id of a change to another tune. Load the page anew and make it again.'

/** A write as a tab sends it: the revision it saw, and the id by which a repetition is known. */
export interface WriteOf {
  id?: string | undefined
  base: string
}

/**
 * Runs a change on a tune if it was made on the present revision; otherwise nothing is written and
 * the present state comes back as a conflict, so that no tab silently overwrites another. A write
 * that was done before is not done again.
 */
function write(
  db: Db,
  tune: string,
  { id, base }: WriteOf,
  now: number,
  change: (tx: Tx, state: TuneState) => string | undefined,
): WriteOutcome {
  // The book has one connection: what is read of it here is read in the transaction.
  return db.transaction(
    (tx): WriteOutcome => {
      const state = readTune(db, tune)
      if (!state) return { kind: 'missing' }
      const before = id === undefined ? undefined : tx.select().from(writes).where(eq(writes.id, id)).get()
      if (before && before.tuneId !== tune) return { kind: 'refused', message: OF_ANOTHER_TUNE }
      if (before) return { kind: 'repeated', state, made: before.made }
      if (state.revision !== base) return { kind: 'conflict', state }
      const message = change(tx, state)
      if (message !== undefined) return { kind: 'refused', message }
      const written = readTune(db, tune)!
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

/**
 * What is found by a tune was read off this; null where this version could not read all of it, so
 * that all is written anew.
 */
const readOff = ({ document, unread }: TuneState): TuneDocument | null =>
  unread.length === 0 ? document : null

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
    writeHead(tx, tune, document, readOff(state))
    if (isSearchResult(edit)) {
      replaceState(tx, from.base, document)
      return undefined
    }
    const present = tx
      .select({ label: revisions.label, parentId: revisions.parentId })
      .from(revisions)
      .where(eq(revisions.id, from.base))
      .get()!
    // A letter more of a word: undo goes back to before the word. What the revision in between held
    // stays in the book beside it.
    const parentId =
      coalescesTyping(edit) && present.label === labelOf(edit) && !newestChild(tx, from.base)
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
    keepState(
      tx,
      {
        id: head,
        tuneId: tune,
        parentId,
        sequence: last.sequence + 1,
        label: labelOf(edit),
        createdAt: now,
      },
      document,
      from.base,
    )
    tx.update(tunes).set({ head, touchedAt: now }).where(eq(tunes.id, tune)).run()
    return undefined
  })
}

/**
 * Goes back to the parent of the present revision, or forward to its newest child. Where there is
 * none, nothing changes.
 */
export function stepHistory(
  db: Db,
  tune: string,
  of: WriteOf | string,
  direction: 'undo' | 'redo',
  now = Date.now(),
): WriteOutcome {
  const from = typeof of === 'string' ? { base: of } : of
  return write(db, tune, from, now, (tx, state) => {
    const { parentId } = tx
      .select({ parentId: revisions.parentId })
      .from(revisions)
      .where(eq(revisions.id, from.base))
      .get()!
    const goal = direction === 'redo' ? newestChild(tx, from.base)?.id : parentId
    if (!goal) return undefined
    writeHead(tx, tune, stateAt(tx, goal)!.document, readOff(state))
    tx.update(tunes).set({ head: goal, touchedAt: now }).where(eq(tunes.id, tune)).run()
    return undefined
  })
}

/**
 * What is copied: the tune as it stands, or what a tab made on a revision of it, whatever became of
 * the tune since.
 */
export interface CopyOf {
  /** Asked again with the same id it is the same copy. */
  id?: string | undefined
  /** The revision it was made on; missing for the present one. */
  base?: string
  edits?: readonly TuneEdit[]
}

export type CopyOutcome =
  { kind: 'copied'; id: string } | { kind: 'refused'; message: string } | { kind: 'missing' }

/** A tune of its own with everything made on another; its history begins anew. */
export function copyTune(
  db: Db,
  tune: string,
  { id, base, edits = [] }: CopyOf = {},
  now = Date.now(),
): CopyOutcome {
  return db.transaction(
    (tx): CopyOutcome => {
      const before = id === undefined ? undefined : tx.select().from(writes).where(eq(writes.id, id)).get()
      if (before && before.tuneId !== tune) return { kind: 'refused', message: OF_ANOTHER_TUNE }
      if (before) return { kind: 'copied', id: before.made }
      const from = base === undefined ? readTune(tx, tune)?.document : stateOfTune(tx, tune, base)
      if (!from) return { kind: 'missing' }
      let document = from
      for (const edit of edits) {
        const tried = tryEdit(document, edit)
        if (!tried.ok) return { kind: 'refused', message: tried.message }
        document = tried.document
      }
      const { tags } = reads(tx).tune.get({ tune })!
      const copy = insertTune(tx, asCopy(document), now, tags)
      if (id !== undefined) tx.insert(writes).values({ id, tuneId: tune, made: copy, at: now }).run()
      return { kind: 'copied', id: copy }
    },
    { behavior: 'immediate' },
  )
}

const asCopy = (document: TuneDocument): TuneDocument => ({
  ...document,
  title: `${document.title} (copy)`.slice(0, MOST_TITLE),
})

/** A state by its id, where it is one of the tune. */
function stateOfTune(tx: Tx, tune: string, revision: string): TuneDocument | undefined {
  const known = tx
    .select({ id: revisions.id })
    .from(revisions)
    .where(and(eq(revisions.id, revision), eq(revisions.tuneId, tune)))
    .get()
  return known && stateAt(tx, revision)?.document
}

export { newDocument }
