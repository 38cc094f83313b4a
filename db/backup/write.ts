import Database from 'better-sqlite3'
import { asc, eq } from 'drizzle-orm'
import { drizzle } from 'drizzle-orm/better-sqlite3'
import { createHash } from 'node:crypto'
import { Readable } from 'node:stream'
import type { Writable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { ZipFile } from 'yazl'
import type { TuneDocument } from '../../core/tune/document'
import { DOCUMENT_VERSION } from '../../core/tune/stored'
import type { Db } from '../connect'
import { statesOf } from '../history'
import * as schema from '../schema'
import { documentIn } from '../rows'
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

/** Writes a backup. What is changed meanwhile is not in it: it is the book at one moment. @returns what is in it */
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

async function written(db: Db, out: Writable, asked: BackupAsked): Promise<Manifest> {
  const { history, onDone, signal } = asked
  const zip = new ZipFile()
  const files: Manifest['files'] = {}
  // Made when its turn comes: no more than one file is in memory.
  const put = (name: string, parts: () => Iterable<string>) =>
    zip.addReadStreamLazy(name, { compress: true }, (done) =>
      done(null, Readable.from(measured(name, parts()))),
    )
  function* measured(name: string, parts: Iterable<string>): Generator<Buffer> {
    signal?.throwIfAborted()
    const hash = createHash('sha256')
    let bytes = 0
    for (const part of parts) {
      const buffer = Buffer.from(part)
      hash.update(buffer)
      bytes += buffer.length
      yield buffer
    }
    files[name] = { bytes, sha256: hash.digest('hex') }
  }
  const json = (name: string, content: () => unknown) => put(name, () => [JSON.stringify(content())])
  const ids = db
    .select({ id: tunes.id })
    .from(tunes)
    .orderBy(asc(tunes.createdAt), asc(tunes.id))
    .all()
    .map((row) => row.id)
    .filter((id) => !asked.tunes || asked.tunes.includes(id))
  ids.forEach((id, at) => {
    let text = ''
    json(tuneFile(id), () => {
      onDone?.(at, ids.length)
      const kept = tuneOf(db, id)
      text = kept.document.text
      return kept
    })
    // Its turn comes right after.
    put(tuneText(id), () => [text])
    if (history) put(tuneHistory(id), () => revisionsOf(db, id))
  })
  if (!asked.tunes) {
    json(GRIPS, () => db.select().from(grips).all())
    json(PLAYER, () => ({
      settings: Object.fromEntries(
        db
          .select()
          .from(settings)
          .all()
          .map(({ name, value }) => [name, value]),
      ),
      likings: db.select().from(likings).all(),
    }))
    json(SETS, () => setsOf(db))
    put(PASSES, () => passesOf(db))
  }
  const kept: Manifest = {
    format: BACKUP_FORMAT,
    version: BACKUP_VERSION,
    made: new Date().toISOString(),
    history,
    tunes: ids,
    files,
  }
  // The last: it tells what the others came to.
  zip.addReadStreamLazy(MANIFEST, { compress: true }, (done) =>
    done(null, Readable.from([Buffer.from(JSON.stringify(kept))])),
  )
  zip.end()
  await pipeline(zip.outputStream, out, ...(signal ? [{ signal }] : []))
  onDone?.(ids.length, ids.length)
  return kept
}

function tuneOf(db: Db, id: string): TuneKept & { document: TuneDocument } {
  const row = db.select().from(tunes).where(eq(tunes.id, id)).get()!
  const { title, createdAt, touchedAt, deletedAt, head } = row
  return {
    id,
    title,
    createdAt,
    touchedAt,
    deletedAt,
    head,
    version: DOCUMENT_VERSION,
    document: documentIn(db, row).document,
    layouts: db
      .select()
      .from(layouts)
      .where(eq(layouts.tuneId, id))
      .all()
      .map(({ tuneId: _, ...one }) => one),
    goals: db
      .select()
      .from(goals)
      .where(eq(goals.tuneId, id))
      .all()
      .map(({ tuneId: _, ...one }) => one),
  }
}

function* revisionsOf(db: Db, id: string): Generator<string> {
  for (const state of statesOf(db, id)) {
    const kept: RevisionKept = state
    yield `${JSON.stringify(kept)}\n`
  }
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
