import { eq } from 'drizzle-orm'
import fc from 'fast-check'
import { newDocument, type TuneDocument } from '../core/tune/document'
import type { TuneEdit } from '../core/tune/edit'
import { anyEdit, foundEdit } from './anyEdit'
import { openDatabase, type Db } from './connect'
import { packHistory, stateAt, statesOf } from './history'
import { writeRows } from './rows'
import { revisions } from './schema'
import { createTune, editTune, readTune, stepHistory } from './tunes'

let db: Db
beforeEach(() => {
  db = openDatabase(':memory:')
})
afterEach(() => db.$client.close())

const steps = fc.array(
  fc.oneof(anyEdit, anyEdit, foundEdit, fc.constantFrom('undo' as const, 'redo' as const)),
  {
    minLength: 1,
    maxLength: 25,
  },
)

/** Carries steps out on a new tune, and says what every state it has been in was when it was left. */
function walked(of: readonly (TuneEdit | 'undo' | 'redo')[]): {
  id: string
  states: Map<string, TuneDocument>
} {
  const id = createTune(db, newDocument('Test', '| C | Am | Dm | G |'))
  const states = new Map<string, TuneDocument>()
  for (const one of of) {
    const { revision } = readTune(db, id)!
    if (typeof one === 'string') stepHistory(db, id, revision, one)
    else editTune(db, id, revision, one)
    const now = readTune(db, id)!
    states.set(now.revision, now.document)
  }
  return { id, states }
}

test('every state comes back as it was, from its changes, whatever was done, undone and found since', () => {
  fc.assert(
    fc.property(steps, (of) => {
      const { id, states } = walked(of)
      for (const [revision, document] of states) expect(stateAt(db, revision)!.document).toEqual(document)
      for (const { id: one, document } of statesOf(db, id))
        expect(document).toEqual(stateAt(db, one)!.document)
    }),
    { numRuns: 15 },
  )
})

test('rows that are written only where they changed say the same as rows that are all written', () => {
  fc.assert(
    fc.property(steps, (of) => {
      const { id } = walked(of)
      const { document } = readTune(db, id)!
      db.transaction((tx) => writeRows(tx, id, document))
      expect(readTune(db, id)!.document).toEqual(document)
    }),
    { numRuns: 15 },
  )
})

test('an edit leaves the rows alone that it does not change', () => {
  const id = createTune(db, newDocument('Test', '| C | Am | Dm | G |'))
  const edit = (change: TuneEdit) => editTune(db, id, readTune(db, id)!.revision, change)
  edit({ kind: 'version-keep', name: 'First', at: 1 })
  edit({ kind: 'fix', slot: '1:1', frets: [null, 3, 2, 0, 1, 0] })
  const rowids = () =>
    ['charts', 'arrangements', 'choices', 'voicings'].map((table) =>
      db.$client.prepare(`SELECT group_concat(rowid) FROM ${table}`).pluck().get(),
    )
  const before = rowids()
  edit({ kind: 'tempo', tempo: 99 })
  edit({ kind: 'fix', slot: '1:1', frets: [null, 3, 5, 5, 5, null] })
  expect(rowids().slice(0, 3)).toEqual(before.slice(0, 3))
  expect(readTune(db, id)!.document).toMatchObject({ tempo: 99, fixed: { '1:1': [null, 3, 5, 5, 5, null] } })
})

test('states that an earlier version kept whole are packed: each reads as before, and a second time nothing is left to do', () => {
  fc.assert(
    fc.property(steps, (of) => {
      const { id } = walked(of)
      const said = [...statesOf(db, id)]
      for (const { id: revision, document } of statesOf(db, id))
        db.update(revisions)
          .set({ snapshot: document, packed: null, basisId: null, depth: 0 })
          .where(eq(revisions.id, revision))
          .run()
      expect([...statesOf(db, id)]).toEqual(said)
      packHistory(db)
      expect([...statesOf(db, id)]).toEqual(said)
      expect(packHistory(db)).toBe(0)
    }),
    { numRuns: 12 },
  )
})

test('no state is far from a whole one, and a long history takes little room', () => {
  const id = createTune(db, newDocument('Test', '| C | Am | Dm | G |'.repeat(8)))
  for (let at = 0; at < 250; at += 1)
    editTune(db, id, readTune(db, id)!.revision, { kind: 'tempo', tempo: 60 + (at % 100) })
  const kept = db
    .select({ depth: revisions.depth, packed: revisions.packed })
    .from(revisions)
    .where(eq(revisions.tuneId, id))
    .all()
  expect(Math.max(...kept.map(({ depth }) => depth))).toBeLessThan(32)
  const bytes = kept.reduce((sum, { packed }) => sum + packed!.length, 0)
  // 251 whole documents would be some 250 KB even when deflated.
  expect(bytes).toBeLessThan(15_000)
})
