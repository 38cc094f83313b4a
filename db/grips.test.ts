import { firstOf } from '../core/lists'
import { chord } from '../core/chord/parseChord'
import { DEFAULT_PLAYER } from '../core/player/playerSettings'
import { wholeNeck } from '../core/player/playerLimits'
import { voicingOf } from '../core/voicing/voicing'
import { openDatabase, type Db } from './connect'
import { demoGrips, seedDemoGrips } from './demoGrips'
import { keepGrip, letGripGo, listGrips, listTakenOut, putInBook, shapesInBook, takeGripBack } from './grips'
import { createTune, editTune, newDocument, readTune } from './tunes'

let db: Db
beforeEach(() => {
  db = openDatabase(':memory:')
})
afterEach(() => db.$client.close())

const SHELL = [3, null, 3, 4, null, null]

test('the demo book has at least 40 different grips, all held by a usual hand', () => {
  const grips = demoGrips()
  expect(grips.length).toBeGreaterThanOrEqual(40)
  expect(new Set(grips.map(({ frets, symbol }) => `${symbol} ${frets.join()}`)).size).toBe(grips.length)
  for (const { frets, symbol } of grips)
    expect(voicingOf(frets, chord(symbol), wholeNeck(DEFAULT_PLAYER))).not.toBeNull()
  expect(seedDemoGrips(db)).toBe(true)
  expect(seedDemoGrips(db)).toBe(false)
  expect(listGrips(db)).toHaveLength(grips.length)
})

test('kept once for a chord, with tags and a note; let go and taken back', () => {
  const id = keepGrip(db, { frets: SHELL, symbol: 'G7', tags: ['two and four'], note: '' })
  expect(keepGrip(db, { frets: SHELL, symbol: 'G7', tags: ['round'], note: 'ferry' })).toBe(id)
  keepGrip(db, { frets: SHELL, symbol: 'Bm7b5', tags: [], note: '' })
  expect(listGrips(db).find((one) => one.id === id)).toMatchObject({
    tags: ['round'],
    note: 'ferry',
    usedIn: [],
  })
  expect(letGripGo(db, id)).toBe(true)
  expect(letGripGo(db, id)).toBe(false)
  expect(listGrips(db)).toHaveLength(1)
  takeGripBack(db, id)
  expect(listGrips(db)).toHaveLength(2)
})

test('says which tunes use it now', () => {
  keepGrip(db, { frets: SHELL, symbol: 'G7', tags: [], note: '' })
  const tune = createTune(db, newDocument('Ferry', '| G7 |'))
  editTune(db, tune, readTune(db, tune)!.revision, { kind: 'fix', slot: '1:1', frets: SHELL })
  createTune(db, newDocument('Other', '| G7 |'))
  expect(firstOf(listGrips(db)).usedIn).toEqual([{ id: tune, title: 'Ferry' }])
})

test('put in from a tune, tags and note of a grip that is there, or was, stay as they are', () => {
  const id = keepGrip(db, { frets: SHELL, symbol: 'G7', tags: ['round'], note: 'ferry' })
  expect(putInBook(db, { frets: SHELL, symbol: 'G7' })).toBe('there')
  letGripGo(db, id)
  expect(listTakenOut(db)).toMatchObject([{ id, symbol: 'G7' }])
  expect(shapesInBook(db)).toEqual([])
  expect(putInBook(db, { frets: SHELL, symbol: 'G7' })).toBe('back')
  expect(listGrips(db)).toMatchObject([{ id, tags: ['round'], note: 'ferry' }])
  expect(putInBook(db, { frets: SHELL, symbol: 'Bm7b5', instrument: 'E2 A2 D3 G3 B3 E4 capo 0' })).toBe('new')
  expect(putInBook(db, { frets: SHELL, symbol: 'Bm7b5', instrument: 'D2 A2 D3 G3 B3 E4 capo 0' })).toBe('new')
  expect(shapesInBook(db)).toEqual(['G7 3 x 3 4 x x', 'Bm7b5 3 x 3 4 x x', 'Bm7b5 3 x 3 4 x x'])
})
