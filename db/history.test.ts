import { eq } from 'drizzle-orm'
import fc from 'fast-check'
import { newDocument, type TuneDocument } from '../core/tune/document'
import type { TuneEdit } from '../core/tune/tuneEdit'
import { anyEdit, foundEdit } from './anyEdit'
import { openDatabase, type Db } from './connect'
import { packHistory, stateAt, statesOf } from './history'
import { writeHead } from './head'
import { gripUses, revisions, tunes } from './schema'
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

/**
 * Carries steps out on a new tune, and says what every state it has been in was when it was left.
 */
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

test('a tune is its head: the document it is read from, and all that is found by it, say what the state says', () => {
  const found = (id: string) => ({
    tune: db.select().from(tunes).where(eq(tunes.id, id)).get(),
    shapes: db
      .select({ shape: gripUses.shape })
      .from(gripUses)
      .where(eq(gripUses.tuneId, id))
      .orderBy(gripUses.shape)
      .all(),
  })
  fc.assert(
    fc.property(steps, (of) => {
      const { id } = walked(of)
      const { document, revision } = readTune(db, id)!
      expect(stateAt(db, revision)!.document).toEqual(document)
      const before = found(id)
      // With nothing known of what it said before, all of it is written anew.
      db.transaction((tx) => writeHead(tx, id, document))
      expect(found(id)).toEqual(before)
    }),
    { numRuns: 15 },
  )
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
