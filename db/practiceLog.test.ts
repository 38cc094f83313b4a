import { entryOf, firstOf, lastOf, theOne } from '../core/lists'
import { randomUUID } from 'node:crypto'
import { fromCsv, toCsv } from '../core/practice/csv'
import { DAY_MS } from '../core/practice/recall'
import { itemKey } from '../core/practice/grade'
import type { LoggedPass } from '../core/practice/passSchema'
import { openDatabase, type Db } from './connect'
import { demoBook } from './demo'
import {
  climbedIn,
  correctPass,
  doubtsByBar,
  dueByTune,
  everyPass,
  goalsOf,
  keepPasses,
  keysPlayed,
  logDays,
  logInShort,
  minutesByDay,
  practisedOf,
  putPassBack,
  setGoal,
  takePassOut,
  tempoOf,
  tunesInLog,
  tunesInPractice,
} from './practice'
import { seedDemoBook } from './seed'
import { createTune, newDocument } from './tunes'
import { deleteTune, eraseDeleted } from './songbook'

let db: Db
let tuneId: string
const DAY = 20_000
beforeEach(() => {
  db = openDatabase(':memory:')
  tuneId = createTune(db, newDocument('Ferry', '| C | F |'))
})
afterEach(() => db.$client.close())

const pass = (more: Partial<LoggedPass> = {}): LoggedPass => ({
  id: randomUUID(),
  tuneId,
  title: 'Ferry',
  kind: 'passage',
  item: 'bars 1 to 4',
  fromBar: 1,
  toBar: 4,
  key: 'C',
  tempo: 80,
  goal: 120,
  grade: 'clean',
  seconds: 60,
  at: DAY * DAY_MS + 12 * 3_600_000,
  zone: 'UTC',
  note: '',
  hurt: false,
  ...more,
})

test('a pass counts once, however often it is sent, from however many tabs', () => {
  const one = pass()
  expect(keepPasses(db, [one])).toBe(1)
  expect(keepPasses(db, [one, one])).toBe(0)
  expect(keepPasses(db, [one, pass({ grade: 'failed', at: one.at + 1000 })])).toBe(1)
  expect(logInShort(db)).toEqual({ passes: 2, first: DAY, last: DAY, minutes: 2 })
  const record = entryOf(practisedOf(db, tuneId), 'passage bars 1 to 4')
  expect(record).toMatchObject({ passes: 2, cleanTempo: 80, last: { grade: 'failed' }, recall: { tries: 1 } })
})

test('its day is the player’s own: an hour around midnight is on one day or the other', () => {
  const midnight = Date.parse('2026-05-04T22:00:00Z')
  keepPasses(db, [
    pass({ at: midnight - 1, zone: 'Europe/Vienna' }),
    pass({ at: midnight, zone: 'Europe/Vienna' }),
    pass({ at: midnight, zone: 'America/Lima' }),
  ])
  const [latest, first] = logDays(db).days
  expect([latest!.passes.length, first!.passes.length, latest!.day - first!.day]).toEqual([1, 2, 1])
})

test('corrected, taken out and put back: what the log says follows', () => {
  const [first, second] = [pass({ grade: 'failed' }), pass({ at: (DAY + 3) * DAY_MS })]
  keepPasses(db, [first, second])
  const due = () => practisedOf(db, tuneId).get('passage bars 1 to 4')?.recall.due
  const failed = due()!
  expect(correctPass(db, first.id, { grade: 'clean', note: 'it was the other one' })).toMatchObject({
    grade: 'clean',
    note: 'it was the other one',
    tempo: 80,
  })
  expect(due()).toBeGreaterThan(failed)
  expect(takePassOut(db, second.id)).not.toBeNull()
  expect(logInShort(db).passes).toBe(1)
  expect(entryOf(practisedOf(db, tuneId), 'passage bars 1 to 4').recall.tries).toBe(1)
  expect(takePassOut(db, first.id)).not.toBeNull()
  expect(practisedOf(db, tuneId).size).toBe(0)
  // Sent again it stays out; put back it is there.
  expect(keepPasses(db, [first])).toBe(0)
  expect(logInShort(db).passes).toBe(0)
  putPassBack(db, first.id)
  putPassBack(db, second.id)
  expect(entryOf(practisedOf(db, tuneId), 'passage bars 1 to 4').recall.tries).toBe(2)
  expect(correctPass(db, randomUUID(), { grade: 'clean' })).toBeNull()
})

test('the songbook knows what is due in which tune, and which are practised', () => {
  keepPasses(db, [
    pass(),
    pass({ item: 'bars 5 to 8', grade: 'failed' }),
    pass({ tuneId: null, kind: 'question' }),
  ])
  expect(dueByTune(db, DAY).get(tuneId)).toBeUndefined()
  expect(dueByTune(db, DAY + 1).get(tuneId)).toBe(1)
  expect(dueByTune(db, DAY + 30).get(tuneId)).toBe(2)
  expect(tunesInPractice(db).has(tuneId)).toBe(true)
  expect(practisedOf(db, null).size).toBe(1)
})

test('a goal is kept with what it is for, and the latest stands', () => {
  setGoal(db, tuneId, { kind: 'passage', item: 'bars 1 to 4', tempo: 100, wanted: false })
  setGoal(db, tuneId, { kind: 'passage', item: 'bars 1 to 4', tempo: null, wanted: true })
  expect(goalsOf(db, tuneId)).toEqual([{ kind: 'passage', item: 'bars 1 to 4', tempo: null, wanted: true }])
})

test('a tune that is erased leaves its passes in the log, under the title it had', () => {
  keepPasses(db, [pass()])
  deleteTune(db, tuneId)
  eraseDeleted(db, [tuneId])
  expect(everyPass(db)).toMatchObject([{ tuneId: null, title: 'Ferry' }])
  // What another book says of a tune that is not here is taken without it.
  expect(keepPasses(db, [pass({ tuneId: randomUUID(), title: 'Elsewhere' })])).toBe(1)
})

test('what the charts show: minutes a day, the tempo of one thing, doubt by bar, keys', () => {
  keepPasses(db, [
    pass({ seconds: 90 }),
    pass({ seconds: 30, grade: 'failed', tempo: 90, at: DAY * DAY_MS + 13 * 3_600_000 }),
    pass({ kind: 'change', item: 'C to F', fromBar: 1, toBar: 2, grade: 'nearly', at: (DAY + 1) * DAY_MS }),
    pass({ kind: 'keys', item: 'in F', key: 'F', fromBar: null, toBar: null, at: (DAY + 2) * DAY_MS }),
  ])
  expect(minutesByDay(db, DAY, DAY + 1)).toEqual([
    { day: DAY, minutes: 2 },
    { day: DAY + 1, minutes: 1 },
  ])
  expect(climbedIn(db, tuneId)[0]).toEqual({ kind: 'passage', item: 'bars 1 to 4', passes: 2 })
  expect(tempoOf(db, { tuneId, kind: 'passage', item: 'bars 1 to 4' }).map(({ tempo }) => tempo)).toEqual([
    80, 90,
  ])
  const doubts = doubtsByBar(db, tuneId)
  // Bar 3 has its share of two passes over four bars, one of them failed; bar 1 beside it half of a
  // change that was nearly clean.
  expect(doubts.get(3)).toEqual({ passes: 0.5, doubt: 0.25 })
  expect(doubts.get(1)).toEqual({ passes: 1, doubt: 0.5 })
  expect(theOne(keysPlayed(db, tuneId), ({ key }) => key === 'F').day).toBe(DAY + 2)
  expect(tunesInLog(db)).toEqual([{ id: tuneId, title: 'Ferry' }])
})

test('the log is read in pages of days, none twice, none left out', () => {
  keepPasses(
    db,
    Array.from({ length: 40 }, (_, at) => pass({ at: (DAY + at) * DAY_MS })),
  )
  const days: number[] = []
  let before: number | null = null
  for (;;) {
    const page = logDays(db, before)
    days.push(...page.days.map(({ day }) => day))
    before = lastOf(page.days).day
    if (!page.more) break
  }
  expect(days).toEqual(Array.from({ length: 40 }, (_, at) => DAY + 39 - at))
})

test('as CSV and back: every pass the same, quotes, commas, formulas and line breaks too', () => {
  const odd = [
    pass({ note: 'slower, "much" slower\nand again', hurt: true, grade: 'failed' }),
    pass({ note: '=2+2', item: '-1', key: 'Bb', tempo: null, goal: null, fromBar: null, toBar: null }),
    pass({ tuneId: null, title: '', kind: 'question', item: 'top: Dm7', tempo: 92.5, seconds: 3.2 }),
  ]
  const { passes, problems } = fromCsv(toCsv(odd), randomUUID)
  expect(problems).toEqual([])
  expect(passes).toEqual(odd)
  expect(toCsv(odd)).toContain("'=2+2")
  const read = fromCsv(
    'grade,item,kind,at\nclean,bars 1 to 4,passage,2026-05-04T10:00:00Z\ngood,x,passage,2026-05-04\n',
    () => '00000000-0000-4000-8000-000000000001',
  )
  expect(read.passes).toHaveLength(1)
  expect(read.problems).toEqual([expect.stringMatching(/^Line 3, grade: .*clean, nearly, failed/)])
  expect(fromCsv('a,b\n1,2\n', randomUUID).problems[0]).toMatch(/columns at, kind, item, grade are missing/)
})

test('the demo player has five weeks of practice: rises, a bad week, and two keys that are avoided', () => {
  const demo = openDatabase(':memory:')
  const now = Date.parse('2026-11-26T10:00:00Z')
  seedDemoBook(demo, now)
  const all = everyPass(demo)
  expect(all.length).toBeGreaterThan(300)
  expect(all.every(({ at }) => at < now && at > now - 36 * DAY_MS)).toBe(true)
  const failedIn = (week: number) => {
    const inside = all.filter(({ day }) => Math.floor((day - Math.floor(now / DAY_MS) + 35) / 7) === week)
    return inside.filter(({ grade }) => grade !== 'clean').length / inside.length
  }
  expect(failedIn(2)).toBeGreaterThan(failedIn(0))
  expect(failedIn(4)).toBeLessThan(failedIn(0))
  const keys = new Set(all.flatMap(({ key }) => key ?? []))
  expect(keys.has('Gb') || keys.has('B')).toBe(false)
  expect(keys.size).toBeGreaterThanOrEqual(8)
  const titles = new Set(demoBook().map(({ document }) => document.title))
  expect(all.every(({ title }) => titles.has(title))).toBe(true)
  expect([...practisedOf(demo, firstOf(all).tuneId).keys()]).toContain(itemKey(firstOf(all)))
  demo.$client.close()
})
