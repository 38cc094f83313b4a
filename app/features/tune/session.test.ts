import { openDatabase, type Db } from '../../../db/connect'
import { createTune, duplicateTune, editTune, newDocument, readTune, stepHistory } from '../../../db/tunes'
import { writeRequest } from '../../routes/tune.edits'
import { TuneSession } from './session'

jest.mock('../../database.server', () => ({ database: () => { throw new Error('the session only speaks through fetch') } }))

/** A browser's storage and locks, and a server in the same process that can be unplugged. */
let db: Db
let id: string
let plugged: boolean
const storage = new Map<string, string>()
const locks = new Set<string>()
const sessions: TuneSession[] = []

beforeEach(() => {
  db = openDatabase(':memory:')
  id = createTune(db, newDocument('Test', '| C |'))
  plugged = true
  storage.clear()
  locks.clear()
  // Own keys of the storage are its entries, as in a browser.
  const localStorage = new Proxy({}, {
    ownKeys: () => [...storage.keys()],
    getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }),
    get: (_, name) => ({ getItem: (key: string) => storage.get(key) ?? null, setItem: (key: string, value: string) => void storage.set(key, value), removeItem: (key: string) => void storage.delete(key) })[name as 'getItem'],
  })
  const navigator = { locks: {
    request: async (name: string, held: () => Promise<void>) => { locks.add(name); await held(); locks.delete(name) },
    query: async () => ({ held: [...locks].map((name) => ({ name })) }),
  } }
  Object.defineProperty(globalThis, 'localStorage', { value: localStorage, configurable: true })
  Object.defineProperty(globalThis, 'navigator', { value: navigator, configurable: true })
  globalThis.fetch = (async (_url: string, options?: { body?: string }) => {
    if (!plugged) throw new TypeError('unreachable')
    return options?.body ? serve(JSON.parse(options.body)) : Response.json(readTune(db, id))
  }) as typeof fetch
})
afterEach(() => {
  sessions.splice(0).forEach((session) => session.close())
  db.$client.close()
})

/** What the route's action answers. */
function serve(body: unknown): Response {
  const write = writeRequest.parse(body)
  if ('copy' in write) return Response.json({ copied: duplicateTune(db, id, write.copy) })
  const outcome = 'edit' in write ? editTune(db, id, write.base, write.edit) : stepHistory(db, id, write.base, write.step)
  if (outcome.kind === 'missing') return Response.json({ message: 'gone' }, { status: 404 })
  return Response.json(outcome.state, { status: outcome.kind === 'conflict' ? 409 : 200 })
}

async function open(): Promise<TuneSession> {
  const session = new TuneSession(id, readTune(db, id)!)
  sessions.push(session)
  await session.resume()
  return session
}
const stored = () => readTune(db, id)!.document
async function until(reached: () => boolean): Promise<void> {
  for (let tries = 0; tries < 400 && !reached(); tries += 1) await new Promise((resolve) => setTimeout(resolve, 10))
  expect(reached()).toBe(true)
}

test('an edit shows at once, is on disk soon, and leaves no draft behind', async () => {
  const session = await open()
  session.edit({ kind: 'colour', colour: 3 })
  expect(session.read()).toMatchObject({ document: { colour: 3 }, status: { kind: 'saving' } })
  expect([...storage.keys()]).toHaveLength(1)
  await session.flush()
  expect(stored().colour).toBe(3)
  expect(session.read()).toMatchObject({ status: { kind: 'saved' }, undo: 'colour of the whole tune' })
  expect([...storage.keys()]).toHaveLength(0)
})
test('edits go in the order they were made, a burst of typing as one', async () => {
  const session = await open()
  for (const text of ['| C | A', '| C | Am', '| C | Am |']) session.edit({ kind: 'text', text })
  session.edit({ kind: 'tempo', tempo: 77 })
  session.edit({ kind: 'colour', colour: 1 })
  await session.flush()
  expect(stored()).toMatchObject({ text: '| C | Am |', tempo: 77, colour: 1 })
  await session.step('undo')
  await session.step('undo')
  await session.step('undo')
  expect(stored()).toMatchObject({ text: '| C |', tempo: 96, colour: 0 })
})
test('without a server edits wait here and follow when it is back', async () => {
  const session = await open()
  plugged = false
  session.edit({ kind: 'colour', colour: 2 })
  await until(() => session.read().status.kind === 'waiting')
  session.edit({ kind: 'tempo', tempo: 60 })
  plugged = true
  await until(() => session.read().status.kind === 'saved')
  expect(stored()).toMatchObject({ colour: 2, tempo: 60 })
})
test('the draft of a closed tab is taken up by the next visit, that of an open tab is left to it', async () => {
  const first = await open()
  plugged = false
  first.edit({ kind: 'colour', colour: 4 })
  await until(() => first.read().status.kind === 'waiting')
  const beside = await open()
  expect(beside.read().document.colour).toBe(0)
  first.close()
  await until(() => locks.size === 1)
  plugged = true
  const next = await open()
  await until(() => next.read().status.kind === 'saved')
  expect(next.read().document.colour).toBe(4)
  expect(stored().colour).toBe(4)
})
test('the second of two tabs is told; on top or as a copy, neither work is lost', async () => {
  const [one, two] = [await open(), await open()]
  one.edit({ kind: 'colour', colour: 1 })
  await one.flush()
  two.edit({ kind: 'text', text: '| Dm |' })
  await two.flush()
  await until(() => two.read().status.kind === 'conflict')
  expect(stored()).toMatchObject({ colour: 1, text: '| C |' })
  two.putMineOnTop()
  await two.flush()
  expect(stored()).toMatchObject({ colour: 1, text: '| Dm |' })

  one.edit({ kind: 'tempo', tempo: 50 })
  await until(() => one.read().status.kind === 'conflict')
  await one.keepMineAsCopy()
  expect(one.read()).toMatchObject({ document: { text: '| Dm |', tempo: 96 }, status: { kind: 'saved' } })
})
test('grips found by a search give way in silence to another tab’s change', async () => {
  const [one, two] = [await open(), await open()]
  one.edit({ kind: 'colour', colour: 1 })
  await one.flush()
  two.edit({ kind: 'grips', grips: { '1:1': [null, 3, 2, 0, 1, 0] } })
  await two.flush()
  await until(() => two.read().status.kind === 'saved')
  expect(stored().grips).toEqual({})
})
