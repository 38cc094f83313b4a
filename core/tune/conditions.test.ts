import { newDocument } from './document'
import { readTuneDocument } from './tuneReading'
import { applyEdit } from './tuneEdit'
import { constraintsOf, readCondition } from './conditions'

test.each([
  ['top', 'E4', { kind: 'top', midi: 64 }],
  ['sounds', 'Bb3', { kind: 'sounds', midi: 58 }],
  ['top', 'H4', null],
  ['top', '', null],
  ['silent', '1', { kind: 'silent', string: 5 }],
  ['open', '6', { kind: 'open', string: 0 }],
  ['open', '7', null],
  ['frets', '5 9', { kind: 'frets', low: 5, high: 9 }],
  ['frets', '5-9', { kind: 'frets', low: 5, high: 9 }],
  ['frets', '9 5', null],
  ['frets', '5', null],
  ['range', 'D3 C5', { kind: 'range', low: 50, high: 72 }],
  ['range', 'D3', null],
] as const)('%s "%s" is read', (kind, text, wanted) => expect(readCondition(kind, text, 6)).toEqual(wanted))

describe('conditions of a tune', () => {
  const tune = applyEdit(newDocument('T', 'key: C\n| C | F | G7 | C |'), {
    kind: 'condition-add',
    condition: { kind: 'top', midi: 67, from: '2:1', to: '3:1' },
  })
  const constraints = (document: typeof tune, strings = 6) =>
    constraintsOf(
      document.conditions,
      readTuneDocument(document).line.filter((one) => one.decision),
      strings,
    )
  test('are kept by places and asked for by the chords that sound there', () => {
    expect(constraints(tune)).toEqual([{ kind: 'top', midi: 67, from: 1, to: 2 }])
    expect(applyEdit(tune, { kind: 'condition-remove', at: 0 }).conditions).toEqual([])
  })
  test('move with their chords, and go when the chords go', () => {
    expect(constraints(applyEdit(tune, { kind: 'text', text: 'key: C\n| Am | C | F | G7 | C |' }))).toEqual([
      { kind: 'top', midi: 67, from: 2, to: 3 },
    ])
    expect(constraints(applyEdit(tune, { kind: 'text', text: 'key: C\n| C | Am |' }))).toEqual([])
  })
  test('into another key only those that are no pitches go along; a string the instrument lacks is passed over', () => {
    const two = applyEdit(tune, {
      kind: 'condition-add',
      condition: { kind: 'silent', string: 6, from: '1:1', to: '4:1' },
    })
    expect(applyEdit(two, { kind: 'transpose', to: 'D' }).conditions.map(({ kind }) => kind)).toEqual([
      'silent',
    ])
    expect(constraints(two, 6).map(({ kind }) => kind)).toEqual(['top'])
    expect(constraints(two, 7).map(({ kind }) => kind)).toEqual(['top', 'silent'])
  })
})
