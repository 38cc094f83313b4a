import Database from 'better-sqlite3'
import { drizzle, type BetterSQLite3Database } from 'drizzle-orm/better-sqlite3'
import { migrate } from 'drizzle-orm/better-sqlite3/migrator'
import { mkdirSync } from 'node:fs'
import { dirname, resolve } from 'node:path'
import * as schema from './schema'

export type Db = BetterSQLite3Database<typeof schema> & { $client: Database.Database }

/**
 * Opens (and makes, and migrates) a database file; `:memory:` for tests.
 * Write-ahead logging lets readers go on while one writer writes; every write is on disk before it is answered.
 */
export function openDatabase(file: string, migrationsFolder = resolve('db/migrations')): Db {
  if (file !== ':memory:') mkdirSync(dirname(resolve(file)), { recursive: true })
  const client = new Database(file)
  client.pragma('journal_mode = WAL')
  client.pragma('synchronous = FULL')
  client.pragma('foreign_keys = ON')
  client.pragma('busy_timeout = 5000')
  const db = drizzle({ client, schema }) as Db
  migrate(db, { migrationsFolder })
  return db
}
