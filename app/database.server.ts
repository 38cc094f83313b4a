import { openDatabase, type Db } from '../db/connect'
import { seedDemoBook } from '../db/seed'

/** The one database of this process; `HERON_DB` names another file. */
let opened: Db | undefined
export function database(): Db {
  if (!opened) {
    opened = openDatabase(process.env.HERON_DB ?? 'data/heron.sqlite')
    seedDemoBook(opened)
  }
  return opened
}
