import { firstOf, theOne } from '../core/lists'
import { TEMPLATES } from '../core/sheet/sheetLayout'
import { keepLayout } from './layouts'
import { changePlayer, readPlayer } from './player'
import { everyPass, keepPasses, setGoal } from './practice'
import { openDatabase, type Db } from './connect'
import { demoBook } from './demo'
import { beginOwnBook, DEMO_TITLES, demoHere, isUntouched } from './demoHere'
import { letGripGo, listGrips } from './grips'
import { seedDemoBook } from './seed'
import { changeSet, listSets } from './sets'
import { listDeleted, listTunes } from './songbook'
import { createTune, editTune, newDocument, readTune } from './tunes'

const AT = Date.UTC(2026, 4, 1, 12)
let db: Db
beforeEach(() => {
  db = openDatabase(':memory:')
  seedDemoBook(db, AT)
})
afterEach(() => db.$client.close())
const titled = (title: string) => theOne(listTunes(db).entries, (one) => one.title === title)

test('the titles it is known by are those of the demo book', () =>
  expect(demoBook().map(({ document }) => document.title)).toEqual(DEMO_TITLES))

test('a book as it was made is the demo and nothing else; one letter of the player’s makes it theirs', () => {
  expect(isUntouched(db)).toBe(true)
  const all = everyPass(db).length
  expect(demoHere(db)).toMatchObject({ untouched: { length: 8 }, touched: [], passes: all })
  const own = createTune(db, newDocument('Mine'), AT + 1_000)
  expect(isUntouched(db)).toBe(false)
  expect(readTune(db, own)).not.toBeNull()
})

test('a setting, a goal, a layout or a grip let go is the player’s own too', () => {
  const { id } = titled('Four Planks')
  const changes: (() => unknown)[] = [
    () => changePlayer(db, { leftHanded: true }),
    () => setGoal(db, id, { kind: 'tune', item: 'the whole', tempo: 120, wanted: true }),
    () => keepLayout(db, id, 'Mine', TEMPLATES.lead.layout),
    () => letGripGo(db, firstOf(listGrips(db)).id),
    () => changeSet(db, firstOf(listSets(db)).id, { note: 'later' }),
  ]
  for (const change of changes) {
    expect(isUntouched(db)).toBe(true)
    db.$client.exec('SAVEPOINT before')
    change()
    expect(isUntouched(db)).toBe(false)
    db.$client.exec('ROLLBACK TO before; RELEASE before')
  }
})

test('with one touch the own book begins: untouched demo tunes can be brought back, changed ones and own work stay, passes of the invented player are gone', () => {
  const kept = titled('Four Planks')
  const state = readTune(db, kept.id)!
  editTune(db, kept.id, state.revision, { kind: 'tempo', tempo: 77 }, AT + 1_000)
  const own = createTune(db, newDocument('Mine'), AT + 2_000)
  const [pass] = everyPass(db).filter(({ tuneId }) => tuneId === kept.id)
  keepPasses(db, [{ ...pass!, id: crypto.randomUUID(), at: AT + 3_000 }])
  const before = everyPass(db).length
  const gone = beginOwnBook(db, AT + 4_000)!
  expect(gone).toEqual({ tunes: 7, passes: before - 1, stay: ['Four Planks'] })
  expect(
    listTunes(db)
      .entries.map(({ id }) => id)
      .sort(),
  ).toEqual([kept.id, own].sort())
  expect(listDeleted(db)).toHaveLength(7)
  expect([listSets(db), listGrips(db)]).toEqual([[], []])
  expect(everyPass(db)).toMatchObject([{ tuneId: kept.id, at: AT + 3_000 }])
  // Asked again there is nothing more to do.
  expect(beginOwnBook(db)).toBeNull()
  expect(readPlayer(db).firstSteps).toBe('offered')
})
