/** What the routes answer to what a page sends, on a book in memory. */
import { randomUUID } from 'node:crypto'
import { createTune, newDocument, readTune, type TuneState } from '../../db/tunes'
import { closeBook, database } from '../database.server'
import { action as keepGrip, loader as keptGrips } from './grips.kept'
import { action as changePlayer } from './player.edits'
import { action as write, loader as state } from './tune.edits'
import { loader as pdf } from './sheet.pdf'
import { loader as stand } from './stand.pages'
import { loader as file } from './tune.file'

// One book for all, since the demo is long in the making; each test begins with it as it was made.
beforeAll(() => {
  process.env.HERON_DB = ':memory:'
})
beforeEach(() => void database().$client.exec('BEGIN'))
afterEach(() => void database().$client.exec('ROLLBACK'))
afterAll(() => closeBook())

const NOBODY = 'e3b0c442-98fc-4c14-9afb-f4c8996fb924'
type Args = Parameters<typeof write>[0]
/** What an action is called with. */
const sent = (body: unknown, params: Record<string, string> = {}) =>
  ({
    request: new Request('http://127.0.0.1/', {
      method: 'POST',
      body: typeof body === 'string' ? body : JSON.stringify(body),
    }),
    params,
  }) as unknown as Args
/** Status and body of an answer, whether it is plain or has a status of its own. */
const read = (answer: unknown): { status: number; body: Record<string, unknown> } => {
  const wrapped = answer as {
    type?: string
    data: Record<string, unknown>
    init?: { status?: number } | number
  }
  if (wrapped.type !== 'DataWithResponseInit') return { status: 200, body: answer as Record<string, unknown> }
  const status = typeof wrapped.init === 'number' ? wrapped.init : (wrapped.init?.status ?? 200)
  return { status, body: wrapped.data }
}
const toTune = async (id: string, body: unknown) => read(await write(sent(body, { tuneId: id })))
const aTune = (text = '| C | F |'): TuneState => {
  const id = createTune(database(), newDocument('Low Tide', text))
  return readTune(database(), id)!
}

describe('edits of a tune', () => {
  test('one that can be done is done, and its new state comes back', async () => {
    const { id, revision } = aTune()
    const { status, body } = await toTune(id, {
      id: randomUUID(),
      base: revision,
      edit: { kind: 'text', text: '| C | G |', joins: false },
    })
    expect([status, body]).toEqual([200, expect.objectContaining({ id, redo: null })])
    expect((body as unknown as TuneState).document.text).toBe('| C | G |')
    expect(read(state({ params: { tuneId: id } } as never)).body).toEqual(readTune(database(), id))
  })
  test('the same write sent twice is done once, and says which revision it made', async () => {
    const { id, revision } = aTune()
    const write = { id: randomUUID(), base: revision, edit: { kind: 'title', title: 'High Tide' } }
    const first = await toTune(id, write)
    const again = await toTune(id, write)
    expect(again.status).toBe(200)
    expect(again.body).toMatchObject({ revision: first.body.revision, made: first.body.revision })
  })
  test('one made on a state that another tab has changed is refused with the present state', async () => {
    const { id, revision } = aTune()
    await toTune(id, { base: revision, edit: { kind: 'title', title: 'Theirs' } })
    const { status, body } = await toTune(id, { base: revision, edit: { kind: 'title', title: 'Mine' } })
    expect(status).toBe(409)
    expect((body as unknown as TuneState).document.title).toBe('Theirs')
  })
  test('undo and redo go through the states in order', async () => {
    const { id, revision } = aTune()
    await toTune(id, { base: revision, edit: { kind: 'title', title: 'Other' } })
    const step = (direction: string) =>
      toTune(id, { base: readTune(database(), id)!.revision, step: direction })
    expect((await step('undo')).body.document).toMatchObject({ title: 'Low Tide' })
    expect((await step('redo')).body.document).toMatchObject({ title: 'Other' })
  })
  test('a copy is a tune of its own, with what was made on top', async () => {
    const { id, revision } = aTune()
    const { body } = await toTune(id, { base: revision, copy: [{ kind: 'title', title: 'Mine' }] })
    const copy = readTune(database(), body.copied as string)!
    expect(copy.id).not.toBe(id)
    expect(copy.document.text).toBe('| C | F |')
    expect(readTune(database(), id)!.document.title).toBe('Low Tide')
  })
  test.each([
    ['no JSON at all', 'half a {', 'This change could not be read'],
    ['nothing', 'null', 'This change could not be read'],
    [
      'a base that is no revision',
      { base: 'x', edit: { kind: 'title', title: 'a' } },
      'The state it was made on',
    ],
    ['an unknown kind of edit', { base: NOBODY, edit: { kind: 'paint' } }, 'kind'],
    ['a step that is none', { base: NOBODY, step: 'sideways' }, 'undo'],
    ['a tempo nobody plays', { base: NOBODY, edit: { kind: 'tempo', tempo: 9_000 } }, 'tempo'],
  ])('%s: 400, with what and what would be accepted; nothing is changed', async (_what, body, says) => {
    const { id } = aTune()
    const before = readTune(database(), id)
    const answer = await toTune(id, body)
    expect(answer.status).toBe(400)
    expect(answer.body.message).toContain(says)
    expect(readTune(database(), id)).toEqual(before)
  })
  test('a tune that is not there: 404, with where it may be', async () => {
    const answer = await toTune(NOBODY, { base: NOBODY, edit: { kind: 'title', title: 'a' } })
    expect([answer.status, answer.body.message]).toEqual([404, expect.stringContaining('Deleted tunes')])
    expect(read(state({ params: { tuneId: NOBODY } } as never)).status).toBe(404)
  })
})

describe('settings of the player', () => {
  const change = async (body: unknown) => read(await changePlayer(sent(body) as never))
  test('kept, field by field', async () => {
    expect((await change({ change: { leftHanded: true } })).body.settings).toMatchObject({ leftHanded: true })
    expect((await change({ change: { depth: 2 } })).body.settings).toMatchObject({
      leftHanded: true,
      depth: 2,
    })
  })
  test('what cannot be is refused with the field, and the rest stays', async () => {
    const answer = await change({ change: { depth: 9 } })
    expect([answer.status, answer.body.message]).toEqual([
      400,
      expect.stringContaining('rules are put on one another is 9'),
    ])
    expect((await change({ change: {} })).body.settings).toMatchObject({ depth: 1 })
    expect((await change('[')).status).toBe(400)
  })
  test('what was counted is forgotten, by rule or all', async () => {
    const { id, revision } = aTune('| C | F | G7 | C |')
    const choice = { chords: [{ symbol: 'Db7', beats: 4 }], span: 1, rule: 'tritone-substitution', at: 0 }
    await toTune(id, { base: revision, edit: { kind: 'choose', slot: '3:1', choice } })
    expect((await change({ forget: 'b1' })).status).toBe(200)
    expect((await change({ forget: 'all' })).status).toBe(200)
  })
})

describe('the grip book from a tune', () => {
  const put = async (body: unknown) => read(await keepGrip(sent(body) as never))
  const shell = { symbol: 'G7', frets: [3, null, 3, 4, null, null], instrument: 'E2 A2 D3 G3 B3 E4 648 0' }
  test('a grip is put in once', async () => {
    const before = keptGrips().kept.length
    const first = await put({ ...shell, symbol: 'G13', frets: [3, null, 3, 4, 5, null] })
    const { status } = first
    expect(status).toBe(200)
    expect((first.body.kept as unknown[]).length).toBeGreaterThanOrEqual(before)
    const again = await put({ ...shell, symbol: 'G13', frets: [3, null, 3, 4, 5, null] })
    expect(again.body.kept).toEqual(first.body.kept)
  })
  test.each([
    [{ ...shell, symbol: 'Q' }, 'a chord symbol'],
    [{ ...shell, frets: [1, 2] }, '4 to 8 strings'],
    [{ ...shell, frets: [1, 2, 3, 99] }, 'frets'],
    [{ ...shell, more: 1 }, 'more'],
  ])('%p is refused', async (body, says) => {
    const answer = await put(body)
    expect(answer.status).toBe(400)
    expect(String(answer.body.message)).toContain(says)
  })
})

describe('files of a tune', () => {
  const get = (tuneId: string, format: string, more = '') =>
    file({
      params: { tuneId, format },
      request: new Request(`http://localhost/tunes/${tuneId}/file/${format}${more}`),
    } as never)
  test.each([
    ['musicxml', '<?xml', 'recordare'],
    ['midi', 'MThd', 'audio/midi'],
    ['abc', 'X:', 'abc'],
  ])('%s begins as such a file does, under the name of the tune', async (format, begins, type) => {
    const { id } = aTune('key: C\n| Cmaj7 | G7 |')
    const answer = await get(id, format)
    expect(answer.headers.get('Content-Type')).toContain(type)
    expect(answer.headers.get('Content-Disposition')).toMatch(/filename\*=UTF-8''/)
    expect((await answer.text()).startsWith(begins)).toBe(true)
  })
  test('of a chart that is longer than any tune nothing is worked out while somebody waits; its text goes out', async () => {
    const { id } = aTune(`key: C\n${'| Dm7 G7 Em7 A7 Fmaj7 Bm7b5 E7 Am7 '.repeat(400)}|`)
    const asked = (format: string) =>
      file({ params: { tuneId: id, format }, request: new Request('http://127.0.0.1/') } as never)
    for (const format of ['midi', 'musicxml', 'abc', 'chordpro', 'tab']) {
      const answer = await asked(format)
      expect([format, answer.status]).toEqual([format, 422])
      expect(await answer.text()).toMatch(/has 3200 chords .* up to 600\. Put parts of it/)
    }
    expect((await asked('text')).status).toBe(200)
    const pages = await stand({
      request: new Request(`http://127.0.0.1/?tune=${id}&shown=grips&width=300&height=300`),
    } as never)
    expect(pages.status).toBe(422)
    const print = (tuneId: string) =>
      pdf({ params: { tuneId }, request: new Request('http://127.0.0.1/') } as never)
    expect((await print(id)).status).toBe(422)
    // Of very many bars files are made, and no pages: a staff costs as much for one chord as for
    // four.
    const long = aTune(`key: C\n${'| C '.repeat(257)}|`).id
    const midi = await file({
      params: { tuneId: long, format: 'midi' },
      request: new Request('http://127.0.0.1/'),
    } as never)
    const refused = await print(long)
    expect([midi.status, refused.status]).toEqual([200, 422])
    expect(await refused.text()).toMatch(/has 257 bars .* up to 256\. Put parts of it/)
  })
  test('a format or a tune that is not there: 404 in words', async () => {
    const { id } = aTune()
    expect(await (await get(id, 'tabs')).text()).toContain('Accepted: musicxml, midi, abc')
    expect((await get(id, 'toString')).status).toBe(404)
    expect((await get(NOBODY, 'abc')).status).toBe(404)
  })
})
