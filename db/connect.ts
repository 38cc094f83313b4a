import Database from 'better-sqlite3'
import { drizzle, type BetterSQLite3Database } from 'drizzle-orm/better-sqlite3'
import { migrate } from 'drizzle-orm/better-sqlite3/migrator'
import { existsSync, mkdirSync, readFileSync, renameSync, rmSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import * as schema from './schema'

export type Db = BetterSQLite3Database<typeof schema> & { $client: Database.Database }
/** The book inside a transaction. */
export type Tx = Parameters<Parameters<Db['transaction']>[0]>[0]

/** The file of the book: HERON_DB, or the usual one. */
export const bookFile = (): string => process.env.HERON_DB ?? 'data/heron.sqlite'

/** The book cannot be opened or written: what is wrong and what helps, in a player's words. */
export class BookFault extends Error {
  override name = 'BookFault'
}

/**
 * Opens (and makes, and migrates) a database file; `:memory:` for tests. Write-ahead logging lets
 * readers go on while one writer writes; every write is on disk before it is answered.
 * @throws {BookFault} where the file is no database, is damaged, cannot be written, or was written
 *   by a later version
 */
export function openDatabase(file: string, migrationsFolder = resolve('db/migrations')): Db {
  let client: Database.Database | undefined
  try {
    if (file !== ':memory:') mkdirSync(dirname(resolve(file)), { recursive: true })
    client = new Database(file)
    client.pragma('busy_timeout = 5000')
    refuseDamaged(client, file)
    refuseLater(client, file, migrationsFolder)
    client.pragma('journal_mode = WAL')
    client.pragma('synchronous = FULL')
    client.pragma('foreign_keys = ON')
    const db = drizzle({ client, schema }) as Db
    if (file !== ':memory:') copyBeforeMigrating(client, file, migrationsFolder)
    migrate(db, { migrationsFolder })
    // A file that can only be read is found out now, and not by the first edit.
    client.exec(
      "BEGIN IMMEDIATE; UPDATE settings SET value = value WHERE name = ''; CREATE TABLE writable_once (it); DROP TABLE writable_once; COMMIT",
    )
    return db
  } catch (error) {
    client?.close()
    throw error instanceof BookFault
      ? error
      : new BookFault(
          faultInWords(error, file) ??
            `The book in ${file} cannot be opened: ${error instanceof Error ? error.message : String(error)}.`,
          { cause: error },
        )
  }
}

/** A second way into a book that is open already, which cannot change it. */
export const bookToRead = (file: string): Db =>
  drizzle({ client: new Database(file, { readonly: true, timeout: 5_000 }), schema }) as Db

/** Migrations in the folder, the first one first. */
const migrationsIn = (folder: string): { when: number; tag: string }[] =>
  (
    JSON.parse(readFileSync(join(folder, 'meta/_journal.json'), 'utf8')) as {
      entries: { when: number; tag: string }[]
    }
  ).entries

/** The last migration that a file has had; null for a new one. */
function lastMigrationOf(client: Database.Database): number | null {
  const table = client.prepare("SELECT name FROM sqlite_master WHERE name = '__drizzle_migrations'").get()
  if (!table) return null
  const latest = client.prepare('SELECT max(created_at) FROM __drizzle_migrations').pluck().get()
  return latest === null ? null : Number(latest)
}

/**
 * How many migrations a file has still to have; below 0 where it is of a later version, null where
 * it is no book.
 */
export function migrationsAhead(client: Database.Database, folder: string): number | null {
  const last = lastMigrationOf(client)
  if (last === null) return null
  const all = migrationsIn(folder)
  return last > Math.max(...all.map(({ when }) => when)) ? -1 : all.filter(({ when }) => when > last).length
}

/**
 * Before a book of an earlier version is changed, a copy of it as it is, beside it. One copy for
 * each version: nothing is written over.
 */
function copyBeforeMigrating(client: Database.Database, file: string, folder: string): void {
  const ahead = migrationsAhead(client, folder)
  if (ahead === null || ahead <= 0) return
  const copy = copyName(file, migrationsIn(folder).length - ahead)
  if (existsSync(copy)) return
  const unfinished = `${copy}.unfinished`
  rmSync(unfinished, { force: true })
  client.prepare('VACUUM INTO ?').run(unfinished)
  renameSync(unfinished, copy)
}

/** @param form how many migrations had made the book */
export const copyName = (file: string, form: number): string => `${file}.before-${form + 1}`

/** Puts everything into the one file and closes it, so that a copy of the file alone has it all. */
export function closeDatabase(db: Db): void {
  if (!db.$client.open) return
  db.$client.pragma('wal_checkpoint(TRUNCATE)')
  db.$client.close()
}

/** What SQLite says, in a player's words; null where it is no fault of the file. */
export function faultInWords(error: unknown, file = 'the book'): string | null {
  for (
    let one = error as { code?: unknown; cause?: unknown } | null | undefined;
    typeof one === 'object' && one !== null;
    one = one.cause as typeof one
  ) {
    const code = String(one.code ?? '')
    if (/^SQLITE_NOTADB/.test(code))
      return `${file} is not a book of Yellow Heron: it is no SQLite database. Name another file with HERON_DB, or move this one away and start again for a new book.`
    if (/^SQLITE_CORRUPT/.test(code)) return damaged(file)
    if (/^SQLITE_(READONLY|PERM)|^E(ACCES|PERM|ROFS)/.test(code))
      return `The book (${file}) can be read but not written: nothing made now would be kept. Give this user the right to write the file and its folder, then start again.`
    if (/^SQLITE_FULL|^ENOSPC/.test(code))
      return 'The disk is full: nothing more can be kept until there is room on it. What is not yet saved waits in your browser.'
    if (/^SQLITE_IOERR/.test(code))
      return `The disk with the book (${file}) cannot be read or written just now. What is not yet saved waits in your browser.`
    if (/^SQLITE_(BUSY|LOCKED)/.test(code))
      return 'Another program holds the book and lets nothing be written. What is not yet saved waits in your browser.'
    if (/^SQLITE_CANTOPEN|^E(NOTDIR|ISDIR|EXIST)/.test(code))
      return `${file} cannot be opened or made. Check that its folder exists and can be written, or name another file with HERON_DB.`
  }
  return null
}

const damaged = (file: string) =>
  `The book (${file}) is damaged or cut short, and is left as it is. Put a copy of the file in its place, or name another file with HERON_DB.`

function refuseDamaged(client: Database.Database, file: string): void {
  const found = client.pragma('quick_check(1)', { simple: true })
  if (found !== 'ok') throw new BookFault(damaged(file))
}

/**
 * The file knows which migrations made it: one that this version does not have is from a later
 * version, whose columns would be lost with the next edit.
 */
function refuseLater(client: Database.Database, file: string, folder: string): void {
  const made = client.prepare("SELECT name FROM sqlite_master WHERE name = '__drizzle_migrations'").get()
  if (!made) {
    const strange = client.prepare("SELECT name FROM sqlite_master WHERE type = 'table' LIMIT 1").get() as
      { name: string } | undefined
    if (strange)
      throw new BookFault(
        `${file} is another program's database (it has a table “${strange.name}”). Name another file with HERON_DB.`,
      )
    return
  }
  const ahead = migrationsAhead(client, folder)
  if (ahead !== null && ahead < 0)
    throw new BookFault(
      `The book (${file}) was written by a later version of Yellow Heron. This version would lose what it does not know, and leaves the file as it is: start the later version, or name another file with HERON_DB.`,
    )
}
