import { firstOf } from '../core/lists'
import Database from 'better-sqlite3'
import {
  chmodSync,
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
import { BookFault, closeDatabase, copyName, faultInWords, openDatabase, type Db } from './connect'
import { keepGrip, listGrips } from './grips'
import { packHistory, stateAt } from './history'
import { tunes } from './schema'
import { readLiking } from './player'
import { seedDemoBook } from './seed'
import { createTune, editTune, newDocument, readTune, readTuneAnyhow, stepHistory } from './tunes'
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

/**
 * Books as earlier versions wrote them, by the number of migrations that had made them: with every
 * state whole, and with states packed.
 */
const EARLIER = [14, 17] as const
/** Lays such a book down as the file. */
function anEarlierBook(form: (typeof EARLIER)[number]): void {
  const old = new Database(file)
  old.exec(readFileSync(`db/earlier/book${form}.sql`, 'utf8'))
  old.close()
}
const idTitled = (db: Db, title: string) =>
  db.$client.prepare('SELECT id FROM tunes WHERE title = ?').pluck().get(title) as string

describe('what an earlier version wrote', () => {
  test.each(EARLIER)(
    'a book of form %i opens with every tune at its head, undo goes to the beginning, and a copy as it was stands beside it',
    (form) => {
      anEarlierBook(form)
      const old = new Database(file)
      old.exec("INSERT INTO likings VALUES ('b2', 3, 1), ('c4', 1, 2)")
      old.close()
      const db = openDatabase(file)
      expect(readLiking(db)).toEqual({ 'shared-tones': 3, 'passing-diminished': 1 })
      expect(packHistory(db)).toBe(form === 14 ? 18 : 0)
      const all = db.select().from(tunes).all()
      expect(all.map(({ title }) => title).sort()).toEqual(['Gone', 'Odd', 'Tin Roof Lullaby'])
      // What tables said of a tune is what the state says that it stood at.
      for (const { id, head } of all)
        expect(readTuneAnyhow(db, id)).toMatchObject({ ...stateAt(db, head), unread: [] })
      const id = idTitled(db, 'Tin Roof Lullaby')
      const { document } = readTune(db, id)!
      expect(document).toMatchObject({
        chart: 'Later',
        at: 1,
        tempo: 88,
        text: 'key: G\n| G | C | D | G |',
        others: [
          {
            name: 'Plain',
            style: 'contrary',
            lyrics: [{ bar: 1, beat: 1, text: "Rain's “song”" }],
            choices: {
              '2:1': { rule: 'augmented-dominant', by: 'tune' },
              '4:1':
                form === 14
                  ? { rule: 'shared-tones' }
                  : { rule: 'shared-tones', why: 'has the third and seventh of D7' },
            },
            versions: [{ name: 'First', at: 7, style: 'smooth' }],
          },
        ],
        versions: [{ name: 'First' }, { name: 'Second', at: 9 }],
      })
      const shape = [3, null, 4, 4, 3, null]
      keepGrip(db, { frets: shape, symbol: 'Gmaj7', tags: [], note: '' })
      expect(firstOf(listGrips(db)).usedIn).toEqual([{ id, title: 'Tin Roof Lullaby' }])
      expect(listTunes(db, { words: ['d | g'] }).entries.map((one) => one.id)).toEqual([id])
      let steps = 0
      for (; readTune(db, id)!.undo !== null; steps += 1)
        stepHistory(db, id, readTune(db, id)!.revision, 'undo')
      expect(steps).toBeGreaterThan(12)
      expect(readTune(db, id)!.document).toEqual(
        newDocument('Tin Roof Lullaby', 'key: G\n[A]\n| Gmaj7 | Em7 | Am7 | D7 |'),
      )
      expect(listTunes(db, { words: ['Gmaj7'] }).found).toBe(1)
      expect(firstOf(listGrips(db)).usedIn).toEqual([])
      closeDatabase(db)
      const copy = new Database(copyName(file, form), { readonly: true })
      expect(copy.prepare('SELECT count(*) FROM arrangements').pluck().get()).toBe(7)
      copy.close()
      // Opened again nothing is migrated, and nothing is copied.
      closeDatabase(openDatabase(file))
      expect(readdirSync(folder).filter((name) => name.includes('before'))).toHaveLength(1)
    },
  )
  test('a book without summaries gets them once, and the songbook lists without reading charts', () => {
    const db = openDatabase(file)
    createTune(db, newDocument('Old', 'key: Bb\nmeter: 3/4\n| Bb | F7 |'))
    db.$client.exec('UPDATE tunes SET summary = NULL')
    expect(firstOf(listTunes(db).entries).summary).toEqual({ key: null, meter: '4/4', bars: 0 })
    fillSummaries(db)
    expect(firstOf(listTunes(db).entries).summary).toMatchObject({
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
    const choice = { chords: [{ symbol: 'Am7', beats: 4 }], span: 1, rule: 'vi-for-i', at: 0 }
    for (const slot of ['1:1', '2:1'])
      editTune(db, id, readTune(db, id)!.revision, { kind: 'choose', slot, choice })
    db.$client
      .prepare(`UPDATE tunes SET document = json_set(document, '$.choices."1:1".chords[0].symbol', 'Qx13')`)
      .run()
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
