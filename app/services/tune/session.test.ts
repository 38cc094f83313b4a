import { firstOf } from '../../../core/lists'
import 'fake-indexeddb/auto'
import { openDatabase, type Db } from '../../../db/connect'
import { copyTune, createTune, editTune, newDocument, readTune, stepHistory } from '../../../db/tunes'
import { listTunes } from '../../../db/songbook'
import { writeRequest } from '../../routes/tune.edits'
import { asideOf, draftsOf, dropDraft, keepDraft } from './drafts'
import { TuneSession } from './session'
import type { TuneEdit } from '../../../core/tune/tuneEdit'

jest.mock('../../database.server', () => ({
  database: () => {
    throw new Error('the session only speaks through fetch')
  },
  withBook: () => null,
}))

/**
 * A browser's stores and locks, and a server in the same process that can be unplugged, or cut off
 * in the middle of its answers.
 */
let db: Db
let id: string
let plugged: boolean
/** What becomes of the next answers, one after the other; after them they come whole. */
let spoiled: ((answer: () => Response) => Response)[]
const storage = new Map<string, string>()
const locks = new Set<string>()
const sessions: TuneSession[] = []

beforeEach(() => {
  db = openDatabase(':memory:')
  id = createTune(db, newDocument('Test', '| C |'))
  plugged = true
  spoiled = []
  storage.clear()
  locks.clear()
  // Own keys of the storage are its entries, as in a browser.
  const localStorage = new Proxy(
    {},
    {
      ownKeys: () => [...storage.keys()],
      getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }),
      get: (_, name) =>
        ({
          getItem: (key: string) => storage.get(key) ?? null,
          setItem: (key: string, value: string) => void storage.set(key, value),
          removeItem: (key: string) => void storage.delete(key),
        })[name as 'getItem'],
    },
  )
  const navigator = {
    locks: {
      request: async (name: string, held: () => Promise<void>) => {
        locks.add(name)
        await held()
        locks.delete(name)
      },
      query: async () => ({ held: [...locks].map((name) => ({ name })) }),
    },
  }
  Object.defineProperty(globalThis, 'localStorage', { value: localStorage, configurable: true })
  Object.defineProperty(globalThis, 'navigator', { value: navigator, configurable: true })
  globalThis.fetch = (async (_url: string, options?: { body?: string }) => {
    if (!plugged) throw new TypeError('unreachable')
    const answer = () => (options?.body ? serve(JSON.parse(options.body)) : Response.json(readTune(db, id)))
    return (spoiled.shift() ?? ((whole) => whole()))(answer)
  }) as typeof fetch
})
afterEach(() => {
  sessions.splice(0).forEach((session) => session.close())
  db.$client.close()
})

/** What the route's action answers. */
function serve(body: unknown): Response {
  const wanted = writeRequest.safeParse(body)
  if (!wanted.success) return Response.json({ message: 'This change could not be read.' }, { status: 400 })
  const write = wanted.data
  if ('copy' in write) {
    const outcome = copyTune(db, id, { id: write.id, base: write.base, edits: write.copy })
    return outcome.kind === 'copied'
      ? Response.json({ copied: outcome.id })
      : Response.json({ message: 'no' }, { status: 400 })
  }
  const outcome =
    'edit' in write ? editTune(db, id, write, write.edit) : stepHistory(db, id, write, write.step)
  switch (outcome.kind) {
    case 'missing':
      return Response.json({ message: 'gone' }, { status: 404 })
    case 'refused':
      return Response.json({ message: outcome.message }, { status: 400 })
    case 'repeated':
      return Response.json({ ...outcome.state, made: outcome.made })
    default:
      return Response.json(outcome.state, { status: outcome.kind === 'conflict' ? 409 : 200 })
  }
}

/** The server does it, and its answer does not come, or comes in part. */
const lost = (answer: () => Response): Response => {
  answer()
  throw new TypeError('the connection was cut')
}
const cutAfterHeaders = (answer: () => Response): Response =>
  new Response(
    new ReadableStream({
      start: (body) => {
        body.enqueue(new TextEncoder().encode('{"id":"'))
        body.error(new TypeError('cut'))
      },
    }),
    { status: answer().status },
  )
/** Refused before anything is done. */
const text = (words: string, status: number) => (): Response => new Response(words, { status })

async function open(): Promise<TuneSession> {
  const session = new TuneSession(id, readTune(db, id)!)
  sessions.push(session)
  await session.resume()
  return session
}
const stored = () => readTune(db, id)!.document
async function until(reached: () => boolean): Promise<void> {
  for (let tries = 0; tries < 400 && !reached(); tries += 1)
    await new Promise((resolve) => setTimeout(resolve, 10))
  expect(reached()).toBe(true)
}

const settled = async (reached: () => Promise<boolean>): Promise<void> => {
  for (let tries = 0; tries < 200 && !(await reached()); tries += 1)
    await new Promise((resolve) => setTimeout(resolve, 10))
  expect(await reached()).toBe(true)
}
const saved = (session: TuneSession) => until(() => session.read().status.kind === 'saved')
const colour = (to: 0 | 1 | 2 | 3 | 4): TuneEdit => ({ kind: 'colour', colour: to })

test('an edit shows at once, is on disk soon, and leaves no draft behind', async () => {
  const session = await open()
  plugged = false
  session.edit({ kind: 'colour', colour: 3 })
  expect(session.read()).toMatchObject({ document: { colour: 3 }, status: { kind: 'saving' } })
  await settled(async () => (await draftsOf(id)).length === 1)
  plugged = true
  await saved(session)
  expect(stored().colour).toBe(3)
  expect(session.read()).toMatchObject({
    status: { kind: 'saved' },
    undo: 'colour of the whole tune, Colour',
  })
  await settled(async () => (await draftsOf(id)).length === 0)
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

test('asked to write all while the server is away, as when a step is left, it goes on trying', async () => {
  const session = await open()
  plugged = false
  session.edit(colour(2))
  await until(() => session.read().status.kind === 'waiting')
  await session.flush()
  plugged = true
  await saved(session)
  expect(stored()).toMatchObject({ colour: 2 })
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

describe('answers that do not come whole', () => {
  test.each([
    ['lost', lost],
    ['cut after its headers', cutAfterHeaders],
  ])(
    'an answer %s after the commit: the write is known by its id, done once, and no other tab is blamed',
    async (_, spoil) => {
      const session = await open()
      spoiled = [spoil]
      session.edit(colour(2))
      session.edit({ kind: 'tempo', tempo: 70 })
      await until(() => session.read().status.kind === 'waiting')
      await saved(session)
      expect(stored()).toMatchObject({ colour: 2, tempo: 70 })
      await session.step('undo')
      expect(stored()).toMatchObject({ colour: 2, tempo: 96 })
      await session.step('undo')
      expect(stored().colour).toBe(0)
      expect(session.read().undo).toBeNull()
    },
  )
  test('where another tab wrote after the lost answer, that is told, and nothing is applied twice', async () => {
    const [one, two] = [await open(), await open()]
    spoiled = [lost]
    one.edit({ kind: 'version-keep', name: 'First', at: 1 })
    await until(() => one.read().status.kind === 'waiting')
    one.edit({ kind: 'tempo', tempo: 61 })
    await two.look()
    two.edit(colour(3))
    await saved(two)
    await until(() => one.read().status.kind === 'conflict')
    one.putMineOnTop()
    await saved(one)
    expect(stored()).toMatchObject({ colour: 3, tempo: 61 })
    expect(stored().versions).toHaveLength(1)
  })
  test.each([
    [403, 'This change came from another site and was refused.'],
    [421, 'This server answers only to its own address.'],
    [503, 'The disk is full.'],
  ])('a %d in plain text waits, says why, and is saved when it is taken', async (status, words) => {
    const session = await open()
    spoiled = [text(words, status)]
    session.edit(colour(1))
    await until(() => session.read().status.kind === 'waiting')
    expect(session.read().status).toMatchObject({ message: words })
    await saved(session)
    expect(stored().colour).toBe(1)
  })
})

describe('what is refused', () => {
  test('is said and set aside, never under “Saved”, and holds up and takes back nothing else', async () => {
    const session = await open()
    spoiled = [text('This is over 16 MB.', 413)]
    session.edit({ kind: 'title', title: 'Too large' })
    session.edit(colour(4))
    await saved(session)
    expect(session.read()).toMatchObject({
      document: { title: 'Test', colour: 4 },
      aside: [{ what: 'title', message: 'This is over 16 MB.' }],
    })
    expect(stored()).toMatchObject({ title: 'Test', colour: 4 })
    // It is still there at the next visit, until the player has understood.
    const next = await open()
    expect(next.read().aside).toMatchObject([{ edits: [{ kind: 'title', title: 'Too large' }] }])
    expect(JSON.parse(next.asFile()).notTaken[0].edits).toEqual([{ kind: 'title', title: 'Too large' }])
    next.letAsideGo(firstOf(next.read().aside).id)
    await settled(async () => (await asideOf(id)).length === 0)
  })
  test('cannot be made here at all: a note without length is refused before it is sent, in a player’s words', async () => {
    const session = await open()
    session.edit({ kind: 'melody', did: 'note', melody: [{ bar: 1, beat: 1, beats: 4, note: 'E4' }] })
    session.edit({
      kind: 'melody',
      did: 'one more',
      melody: [
        { bar: 1, beat: 1, beats: 4, note: 'E4' },
        { bar: 1, beat: 5, beats: 0, note: 'F4' },
      ],
    })
    await saved(session)
    expect(session.read().document.melody).toHaveLength(1)
    expect(session.read().aside).toMatchObject([
      {
        what: 'one more, Melody',
        message: 'The length in beats of note 2 of the melody (bar 1, beat 5) is 0; accepted is more than 0.',
      },
    ])
    session.edit(colour(2))
    await saved(session)
    expect(stored()).toMatchObject({ colour: 2, melody: [{ note: 'E4' }] })
  })
  test('a write on which the server always fails is set aside after three tries, and the next ones go through', async () => {
    const session = await open()
    spoiled = Array.from({ length: 3 }, () => text('Unexpected Server Error', 500))
    session.edit(colour(2))
    session.edit({ kind: 'tempo', tempo: 66 })
    await until(() => session.read().aside.length === 1)
    await saved(session)
    expect(stored()).toMatchObject({ colour: 0, tempo: 66 })
  }, 15_000)
  test('a tune is never left in a state that cannot be kept: B9 does not become C#10', async () => {
    const session = await open()
    session.edit({ kind: 'melody', did: 'note', melody: [{ bar: 1, beat: 1, beats: 1, note: 'B9' }] })
    session.edit({ kind: 'transpose', to: 'D' })
    await session.flush()
    expect(stored().melody).toHaveLength(1)
    expect((await open()).read().document).toEqual(stored())
  })
})

describe('drafts', () => {
  test('one that cannot be applied is set aside and said; the tune opens', async () => {
    await keepDraft({
      key: `${id}:gone`,
      tune: id,
      tab: 'gone',
      base: readTune(db, id)!.revision,
      writes: [
        { id: crypto.randomUUID(), edit: { kind: 'from later', it: 1 } },
        { id: crypto.randomUUID(), edit: colour(3) },
      ],
    })
    const session = await open()
    await saved(session)
    expect(stored().colour).toBe(3)
    expect(session.read().aside).toMatchObject([{ edits: [{ kind: 'from later' }] }])
  })
  test('those an earlier version left in the browser’s older storage are taken up', async () => {
    storage.set(
      `heron-draft:${id}:some-tab`,
      JSON.stringify({ base: readTune(db, id)!.revision, edits: [colour(2)] }),
    )
    const session = await open()
    await until(() => stored().colour === 2)
    await saved(session)
    expect(storage.size).toBe(0)
  })
  test('where the browser has no room the page does not say that they are kept, and saving goes on', async () => {
    const session = await open()
    const { put } = IDBObjectStore.prototype
    IDBObjectStore.prototype.put = () => {
      throw new DOMException('full', 'QuotaExceededError')
    }
    plugged = false
    session.edit(colour(2))
    await until(() => session.read().status.kind === 'waiting' && !session.read().keptHere)
    plugged = true
    await saved(session)
    IDBObjectStore.prototype.put = put
    expect(stored().colour).toBe(2)
  })
})

describe('undo and redo while the server is away', () => {
  test('of what waits are seen at once; everything follows in order', async () => {
    const session = await open()
    session.edit(colour(1))
    await saved(session)
    plugged = false
    session.edit({ kind: 'tempo', tempo: 50 })
    session.edit({ kind: 'tempo', tempo: 51 })
    void session.step('undo')
    expect(session.read().document.tempo).toBe(96)
    expect(session.read().redo).toBe('tempo 51')
    // One step more is of what is on disk: it waits.
    void session.step('undo')
    await until(() => session.read().status.kind === 'waiting')
    plugged = true
    await saved(session)
    expect(stored()).toMatchObject({ colour: 0, tempo: 96 })
    expect(session.read()).toMatchObject({
      document: { colour: 0 },
      redo: 'colour of the whole tune, Colour',
    })
  })
})

test('a copy is made of what the tab made on the state it saw, and where it cannot be made that is said', async () => {
  const [one, two] = [await open(), await open()]
  two.edit(colour(4))
  await saved(two)
  one.edit({ kind: 'text', text: '| Dm |' })
  await until(() => one.read().status.kind === 'conflict')
  spoiled = [text('This is over 16 MB.', 413)]
  await one.keepMineAsCopy()
  expect(one.read()).toMatchObject({
    document: { text: '| Dm |' },
    status: { kind: 'conflict', trouble: expect.stringContaining('over 16 MB') },
  })
  spoiled = [lost]
  await one.keepMineAsCopy()
  await one.keepMineAsCopy()
  expect(one.read()).toMatchObject({ document: { colour: 4 }, status: { kind: 'saved' } })
  const copies = listTunes(db).entries.filter(({ title }) => title === 'Test (copy)')
  expect(copies).toHaveLength(1)
  expect(readTune(db, firstOf(copies).id)!.document).toMatchObject({ text: '| Dm |', colour: 0 })
})

test('undo takes typing back word by word, and a pause ends a word too, whatever was sent in between', async () => {
  const session = await open()
  const begin = session.read().document.text
  for (const letters of [' D', ' Dm', ' Dm7', ' Dm7 ', ' Dm7 G', ' Dm7 G7']) {
    session.edit({ kind: 'text', text: begin + letters })
    await session.flush()
  }
  const texts: string[] = []
  for (let at = 0; at < 3; at += 1) {
    await session.step('undo')
    texts.push(session.read().document.text)
  }
  expect(texts).toEqual([`${begin} Dm7 `, begin, begin])
  await session.step('redo')
  expect(session.read().document.text).toBe(`${begin} Dm7 `)
})

test('an edit made while the server is away is shown again after the page was loaded anew, before the server is back', async () => {
  const first = await open()
  plugged = false
  first.edit({ kind: 'text', text: '| C | F |', joins: false })
  await settled(async () => (await draftsOf(id)).length === 1)
  first.close()
  const second = await open()
  expect(second.read().document.text).toBe('| C | F |')
  await until(() => second.read().status.kind === 'waiting')
  expect(second.read().document.text).toBe('| C | F |')
  plugged = true
  await second.flush()
  await saved(second)
  expect(stored().text).toBe('| C | F |')
})

test('a tab that dies in the moment of a key loses nothing: what waits is kept before the key is answered', async () => {
  const first = await open()
  plugged = false
  first.edit({ kind: 'text', text: '| C | Am |', joins: false })
  // Nothing has had its turn since: this is all that is left of the tab.
  const left = new Map(storage)
  expect([...left.keys()]).toEqual([expect.stringMatching(/^heron-now:/)])
  await settled(async () => (await draftsOf(id)).length === 1)
  // Where the durable store has it, the other is not needed.
  expect(storage.size).toBe(0)
  first.close()
  for (const { key } of await draftsOf(id)) await dropDraft(key)
  for (const [key, value] of left) storage.set(key, value)
  plugged = true
  const second = await open()
  expect(second.read().document.text).toBe('| C | Am |')
  await saved(second)
  expect(stored().text).toBe('| C | Am |')
  expect(storage.size).toBe(0)
})

test('undo says what it took back and where, until something else is done', async () => {
  const session = await open()
  session.edit({ kind: 'text', text: 'capo: 5\n| C |', joins: false })
  await session.flush()
  expect(session.read().undo).toMatch(/, Chart$/)
  const { undo } = session.read()
  await session.step('undo')
  expect(session.read().stepped).toBe(`Undone: ${undo}`)
  await session.step('redo')
  expect(session.read().stepped).toBe(`Done again: ${undo}`)
  session.edit(colour(2))
  expect(session.read().stepped).toBeNull()
  await session.flush()
  expect(session.read().undo).toMatch(/, Colour$/)
})
