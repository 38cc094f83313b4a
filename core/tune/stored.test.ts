import fc from 'fast-check'
import { newDocument, tuneDocument, type TuneDocument } from './document'
import { openDocument } from './stored'
import { tryEdit } from './tryEdit'
import { netEdits } from './optimistic'
import { applyEdit } from './tuneEdit'

const tune = newDocument('A tune', '| C | Am | F | G7 |')

describe('a document as it was stored', () => {
  test('of today is what it was; of before gets what came later', () => {
    expect(openDocument(tune)).toEqual({ document: tune, unread: [] })
    const { gripsOn: _, called: __, melody: ___, chordMelody: ____, ...before } = tune
    expect(openDocument(before, 0)).toEqual({ document: tune, unread: [] })
  })
  test('always opens, whatever it is: at the least as its title and text, with what was wrong', () => {
    fc.assert(
      fc.property(fc.dictionary(fc.constantFrom(...Object.keys(tune), 'other'), fc.anything()), (spoiled) => {
        const { document, unread } = openDocument({ ...tune, ...spoiled })
        expect(tuneDocument.safeParse(document).success).toBe(true)
        expect(unread.every((words) => words.length > 0 && !/Invalid|Too small|Expected/.test(words))).toBe(
          true,
        )
      }),
      { numRuns: 300 },
    )
    expect(openDocument('nothing').document.title).toBe('Untitled')
    expect(
      openDocument({
        ...tune,
        tempo: 'fast',
        melody: [
          { bar: 1, beat: 1, beats: 1, note: 'E4' },
          { bar: 1, beat: 2, beats: -1, note: 'E4' },
        ],
      }),
    ).toMatchObject({
      document: { text: tune.text, melody: [{ note: 'E4' }] },
      unread: ['The tempo is “fast”, which is not a number.', expect.stringContaining('length in beats')],
    })
  })
})

describe('an edit that cannot be taken', () => {
  const refused = (document: TuneDocument, edit: unknown) => {
    const tried = tryEdit(document, edit)
    return tried.ok ? null : tried.message
  }
  test('is refused in a player’s words, never in those of the schema library', () => {
    expect(refused(tune, { kind: 'tempo', tempo: 5 })).toBe('The tempo is 5; accepted is at least 20.')
    expect(
      refused(tune, {
        kind: 'choose',
        slot: '1:1',
        choice: { chords: [{ symbol: 'H7', beats: 1 }], span: 1, rule: '', at: 0 },
      }),
    ).toContain('accepted is a chord symbol such as Am9')
    expect(refused(tune, { kind: 'colour', colour: 9 })).toMatch(/colour/)
    expect(refused(tune, { kind: 'unheard of' })).toMatch(/accepted|not known/i)
    fc.assert(
      fc.property(
        fc.record({
          kind: fc.constantFrom('text', 'melody', 'fix', 'bass', 'tempo', 'choose', 'grips', 'leading'),
          text: fc.anything(),
          melody: fc.anything(),
          slot: fc.anything(),
          frets: fc.anything(),
          tempo: fc.anything(),
          grips: fc.anything(),
        }),
        (edit) => {
          const message = refused(tune, edit)
          if (message !== null)
            expect(message).not.toMatch(
              /Invalid (input|option)|Too (small|big)|expected \w+, received|edit\./,
            )
        },
      ),
    )
  })
  test('is refused where a limit is reached, and not answered by doing nothing', () => {
    let full = tune
    for (let at = 0; at < 30; at += 1) full = applyEdit(full, { kind: 'version-keep', name: `V${at}`, at: 0 })
    expect(refused(full, { kind: 'version-keep', name: 'One more', at: 0 })).toContain('30 versions')
    expect(refused(full, { kind: 'version-keep', name: 'V3', at: 0 })).toBeNull()
    expect(refused(tune, { kind: 'chart-remove' })).toContain('only chart')
    expect(refused(tune, { kind: 'version-take', name: 'gone' })).toContain('no version “gone”')
  })
  test('leaves the document it was tried on as it was, and a taken one can always be kept', () => {
    const melody = (note: string) => [{ bar: 1, beat: 1, beats: 1, note }]
    fc.assert(
      fc.property(
        fc.constantFrom('C', 'C#', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'),
        fc.constantFrom('B9', 'G9', 'C0', 'C-1', 'E4'),
        (to, note) => {
          const sung = applyEdit(tune, { kind: 'melody', melody: melody(note), did: 'note' })
          const tried = tryEdit(sung, { kind: 'transpose', to })
          if (tried.ok) expect(tuneDocument.safeParse(tried.document).success).toBe(true)
          else expect(tried.message).toMatch(/pitch|note/i)
        },
      ),
    )
  })
})

test('of edits and undos waiting, what is left is what was not taken back', () => {
  const edit = (tempo: number) => ({ id: '', edit: { kind: 'tempo' as const, tempo } })
  const [undo, redo] = [
    { id: '', step: 'undo' as const },
    { id: '', step: 'redo' as const },
  ]
  const left = (...writes: Parameters<typeof netEdits>[0][number][]) =>
    netEdits(writes).map((one) => ('tempo' in one ? one.tempo : 0))
  expect(left(edit(50), edit(51), undo)).toEqual([50])
  expect(left(edit(50), undo, undo, redo)).toEqual([50])
  expect(left(edit(50), undo, edit(60), redo)).toEqual([60])
})
