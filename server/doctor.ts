import { firstOf } from '../core/lists'
import Database from 'better-sqlite3'
import { accessSync, constants, existsSync, readdirSync, statfsSync, statSync } from 'node:fs'
import { basename, dirname, resolve } from 'node:path'
import { faultInWords, migrationsAhead } from '../db/connect'

/** What was looked at, what was found, and what to do where something is wrong. */
export interface BookFinding {
  what: string
  found: string
  /** Null where nothing is wrong. */
  help: string | null
}

/** Less room than this on the disk is said: a backup or the copy before a migration may not fit. */
const LITTLE_ROOM = 500e6
const OLDEST_NODE = [20, 19] as const

const megabytes = (bytes: number): string =>
  bytes < 1e9 ? `${(bytes / 1e6).toFixed(1)} MB` : `${(bytes / 1e9).toFixed(1)} GB`
const fine = (what: string, found: string): BookFinding => ({ what, found, help: null })
const wrong = (what: string, found: string, help: string): BookFinding => ({ what, found, help })

/**
 * Looks at the book and what it lies on, and changes nothing.
 * @param file the book
 * @param migrations folder of the migrations of this version
 */
export function examine(file: string, migrations: string): BookFinding[] {
  return [node(), built(dirname(dirname(resolve(migrations)))), ...bookAt(file, migrations), ...ground(file)]
}

function node(): BookFinding {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number)
  const isOld = major < OLDEST_NODE[0] || (major === OLDEST_NODE[0] && minor < OLDEST_NODE[1])
  const found = `Node ${process.versions.node}`
  return isOld ? wrong('Node', found, `Install Node ${OLDEST_NODE.join('.')} or newer.`) : fine('Node', found)
}

function built(home: string): BookFinding {
  return existsSync(resolve(home, 'build/serve.mjs'))
    ? fine('Application', 'built')
    : wrong('Application', 'not built', 'Run ./start once: it builds and serves.')
}

function bookAt(file: string, migrations: string): BookFinding[] {
  if (!existsSync(file))
    return [wrong('Book', `none at ${file}`, 'Run ./start: it makes one. Or name yours with HERON_DB.')]
  let db: Database.Database | undefined
  try {
    db = new Database(file, { readonly: true, fileMustExist: true })
    db.pragma('busy_timeout = 2000')
    const check = db.pragma('integrity_check(1)', { simple: true }) as string
    if (check !== 'ok')
      return [
        wrong(
          'Book',
          `${file} is damaged: ${firstOf(check.split('\n'))}`,
          'Leave it as it is. Put a backup in its place (./heron restore into a new book), or the copy that stands beside it.',
        ),
      ]
    const ahead = migrationsAhead(db, migrations)
    if (ahead === null)
      return [
        wrong(
          'Book',
          `${file} is no book of Yellow Heron`,
          'Name another file with HERON_DB, or move this one away.',
        ),
      ]
    if (ahead < 0)
      return [
        wrong(
          'Book',
          `${file} was written by a later version`,
          'Start that version. This one leaves the book as it is.',
        ),
      ]
    const count = (table: string) => db!.prepare(`SELECT count(*) FROM ${table}`).pluck().get() as number
    const size = statSync(file).size
    return [
      fine('Book', `${file}, ${megabytes(size)}, whole`),
      fine('Holds', `${count('tunes')} tunes, ${count('revisions')} steps of work`),
      ahead > 0
        ? fine(
            'Form',
            `of an earlier version: ./start brings it to this one, and keeps a copy of it as it is`,
          )
        : fine('Form', 'of this version'),
    ]
  } catch (error) {
    return [
      wrong(
        'Book',
        `${file} cannot be read`,
        faultInWords(error, file) ?? (error instanceof Error ? error.message : String(error)),
      ),
    ]
  } finally {
    db?.close()
  }
}

const mayWrite = (path: string): boolean => {
  try {
    accessSync(path, constants.W_OK)
    return true
  } catch {
    return false
  }
}

/** The folder, the disk, and the copies beside the book. */
function ground(file: string): BookFinding[] {
  const folder = dirname(resolve(file))
  if (!existsSync(folder)) return []
  const { bavail, bsize } = statfsSync(folder)
  const room = bavail * bsize
  const shut = [folder, ...[file, `${file}-wal`].filter((one) => existsSync(one))].filter(
    (one) => !mayWrite(one),
  )
  return [
    room < LITTLE_ROOM
      ? wrong('Disk', `${megabytes(room)} free`, 'Make room: a full disk takes nothing more.')
      : fine('Disk', `${megabytes(room)} free`),
    shut.length > 0
      ? wrong(
          'Rights',
          `${shut.join(', ')} cannot be written`,
          'Give this user the right to write the book and its folder: nothing made now would be kept.',
        )
      : fine('Rights', 'the book and its folder can be written'),
    copiesBeside(file, folder),
  ]
}

function copiesBeside(file: string, folder: string): BookFinding {
  const copies = readdirSync(folder).filter((name) => name.startsWith(`${basename(file)}.before-`))
  const unfinished = copies.filter((name) => name.endsWith('.unfinished'))
  if (copies.length === 0) return fine('Copies', 'none: one is made before a later version changes the book')
  if (unfinished.length > 0)
    return wrong('Copies', unfinished.join(', '), 'A copy was broken off. It is made anew at the next start.')
  return fine(
    'Copies',
    `${copies.join(', ')}: books as they were before a later version; keep or delete them`,
  )
}

/** For the console: one line each, and what to do below it. */
export function examinedInWords(findings: readonly BookFinding[]): string {
  const width = Math.max(...findings.map(({ what }) => what.length))
  const lines = findings.flatMap(({ what, found, help }) => [
    `${help === null ? 'ok   ' : 'WRONG'}  ${what.padEnd(width)}  ${found}`,
    ...(help === null ? [] : [`       ${' '.repeat(width)}  ${help}`]),
  ])
  const bad = findings.filter(({ help }) => help !== null).length
  const faults = bad === 1 ? 'One thing is wrong.' : `${bad} things are wrong.`
  const end = bad === 0 ? 'Nothing is wrong.' : faults
  return [...lines, end].join('\n')
}
