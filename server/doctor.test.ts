import { theOne } from '../core/lists'
import Database from 'better-sqlite3'
import { mkdtempSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { closeDatabase, openDatabase } from '../db/connect'
import { createTune, newDocument } from '../db/tunes'
import { examine, examinedInWords } from './doctor'

let folder: string
let book: string
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'heron-'))
  book = join(folder, 'book.sqlite')
})
afterEach(() => rmSync(folder, { recursive: true, force: true }))

function aBook(): void {
  const db = openDatabase(book)
  for (let at = 0; at < 40; at += 1) createTune(db, newDocument(`Tune ${at}`, '| C | F |'))
  closeDatabase(db)
}
const examined = () => examine(book, 'db/migrations').filter(({ what }) => what !== 'Application')
const helpFor = (what: string) => examined().find((one) => one.what === what)?.help

test('a book that is well: nothing is wrong, and the file is as it was', () => {
  aBook()
  const before = readFileSync(book)
  const findings = examined()
  expect(findings.filter(({ help }) => help !== null)).toEqual([])
  expect(theOne(findings, ({ what }) => what === 'Holds').found).toBe('40 tunes, 40 steps of work')
  expect(examinedInWords(findings)).toContain('Nothing is wrong.')
  expect(readFileSync(book).equals(before)).toBe(true)
})

test("no book, one cut short, another program's, one of a later version: said with what to do, and left as they are", () => {
  expect(helpFor('Book')).toContain('./start')
  aBook()
  const whole = readFileSync(book)
  truncateSync(book, Math.floor(whole.length / 2))
  expect(helpFor('Book')).toMatch(/backup|damaged/)
  expect(examinedInWords(examined())).toContain('One thing is wrong.')
  rmSync(book)
  const other = new Database(book)
  other.exec('CREATE TABLE recipes (name TEXT)')
  other.close()
  expect(helpFor('Book')).toContain('HERON_DB')
  writeFileSync(book, whole)
  const later = new Database(book)
  later
    .prepare('INSERT INTO __drizzle_migrations (hash, created_at) VALUES (?, ?)')
    .run('later', Date.now() + 1e12)
  later.close()
  const before = readFileSync(book)
  expect(helpFor('Book')).toContain('Start that version')
  expect(readFileSync(book).equals(before)).toBe(true)
})

test('a copy that was broken off is told', () => {
  aBook()
  writeFileSync(`${book}.before-3.unfinished`, '')
  expect(helpFor('Copies')).toContain('broken off')
})
