/** What the routes of the practice log answer, on a book in memory. */
import { firstOf, itemAt } from '../../core/lists'
import { randomUUID } from 'node:crypto'
import { everyPass, keepPasses } from '../../db/practice'
import { createTune, newDocument } from '../../db/tunes'
import { closeBook, database } from '../database.server'
import { loader as csv } from './log.file'
import { action as change, loader as log } from './log'
import { action as tell } from './practice.passes'
import { loader as ofTune } from './tune.practice'

// One book for all, since the demo is long in the making; each test begins with it as it was made.
beforeAll(() => {
  process.env.HERON_DB = ':memory:'
})
beforeEach(() => void database().$client.exec('BEGIN'))
afterEach(() => void database().$client.exec('ROLLBACK'))
afterAll(() => closeBook())

type Args = Parameters<typeof tell>[0]
const sent = (body: unknown) =>
  ({
    request: new Request('http://127.0.0.1/practice/passes', { method: 'POST', body: JSON.stringify(body) }),
    params: {},
  }) as unknown as Args
const form = (fields: Record<string, string | File>) => {
  const body = new FormData()
  for (const [name, value] of Object.entries(fields)) body.append(name, value)
  return {
    request: new Request('http://127.0.0.1/log', { method: 'POST', body }),
    params: {},
  } as unknown as Parameters<typeof change>[0]
}
const page = (query = '') =>
  log({ request: new Request(`http://127.0.0.1/log${query}`), params: {} } as unknown as Parameters<
    typeof log
  >[0])
const statusOf = (answer: unknown): number =>
  (answer as { init?: { status?: number } }).init?.status ??
  (answer instanceof Response ? answer.status : 200)

const pass = (more: object = {}) => ({
  id: randomUUID(),
  tuneId: null as string | null,
  title: 'Ferry',
  kind: 'passage' as const,
  item: 'bars 1 to 4',
  fromBar: 1,
  toBar: 4,
  key: 'C',
  tempo: 80,
  goal: 120,
  grade: 'clean' as const,
  seconds: 60,
  at: Date.parse('2026-05-04T10:00:00Z'),
  zone: 'UTC',
  note: '',
  hurt: false,
  ...more,
})
const fromTests = () => everyPass(database()).filter(({ title }) => title === 'Ferry')

test('a pass is in the log when it is answered, and once', async () => {
  const tuneId = createTune(database(), newDocument('Ferry', '| C |'))
  const one = pass({ tuneId })
  expect(await tell(sent({ do: 'keep', passes: [one] }))).toEqual({ kept: 1 })
  expect(await tell(sent({ do: 'keep', passes: [one] }))).toEqual({ kept: 0 })
  expect(
    await tell(sent({ do: 'goal', tuneId, kind: 'passage', item: one.item, tempo: 100, wanted: true })),
  ).toEqual({
    kept: 1,
  })
  expect(ofTune({ params: { tuneId } } as unknown as Parameters<typeof ofTune>[0])).toMatchObject({
    records: [{ passes: 1, cleanTempo: 80 }],
    goals: [{ tempo: 100, wanted: true }],
  })
})

test.each([
  [{ do: 'keep', passes: [] }],
  [{ do: 'keep', passes: [pass({ grade: 'perfect' })] }],
  [{ do: 'keep', passes: [pass({ zone: 'Atlantis' })] }],
  [{ do: 'keep', passes: [pass({ seconds: -1 })] }],
  [{ do: 'take out', id: 'first' }],
  [{ do: 'dance' }],
])('%j is refused in words', async (body) => {
  const answer = await tell(sent(body))
  expect(statusOf(answer)).toBe(400)
  expect((answer as { data: { message: string } }).data.message).toMatch(/^The log could not read this: ./)
})

test('what is not there is said', async () => {
  for (const body of [
    { do: 'take out', id: randomUUID() },
    { do: 'correct', id: randomUUID(), set: { grade: 'clean' } },
    { do: 'goal', tuneId: randomUUID(), kind: 'grip', item: 'x', tempo: null, wanted: true },
  ])
    expect(statusOf(await tell(sent(body)))).toBe(404)
})

test('on the log page a pass is corrected, taken out and put back', async () => {
  const one = pass()
  keepPasses(database(), [one])
  await change(form({ intent: 'correct', id: one.id, grade: 'nearly', tempo: '72', note: 'softer' }))
  expect(fromTests()).toMatchObject([{ grade: 'nearly', tempo: 72, note: 'softer' }])
  await change(form({ intent: 'correct', id: one.id, grade: 'nearly', tempo: '', note: '' }))
  expect(firstOf(fromTests()).tempo).toBeNull()
  const out = (await change(form({ intent: 'take-out', id: one.id }))) as Response
  expect(out.headers.get('Location')).toBe(`/log?out=${one.id}`)
  expect(fromTests()).toEqual([])
  await change(form({ intent: 'put-back', id: one.id }))
  expect(fromTests()).toHaveLength(1)
  expect(
    statusOf(await change(form({ intent: 'correct', id: one.id, grade: 'good', tempo: '', note: '' }))),
  ).toBe(400)
})

test('out as CSV, and in again: nothing twice, and what cannot be read is said', async () => {
  keepPasses(database(), [pass(), pass({ at: Date.parse('2026-05-05T10:00:00Z') })])
  const text = await csv().text()
  const before = everyPass(database()).length
  const file = (content: string) => form({ intent: 'bring', file: new File([content], 'log.csv') })
  const again = (await change(file(text))) as Response
  expect(again.headers.get('Location')).toBe('/log?brought=0')
  expect(everyPass(database())).toHaveLength(before)
  const more = await change(
    file('at,kind,item,grade\n2026-05-06,passage,bars 1 to 4,clean\nsoon,passage,x,clean\n'),
  )
  expect((more as { data: { message: string } }).data.message).toMatch(
    /1 of 1 passes were new.*1 lines.*Line 3, at/,
  )
  expect(statusOf(await change(file('nothing')))).toBe(400)
})

test('the page has the days, the charts of the tune asked for, and goes on to earlier days', () => {
  const { days, more, tunes, tempo, keys, doubts } = page()
  expect(days.length).toBeGreaterThan(5)
  expect(more).toBe(true)
  expect(tunes.length).toBeGreaterThanOrEqual(3)
  expect(tempo.length).toBeGreaterThan(0)
  expect(keys).toHaveLength(12)
  expect(doubts.length).toBeGreaterThan(0)
  const other = page(`?tune=${itemAt(tunes, 1).id}`)
  expect(other.tuneId).toBe(itemAt(tunes, 1).id)
  expect(other.tempo).not.toEqual(tempo)
  expect(page('?tune=nonsense&before=soon').days).toEqual(days)
})
