import Database from 'better-sqlite3'
import {
  chmodSync,
  cpSync,
  readdirSync,
  copyFileSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
  existsSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { BookFault, closeDatabase, copyName, faultInWords, openDatabase } from './connect'
import { packHistory, statesOf } from './history'
import { seedDemoBook } from './seed'
import { createTune, editTune, newDocument, readTune, stepHistory } from './tunes'
import { fillSummaries, listTunes } from './songbook'

let folder: string
let file: string
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'heron-'))
  file = join(folder, 'book.sqlite')
})
afterEach(() => rmSync(folder, { recursive: true, force: true }))

function faultOf(open: () => unknown): string {
  try {
    open()
  } catch (error) {
    expect(error).toBeInstanceOf(BookFault)
    return (error as Error).message
  }
  throw new Error('it was opened')
}

/** A book with some work in it, closed in order. */
function aBook(): string {
  const db = openDatabase(file)
  const id = createTune(db, newDocument('Kept', '| C |'))
  for (let colour = 0; colour < 40; colour += 1)
    editTune(db, id, readTune(db, id)!.revision, { kind: 'colour', colour: (colour % 5) as 0 })
  closeDatabase(db)
  return id
}

test('an orderly end leaves everything in the one file: a copy of it alone has all', () => {
  const id = aBook()
  expect(existsSync(`${file}-wal`)).toBe(false)
  const copy = join(folder, 'copy.sqlite')
  copyFileSync(file, copy)
  const db = openDatabase(copy)
  expect(readTune(db, id)!.document.colour).toBe(4)
  expect(db.$client.prepare('SELECT count(*) AS n FROM revisions').get()).toEqual({ n: 41 })
  db.$client.close()
})

test('a file that is no database, one of another program, a damaged and a cut one are refused with what is wrong, and left as they are', () => {
  writeFileSync(file, 'This is a letter and not a database at all, whatever its name says.'.repeat(20))
  expect(faultOf(() => openDatabase(file))).toContain('is not a book of Yellow Heron')
  rmSync(file)
  const other = new Database(file)
  other.exec('CREATE TABLE recipes (name TEXT)')
  other.close()
  expect(faultOf(() => openDatabase(file))).toContain("another program's database")
  rmSync(file)
  aBook()
  truncateSync(file, Math.floor(statSync(file).size / 2))
  const before = readFileSync(file)
  expect(faultOf(() => openDatabase(file))).toContain('damaged or cut short')
  expect(readFileSync(file).equals(before)).toBe(true)
  expect(faultOf(() => openDatabase(join(file, 'inside.sqlite')))).toMatch(/cannot be opened or made/)
})

test('a book of a later version is refused and left as it is', () => {
  const id = aBook()
  const raw = new Database(file)
  raw.exec('ALTER TABLE tunes ADD COLUMN mood TEXT')
  raw.prepare('UPDATE tunes SET mood = ? WHERE id = ?').run('calm', id)
  raw
    .prepare('INSERT INTO __drizzle_migrations (hash, created_at) VALUES (?, ?)')
    .run('later', Date.now() + 1e12)
  raw.close()
  expect(faultOf(() => openDatabase(file))).toContain('later version')
  const after = new Database(file)
  expect(after.prepare('SELECT mood FROM tunes').get()).toEqual({ mood: 'calm' })
  after.close()
})

test('faults of the disk are said in words, however deep they lie', () => {
  const of = (code: string) =>
    faultInWords(new Error('outer', { cause: Object.assign(new Error('inner'), { code }) }))
  expect(of('SQLITE_FULL')).toContain('disk is full')
  expect(of('SQLITE_READONLY')).toContain('not written')
  expect(of('SQLITE_BUSY')).toContain('Another program')
  expect(of('SQLITE_CONSTRAINT')).toBeNull()
  // As root everything can be written: the words are then tried by their code alone.
  if (process.getuid?.() === 0) return
  aBook()
  chmodSync(file, 0o444)
  expect(faultOf(() => openDatabase(file))).toContain('not written')
})

/** The migrations without the last ones. */
function migrationsUpTo(count: number): string {
  const cut = join(folder, 'migrations')
  cpSync('db/migrations', cut, { recursive: true })
  const journal = join(cut, 'meta/_journal.json')
  const all = JSON.parse(readFileSync(journal, 'utf8')) as { entries: unknown[] }
  writeFileSync(journal, JSON.stringify({ ...all, entries: all.entries.slice(0, count) }))
  return cut
}
/** Those of before histories were packed. */
const UNPACKED = 14

describe('what an earlier version wrote', () => {
  test('a book with whole states of every edit opens, undo goes to the beginning, and a copy as it was stands beside it', () => {
    // The rows are those of a book of now, its states written as they were then.
    const now = openDatabase(':memory:')
    const id = createTune(now, newDocument('Of before', '| C | F |'))
    for (const colour of [1, 2, 3] as const)
      editTune(now, id, readTune(now, id)!.revision, { kind: 'colour', colour })
    const old = openDatabase(file, migrationsUpTo(UNPACKED)).$client
    const fill = (table: string, rows: readonly object[]) => {
      for (const row of rows) {
        // What a tune had then.
        const there = new Set(
          old.prepare('SELECT name FROM pragma_table_info(?)').pluck().all(table) as string[],
        )
        const columns = Object.keys(row).filter((name) => there.has(name))
        old
          .prepare(
            `INSERT INTO ${table} (${columns.join()}) VALUES (${columns.map((name) => `@${name}`).join()})`,
          )
          .run(row)
      }
    }
    for (const table of ['tunes', 'charts', 'arrangements'])
      fill(table, now.$client.prepare(`SELECT * FROM ${table}`).all() as object[])
    fill(
      'revisions',
      [...statesOf(now, id)].map(({ document, ...one }) => ({
        id: one.id,
        tune_id: id,
        parent_id: one.parentId,
        sequence: one.sequence,
        label: one.label,
        snapshot: JSON.stringify(document),
        version: one.version,
        created_at: one.createdAt,
      })),
    )
    old.close()

    const db = openDatabase(file)
    expect(packHistory(db)).toBe(4)
    expect(readTune(db, id)).toEqual(readTune(now, id))
    for (const colour of [2, 1, 0]) {
      stepHistory(db, id, readTune(db, id)!.revision, 'undo')
      expect(readTune(db, id)!.document.colour).toBe(colour)
    }
    closeDatabase(db)
    const copy = new Database(copyName(file, UNPACKED), { readonly: true })
    expect(copy.prepare('SELECT count(*) FROM revisions WHERE snapshot IS NOT NULL').pluck().get()).toBe(4)
    copy.close()
    // Opened again nothing is migrated, and nothing is copied.
    closeDatabase(openDatabase(file))
    expect(readdirSync(folder).filter((name) => name.includes('before'))).toHaveLength(1)
    now.$client.close()
  })
  test('a book without summaries gets them once, and the songbook lists without reading charts', () => {
    const db = openDatabase(file)
    createTune(db, newDocument('Old', 'key: Bb\nmeter: 3/4\n| Bb | F7 |'))
    db.$client.exec('UPDATE tunes SET summary = NULL')
    expect(listTunes(db).entries[0]!.summary).toEqual({ key: null, meter: '4/4', bars: 0 })
    fillSummaries(db)
    expect(listTunes(db).entries[0]!.summary).toMatchObject({
      key: 'Bb',
      meter: '3/4',
      bars: 2,
      far: 'typed',
      sought: { inKey: ' 0j 7j ' },
    })
    db.$client.close()
  })
  test('a tune with symbols this version does not know opens with all the rest, says what it left out, and undo has it still', () => {
    const db = openDatabase(file)
    const id = createTune(db, newDocument('Strange', '| C | F |'))
    const choice = { chords: [{ symbol: 'Am7', beats: 4 }], span: 1, rule: 'b2', at: 0 }
    for (const slot of ['1:1', '2:1'])
      editTune(db, id, readTune(db, id)!.revision, { kind: 'choose', slot, choice })
    db.$client
      .prepare("UPDATE choices SET chords = ? WHERE slot = '1:1'")
      .run(JSON.stringify([{ symbol: 'Qx13', beats: 4 }]))
    const opened = readTune(db, id)!
    expect(opened.document).toMatchObject({ title: 'Strange', text: '| C | F |', choices: { '2:1': choice } })
    expect(Object.keys(opened.document.choices)).toEqual(['2:1'])
    expect(opened.unread).toEqual([expect.stringMatching(/Qx13/)])
    editTune(db, id, opened.revision, { kind: 'colour', colour: 1 })
    stepHistory(db, id, readTune(db, id)!.revision, 'undo')
    expect(Object.keys(readTune(db, id)!.document.choices)).toEqual(['1:1', '2:1'])
    db.$client.close()
  })
  test('the demo book is listed as it is read', () => {
    const db = openDatabase(':memory:')
    seedDemoBook(db)
    const { entries, total } = listTunes(db, { words: ['G', '%'] })
    expect(entries.length).toBeGreaterThan(0)
    expect(entries.length).toBeLessThanOrEqual(total)
    expect(listTunes(db, { words: ['%_%'] }).found).toBe(0)
    db.$client.close()
  })
})
