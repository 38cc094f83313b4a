import Database from 'better-sqlite3'
import { asc, eq, sql } from 'drizzle-orm'
import { drizzle } from 'drizzle-orm/better-sqlite3'
import { createHash } from 'node:crypto'
import { Readable } from 'node:stream'
import type { Writable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { ZipFile } from 'yazl'
import type { Db } from '../connect'
import { statesOf } from '../history'
import * as schema from '../schema'
import { preparedOn } from '../prepared'
import {
  BACKUP_FORMAT,
  BACKUP_VERSION,
  GRIPS,
  MANIFEST,
  PASSES,
  PLAYER,
  SETS,
  tuneFile,
  tuneHistory,
  tuneText,
  type Manifest,
  type PassKept,
  type RevisionKept,
  type SetKept,
  type TuneKept,
} from '../../core/backup/format'

export interface BackupAsked {
  /** Every step of every tune, so that undo goes back to the beginning afterwards too. */
  history: boolean
  /** These tunes alone, without player, grips, sets and log: a file to send. */
  tunes?: readonly string[]
  onDone?: (done: number, of: number) => void
  signal?: AbortSignal
}

const { goals, grips, layouts, likings, passes, sets, setTunes, settings, tunes } = schema

/**
 * Writes a backup. What is changed meanwhile is not in it: it is the book at one moment. @returns
 * what is in it
 */
export async function writeBackup(db: Db, out: Writable, asked: BackupAsked): Promise<Manifest> {
  const { reader, end } = snapshotOf(db)
  try {
    return await written(reader, out, asked)
  } finally {
    end()
  }
}

/** The book as it is now, whatever is written to it while the backup is made. */
function snapshotOf(db: Db): { reader: Db; end: () => void } {
  const { name } = db.$client
  if (name === ':memory:' || name === '') return { reader: db, end: () => {} }
  const client = new Database(name, { readonly: true })
  client.exec('BEGIN')
  client.prepare('SELECT count(*) FROM tunes').get()
  return { reader: drizzle({ client, schema }) as Db, end: () => client.close() }
}

/**
 * A file of the backup of up to so many bytes is put in whole, which costs a fraction of a stream
 * of its own; a longer one as it is read.
 */
const WHOLE_BYTES = 1024 * 1024
/** So many files are put in before the first of them must be written: no more wait in memory. */
const AT_ONCE = 48

async function written(db: Db, out: Writable, asked: BackupAsked): Promise<Manifest> {
  const { history, onDone, signal } = asked
  const zip = new ZipFile()
  const sent = pipeline(zip.outputStream, out, ...(signal ? [{ signal }] : []))
  // Waited for below; until then a reader that went away is noticed when the next file has its
  // turn.
  sent.catch(() => {})
  const files: Manifest['files'] = {}
  let since = 0
  /** Puts a file in as a stream, and waits until everything before it is written. */
  const inTurn = (name: string, parts: () => Iterable<Buffer>): Promise<unknown> =>
    Promise.race([
      sent,
      new Promise<void>((goOn) =>
        zip.addReadStreamLazy(name, { compress: true }, (done) => {
          done(null, Readable.from(parts()))
          goOn()
        }),
      ),
    ])
  async function put(name: string, parts: Iterable<string>): Promise<void> {
    signal?.throwIfAborted()
    const hash = createHash('sha256')
    let bytes = 0
    const measured = (function* () {
      for (const part of parts) {
        const buffer = Buffer.from(part)
        hash.update(buffer)
        bytes += buffer.length
        yield buffer
      }
      files[name] = { bytes, sha256: hash.digest('hex') }
    })()
    const begun: Buffer[] = []
    let next = measured.next()
    for (; !next.done && bytes <= WHOLE_BYTES; next = measured.next()) begun.push(next.value)
    since += 1
    if (next.done && since < AT_ONCE) return zip.addBuffer(Buffer.concat(begun), name, { compress: true })
    since = 0
    await inTurn(name, function* () {
      yield* begun
      if (!next.done) yield next.value
      yield* measured
    })
  }
  const json = (name: string, content: unknown) => put(name, [JSON.stringify(content)])
  const ids = db
    .select({ id: tunes.id })
    .from(tunes)
    .orderBy(asc(tunes.createdAt), asc(tunes.id))
    .all()
    .map((row) => row.id)
    .filter((id) => !asked.tunes || asked.tunes.includes(id))
  for (const [at, id] of ids.entries()) {
    onDone?.(at, ids.length)
    if (history) await put(tuneHistory(id), revisionsOf(db, id))
    const kept = tuneOf(db, id)
    await json(tuneFile(id), kept)
    const { text } = kept.document
    await put(tuneText(id), [typeof text === 'string' ? text : ''])
  }
  if (!asked.tunes) {
    await json(GRIPS, db.select().from(grips).all())
    await json(PLAYER, {
      settings: Object.fromEntries(
        db
          .select()
          .from(settings)
          .all()
          .map(({ name, value }) => [name, value]),
      ),
      likings: db.select().from(likings).all(),
    })
    await json(SETS, setsOf(db))
    await put(PASSES, passesOf(db))
  }
  const kept: Manifest = {
    format: BACKUP_FORMAT,
    version: BACKUP_VERSION,
    made: new Date().toISOString(),
    history,
    tunes: ids,
    files,
  }
  // The last, when all others are written: it tells what they came to.
  await inTurn(MANIFEST, function* () {
    yield Buffer.from(JSON.stringify(kept))
  })
  zip.end()
  await sent
  onDone?.(ids.length, ids.length)
  return kept
}

/** What is asked of every tune. */
const reads = preparedOn((db) => {
  const tune = sql.placeholder('tune')
  return {
    tune: db.select().from(tunes).where(eq(tunes.id, tune)).prepare(),
    layouts: db.select().from(layouts).where(eq(layouts.tuneId, tune)).prepare(),
    goals: db.select().from(goals).where(eq(goals.tuneId, tune)).prepare(),
  }
})

/** A tune as its head says, in the form in which it was written. */
function tuneOf(db: Db, id: string): TuneKept {
  const asked = reads(db)
  const { summary: _, words: _words, document, ...row } = asked.tune.get({ tune: id })!
  return {
    ...row,
    document: document as TuneKept['document'],
    layouts: asked.layouts.all({ tune: id }).map(({ tuneId: _tune, ...one }) => one),
    goals: asked.goals.all({ tune: id }).map(({ tuneId: _tune, ...one }) => one),
  }
}

function* revisionsOf(db: Db, id: string): Generator<string> {
  for (const state of statesOf(db, id)) yield `${JSON.stringify(state satisfies RevisionKept)}\n`
}

const setsOf = (db: Db): SetKept[] =>
  db
    .select()
    .from(sets)
    .all()
    .map((set) => ({
      ...set,
      tunes: db
        .select()
        .from(setTunes)
        .where(eq(setTunes.setId, set.id))
        .orderBy(asc(setTunes.place))
        .all()
        .map(({ setId: _, ...one }) => one),
    }))

/** Passes in parts, so that a log of years is not read at once. */
const PASSES_AT_ONCE = 2_000
function* passesOf(db: Db): Generator<string> {
  for (let from = 0; ; from += PASSES_AT_ONCE) {
    const rows: PassKept[] = db
      .select()
      .from(passes)
      .orderBy(asc(passes.at), asc(passes.id))
      .limit(PASSES_AT_ONCE)
      .offset(from)
      .all()
    if (rows.length === 0) return
    yield rows.map((row) => `${JSON.stringify(row)}\n`).join('')
  }
}
