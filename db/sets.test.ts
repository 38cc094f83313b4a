import { itemAt } from '../core/lists'
import fc from 'fast-check'
import { newDocument } from '../core/tune/document'
import { sheetLayout, TEMPLATES, MOST_LAYOUTS } from '../core/sheet/sheetLayout'
import { openDatabase, type Db } from './connect'
import { keepLayout, layoutsOf, letLayoutGo, takeLayoutBack } from './layouts'
import {
  addToSet,
  changeInSet,
  createSet,
  deleteSet,
  listSets,
  moveInSet,
  MOST_IN_A_SET,
  putBackInSet,
  readSet,
  restoreSet,
  takeFromSet,
} from './sets'
import { createTune } from './tunes'
import { deleteTune, eraseDeleted } from './songbook'

let db: Db
beforeEach(() => {
  db = openDatabase(':memory:')
})
afterEach(() => db.$client.close())

const titles = (set: string) => readSet(db, set)!.tunes.map(({ title }) => title)
/** A set of tunes named by letters. */
function setOf(letters: string): string {
  const set = createSet(db, 'Evening')
  for (const letter of letters) addToSet(db, set, createTune(db, newDocument(letter)))
  return set
}

test('however tunes of a set are moved, taken out and put back, the order is that of a list', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.record({
          act: fc.constantFrom('move', 'out', 'back'),
          which: fc.nat({ max: 4 }),
          to: fc.nat({ max: 6 }),
        }),
        { maxLength: 12 },
      ),
      (acts) => {
        const set = setOf('ABCDE')
        const rows = readSet(db, set)!.tunes.map(({ id, title }) => ({ id, title }))
        let list = rows.map(({ title }) => title)
        const out = new Map<string, number>()
        for (const { act, which, to } of acts) {
          const { id, title } = itemAt(rows, which)
          if (act === 'move') {
            expect(moveInSet(db, set, id, to)).toBe(list.includes(title))
            if (!list.includes(title)) continue
            const others = list.filter((one) => one !== title)
            list = [...others.slice(0, to), title, ...others.slice(to)]
          } else if (act === 'out') {
            if (!list.includes(title)) continue
            out.set(title, list.indexOf(title))
            expect(takeFromSet(db, set, id)).toBe(true)
            list = list.filter((one) => one !== title)
          } else {
            expect(putBackInSet(db, set, id)).toBe(out.has(title))
            if (!out.has(title)) continue
            out.delete(title)
            // It is in the set again; where, is told below for the usual case.
            list = titles(set)
            expect(list).toContain(title)
          }
          expect(titles(set)).toEqual(list)
        }
      },
    ),
    { numRuns: 40 },
  )
})

test('a tune taken out comes back to its place', () => {
  const set = setOf('ABCD')
  const [, second] = readSet(db, set)!.tunes
  takeFromSet(db, set, second!.id)
  expect(titles(set)).toEqual(['A', 'C', 'D'])
  expect(putBackInSet(db, set, second!.id)).toBe(true)
  expect(titles(set)).toEqual(['A', 'B', 'C', 'D'])
  expect(putBackInSet(db, set, second!.id)).toBe(false)
})

test('a set says how each tune is played, and keeps the title of one that is gone', () => {
  const set = createSet(db, 'Evening')
  const tune = createTune(db, newDocument('Gone Soon'))
  addToSet(db, set, tune)
  const [row] = readSet(db, set)!.tunes
  expect(changeInSet(db, set, row!.id, { key: 'Eb', tempo: 90, note: 'slow' })).toBe(true)
  expect(readSet(db, set)!.tunes[0]).toMatchObject({
    key: 'Eb',
    tempo: 90,
    version: null,
    note: 'slow',
    deleted: false,
  })
  deleteTune(db, tune)
  expect(readSet(db, set)!.tunes[0]).toMatchObject({ title: 'Gone Soon', deleted: true, tuneId: tune })
  eraseDeleted(db, [tune])
  expect(readSet(db, set)!.tunes[0]).toMatchObject({ title: 'Gone Soon', deleted: true, tuneId: null })
})

test('deleting a set is undone, and what cannot be put in says why', () => {
  const set = setOf('AB')
  expect(deleteSet(db, set)).toBe(true)
  expect(readSet(db, set)).toBeNull()
  expect(addToSet(db, set, createTune(db, newDocument('C')))).toContain('not there')
  expect(restoreSet(db, set)).toBe(true)
  expect(listSets(db)).toMatchObject([{ name: 'Evening', tunes: 2 }])
  expect(addToSet(db, set, crypto.randomUUID())).toContain('not in the songbook')
  const tune = createTune(db, newDocument('Again'))
  for (let at = 2; at < MOST_IN_A_SET; at += 1) expect(addToSet(db, set, tune)).toBeNull()
  expect(addToSet(db, set, tune)).toContain(String(MOST_IN_A_SET))
})

test('layouts are kept with their tune by name, changed under the same name, let go and taken back', () => {
  const tune = createTune(db, newDocument('Tried'))
  const lead = TEMPLATES.lead.layout
  const id = keepLayout(db, tune, 'Mine', lead)!
  expect(layoutsOf(db, tune)).toEqual([{ id, name: 'Mine', layout: lead }])
  expect(keepLayout(db, tune, 'Mine', { ...lead, large: true })).toBe(id)
  expect(layoutsOf(db, tune)).toEqual([
    { id, name: 'Mine', layout: sheetLayout.parse({ ...lead, large: true }) },
  ])
  expect(letLayoutGo(db, createTune(db, newDocument('Another')), id)).toBe(false)
  expect(letLayoutGo(db, tune, id)).toBe(true)
  expect(layoutsOf(db, tune)).toEqual([])
  expect(takeLayoutBack(db, tune, id)).toBe(true)
  for (let at = 1; at < MOST_LAYOUTS; at += 1) expect(keepLayout(db, tune, `L${at}`, lead)).not.toBeNull()
  expect(keepLayout(db, tune, 'One more', lead)).toBeNull()
})
