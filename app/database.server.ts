import { data } from 'react-router'
import { packHistory } from '../db/history'
import { BookFault, bookFile, closeDatabase, faultInWords, openDatabase, type Db } from '../db/connect'
import { seedDemoBook } from '../db/seed'
import { serveAlone, type Serving } from '../db/bookLock'
import { fillSummaries } from '../db/songbook'

/**
 * The one database of this process; `HERON_DB` names another file. Tried anew at each request while
 * it cannot be opened.
 */
let opened: Db | undefined
/** Keeps other servers off the book while it is open. */
let serving: Serving | undefined

/** @throws a 503 answer with what is wrong, where the book cannot be opened */
export function database(): Db {
  if (opened) return opened
  try {
    return openBook()
  } catch (error) {
    throw data(error instanceof BookFault ? error.message : `The book cannot be opened: ${String(error)}`, {
      status: 503,
      statusText: 'The book cannot be opened',
    })
  }
}

/** @throws {BookFault} with what is wrong, in words */
export function openBook(): Db {
  if (opened) return opened
  const alone = serveAlone(bookFile())
  let db: Db | undefined
  try {
    db = openDatabase(bookFile())
    seedDemoBook(db)
    fillSummaries(db)
    packHistory(db, tellPacking)
  } catch (error) {
    db?.$client.close()
    alone.end()
    if (error instanceof BookFault) throw error
    throw new BookFault(
      faultInWords(error, bookFile()) ??
        `The book in ${bookFile()} cannot be read: ${error instanceof Error ? error.message : String(error)}`,
      { cause: error },
    )
  }
  opened = db
  serving = alone
  return db
}

/** Says where this server is reached, for whoever starts a second one on the book. */
export const servedAt = (address: string): void => serving?.at(address)

/** A long history of an earlier version takes some seconds, once. */
function tellPacking(done: number, of: number): void {
  if (of > QUICKLY_PACKED) process.stderr.write(`Packing the history of the book: ${done} of ${of} states.\n`)
}
const QUICKLY_PACKED = 400

export function closeBook(): void {
  if (opened) closeDatabase(opened)
  serving?.end()
  opened = serving = undefined
}

/**
 * Does something with the book; where the disk or the file does not let it, a 503 answer says so
 * instead of an exception.
 */
export function withBook<T>(act: (db: Db) => T): T | ReturnType<typeof data<{ message: string }>> {
  const db = database()
  try {
    return act(db)
  } catch (error) {
    const message = faultInWords(error, bookFile())
    if (message === null) throw error
    return data({ message }, { status: 503 })
  }
}
