import fc from 'fast-check'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { tuneDocument, type TuneDocument } from '../core/tune/document'
import { openDatabase, type Db } from './connect'
import { copyTune, createTune, editTune, newDocument, readTune, stepHistory, type CopyOutcome } from './tunes'
import { deleteTune, restoreTunes } from './songbook'
import type { TuneEdit } from '../core/tune/tuneEdit'
import { anyEdit, one } from './anyEdit'
import { writeHead } from './head'
import { statesOf } from './history'
import { tunes } from './schema'

let db: Db
beforeEach(() => {
  db = openDatabase(':memory:')
})
afterEach(() => db.$client.close())

const begin = (text = '| C | Am | Dm | G |') => createTune(db, newDocument('Test', text))
const state = (id: string) => readTune(db, id)!
/** Edits on the present revision; what the tune cannot take leaves it as it is. */
function edit(id: string, change: TuneEdit): TuneDocument {
  const outcome = editTune(db, id, state(id).revision, change)
  if (outcome.kind === 'refused') return state(id).document
  if (outcome.kind !== 'written') throw new Error(outcome.kind)
  return outcome.state.document
}
const step = (id: string, direction: 'undo' | 'redo') => stepHistory(db, id, state(id).revision, direction)

describe('keeping a tune', () => {
  test('what is written is read back, by another connection too', () => {
    const folder = mkdtempSync(join(tmpdir(), 'heron-'))
    const file = join(folder, 'test.sqlite')
    const first = openDatabase(file)
    expect(first.$client.pragma('journal_mode', { simple: true })).toBe('wal')
    const id = createTune(first, newDocument('Kept', '| C |'))
    editTune(first, id, readTune(first, id)!.revision, {
      kind: 'choose',
      slot: '1:1',
      choice: one('Cmaj9', 'major-colour'),
    })
    // No close: as when the process is killed.
    const second = openDatabase(file)
    expect(readTune(second, id)!.document).toMatchObject({
      title: 'Kept',
      choices: { '1:1': one('Cmaj9', 'major-colour') },
    })
    first.$client.close()
    second.$client.close()
    rmSync(folder, { recursive: true })
  })
  test('undo and redo walk through every state exactly, whatever was done', () => {
    fc.assert(
      fc.property(fc.array(anyEdit, { minLength: 1, maxLength: 8 }), (edits) => {
        const id = begin()
        const states = [state(id).document]
        for (const change of edits) {
          const before = state(id).revision
          const after = edit(id, change)
          if (state(id).revision !== before) states.push(after)
        }
        for (let at = states.length - 2; at >= 0; at -= 1) {
          step(id, 'undo')
          expect(state(id).document).toEqual(states[at])
        }
        expect(state(id).undo).toBeNull()
        for (let at = 1; at < states.length; at += 1) {
          step(id, 'redo')
          expect(state(id).document).toEqual(states[at])
        }
        expect(state(id).redo).toBeNull()
      }),
      { numRuns: 18 },
    )
  })
  test('an edit after undo leaves the undone revisions in the database', () => {
    const id = begin()
    edit(id, { kind: 'colour', colour: 3 })
    step(id, 'undo')
    edit(id, { kind: 'colour', colour: 1 })
    expect([...statesOf(db, id)].map(({ document }) => document.colour)).toEqual([0, 3, 1])
    step(id, 'undo')
    step(id, 'redo')
    expect(state(id).document.colour).toBe(1)
  })
  test('the plain chart is changed by no edit but its own text', () => {
    fc.assert(
      fc.property(
        fc.array(
          anyEdit.filter((one) => one.kind !== 'text'),
          { maxLength: 8 },
        ),
        (edits) => {
          const id = begin()
          edits.forEach((change) => edit(id, change))
          expect(state(id).document.text).toBe('| C | Am | Dm | G |')
        },
      ),
      { numRuns: 20 },
    )
  })
  test('grips that a search found are kept with the present state and are no step of undo', () => {
    const id = begin()
    edit(id, { kind: 'colour', colour: 2 })
    const { revision } = state(id)
    edit(id, { kind: 'grips', grips: { '1:1': [null, 3, 2, 0, 1, 0] } })
    expect(state(id).revision).toBe(revision)
    step(id, 'undo')
    step(id, 'redo')
    expect(state(id).document.grips).toEqual({ '1:1': [null, 3, 2, 0, 1, 0] })
  })
})

describe('two tabs', () => {
  test('the second writer is told, nothing is written over, and both can go on', () => {
    const id = begin()
    const seen = state(id).revision
    expect(editTune(db, id, seen, { kind: 'colour', colour: 2 }).kind).toBe('written')
    const outcome = editTune(db, id, seen, { kind: 'colour', colour: 4 })
    expect(outcome.kind).toBe('conflict')
    expect(outcome.kind === 'conflict' && outcome.state.document.colour).toBe(2)
    expect(state(id).document.colour).toBe(2)
    expect(stepHistory(db, id, seen, 'undo').kind).toBe('conflict')
    expect(editTune(db, id, state(id).revision, { kind: 'colour', colour: 4 }).kind).toBe('written')
  })
  test('a deleted tune takes no edits and comes back whole', () => {
    const id = begin()
    const { revision } = state(id)
    expect(deleteTune(db, id)).toBe(true)
    expect(deleteTune(db, id)).toBe(false)
    expect(readTune(db, id)).toBeNull()
    expect(editTune(db, id, revision, { kind: 'colour', colour: 2 }).kind).toBe('missing')
    restoreTunes(db, [id])
    expect(state(id).document.text).toBe('| C | Am | Dm | G |')
  })
})

describe('what was made follows its chords', () => {
  test('a bar put in before a chosen chord moves choice and grip along', () => {
    const id = begin()
    edit(id, { kind: 'choose', slot: '3:1', choice: one('Dm11', 'minor-colour') })
    edit(id, { kind: 'fix', slot: '3:1', frets: [null, 5, 5, 5, 6, null] })
    const after = edit(id, { kind: 'text', text: '| C | Em | Am | Dm | G |' })
    expect(after.choices).toEqual({ '4:1': one('Dm11', 'minor-colour') })
    expect(after.fixed).toEqual({ '4:1': [null, 5, 5, 5, 6, null] })
  })
  test('the title and the tempo of the text count when they are changed there', () => {
    const named = begin()
    expect(edit(named, { kind: 'text', text: 'title: Slack Tide\n| C |' }).title).toBe('Slack Tide')
    edit(named, { kind: 'title', title: 'Mine' })
    expect(edit(named, { kind: 'text', text: 'title: Slack Tide\n| C | F |' }).title).toBe('Mine')
    const id = begin('tempo: 100\n| C |')
    expect(state(id).document.tempo).toBe(100)
    edit(id, { kind: 'tempo', tempo: 60 })
    expect(edit(id, { kind: 'text', text: 'tempo: 100\n| C | F |' }).tempo).toBe(60)
    expect(edit(id, { kind: 'text', text: 'tempo: 140\n| C | F |' }).tempo).toBe(140)
  })
})

describe('transposing', () => {
  test('moves chart and chosen chords together, lets fixed grips go, and undo brings all of it back', () => {
    const id = begin('key: C\n| C | Am | Dm | G/B |')
    edit(id, { kind: 'choose', slot: '4:1', choice: one('G13b9/B', 'altered-dominant') })
    const before = edit(id, { kind: 'fix', slot: '1:1', frets: [null, 3, 2, 0, 1, 0] })
    expect(edit(id, { kind: 'transpose', to: 'Eb' })).toMatchObject({
      text: 'key: Eb\n| Eb | Cm | Fm | Bb/D |',
      choices: { '4:1': one('Bb13b9/D', 'altered-dominant') },
      fixed: {},
    })
    step(id, 'undo')
    expect(state(id).document).toEqual(before)
  })
})

describe('reading', () => {
  test('what is written in a transaction is read in it, by its own handle and by the book’s; what is taken back is not', () => {
    const id = begin()
    const titles: (string | undefined)[] = []
    expect(() =>
      db.transaction((tx) => {
        writeHead(tx, id, { ...state(id).document, title: 'Renamed' })
        titles.push(readTune(tx, id)?.document.title, readTune(db, id)?.document.title)
        throw new Error('taken back')
      }),
    ).toThrow('taken back')
    expect(titles).toEqual(['Renamed', 'Renamed'])
    expect(state(id).document.title).toBe('Test')
  })
  test('two books in one process are told apart', () => {
    const other = openDatabase(':memory:')
    const id = begin()
    expect(readTune(other, id)).toBeNull()
    const there = createTune(other, newDocument('There', '| C |'))
    expect([readTune(other, there)?.document.title, readTune(db, there)]).toEqual(['There', null])
    other.$client.close()
  })
})

const copied = (outcome: CopyOutcome): string => {
  if (outcome.kind !== 'copied') throw new Error(outcome.kind)
  return outcome.id
}

test('a copy has everything and goes its own way', () => {
  const id = begin()
  edit(id, { kind: 'colour', colour: 3 })
  const copy = copied(copyTune(db, id))
  expect(state(copy).document).toEqual({ ...state(id).document, title: 'Test (copy)' })
  edit(copy, { kind: 'colour', colour: 1 })
  expect(state(id).document.colour).toBe(3)
})

test('a copy that cannot be made leaves nothing behind: neither a tune nor the id of the write', () => {
  const id = begin()
  const of = { id: crypto.randomUUID(), base: state(id).revision }
  const before = db.select().from(tunes).all()
  expect(copyTune(db, id, { ...of, edits: [{ kind: 'fix', slot: '1:1', frets: [0] }] })).toMatchObject({
    kind: 'refused',
  })
  expect(copyTune(db, id, { ...of, base: crypto.randomUUID() })).toEqual({ kind: 'missing' })
  expect(copyTune(db, crypto.randomUUID())).toEqual({ kind: 'missing' })
  expect(db.select().from(tunes).all()).toEqual(before)
  const edits: TuneEdit[] = [{ kind: 'colour', colour: 2 }]
  const copy = copied(copyTune(db, id, { ...of, edits }))
  expect(state(copy).document).toMatchObject({ title: 'Test (copy)', colour: 2 })
  expect(copied(copyTune(db, id, { ...of, edits }))).toBe(copy)
})

describe('versions of a chart', () => {
  test('what stands now is kept under a name, follows edits of the chart, is taken up and let go', () => {
    const id = begin()
    edit(id, { kind: 'choose', slot: '2:1', choice: one('Am9', 'minor-colour') })
    edit(id, { kind: 'version-keep', name: 'Warm', at: 11 })
    edit(id, { kind: 'choose', slot: '2:1', choice: null })
    edit(id, { kind: 'text', text: '| F | C | Am | Dm | G |' })
    expect(state(id).document.versions).toMatchObject([
      { name: 'Warm', at: 11, choices: { '3:1': one('Am9', 'minor-colour') } },
    ])
    expect(edit(id, { kind: 'version-take', name: 'Warm' }).choices).toEqual({
      '3:1': one('Am9', 'minor-colour'),
    })
    expect(edit(id, { kind: 'version-remove', name: 'Warm' }).versions).toEqual([])
    step(id, 'undo')
    expect(state(id).document.versions).toHaveLength(1)
  })
})

test('a tune kept before choices could hold several chords is read as it was', () => {
  const id = begin()
  const old = {
    ...state(id).document,
    choices: { '2:1': { symbol: 'Am9', rule: 'a2', by: 'tune' } },
    versions: undefined,
  }
  expect(tuneDocument.parse(JSON.parse(JSON.stringify(old))).choices).toEqual({
    '2:1': { chords: [{ symbol: 'Am9', beats: 1 }], span: 1, rule: 'minor-colour', at: 0, by: 'tune' },
  })
})
