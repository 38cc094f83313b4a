import Database from 'better-sqlite3'
import { mkdirSync } from 'node:fs'
import { dirname, resolve } from 'node:path'
import { BookFault, faultInWords } from './connect'

/** What a server holds while it serves a book. */
export interface Serving {
  /** Says where it is reached, for a second one that asks. */
  at(address: string): void
  end(): void
}

/**
 * One server for each book: two would each know of the other's edits too late. What is held is a
 * lock on a small file beside the book; the operating system lets go of it when the process ends,
 * however it ends. Commands such as `./heron backup` go on beside it.
 * @param file the book
 * @throws {BookFault} where another server has it
 */
export function serveAlone(file: string): Serving {
  let beside: Database.Database | undefined
  try {
    // A book in memory is nobody else's.
    if (file !== IN_MEMORY) mkdirSync(dirname(resolve(file)), { recursive: true })
    beside = new Database(file === IN_MEMORY ? file : `${file}.server`, { timeout: WAIT_MS })
    beside.exec('BEGIN IMMEDIATE')
    beside.exec('CREATE TABLE IF NOT EXISTS served (address TEXT)')
    beside.exec('COMMIT')
    beside.exec('BEGIN IMMEDIATE')
  } catch (error) {
    const address = isHeld(error) ? addressIn(file) : null
    beside?.close()
    throw new BookFault(
      isHeld(error)
        ? `Another server already serves the book (${file})${address === null ? '' : `, at ${address}`}. Open that, or end it and start again; another book is named with HERON_DB.`
        : (faultInWords(error, file) ??
            `The book in ${file} cannot be kept for this server alone: ${error instanceof Error ? error.message : String(error)}.`),
      { cause: error },
    )
  }
  const lock = beside
  return {
    at(address) {
      // Written and held again at once: who comes between is refused by waiting for it in vain.
      lock.prepare('DELETE FROM served').run()
      lock.prepare('INSERT INTO served VALUES (?)').run(address)
      lock.exec('COMMIT')
      lock.exec('BEGIN IMMEDIATE')
    },
    end: () => lock.close(),
  }
}

const IN_MEMORY = ':memory:'

/** A server that is ending, or one that is killed and started again at once, is waited for. */
const WAIT_MS = 400

const isHeld = (error: unknown): boolean =>
  /^SQLITE_(BUSY|LOCKED)/.test(String((error as { code?: unknown } | null)?.code ?? ''))

/** Where the server that has the book is reached; null where it has not said yet. */
function addressIn(file: string): string | null {
  try {
    const beside = new Database(`${file}.server`, { readonly: true, timeout: WAIT_MS })
    try {
      return (beside.prepare('SELECT address FROM served').pluck().get() as string | undefined) ?? null
    } finally {
      beside.close()
    }
  } catch {
    return null
  }
}
