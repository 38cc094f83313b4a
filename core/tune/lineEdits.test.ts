import fc from 'fast-check'
import { newDocument, STAYS, type TuneDocument } from './document'
import { applyEdit, type TuneEdit } from './tuneEdit'

const tune = newDocument('Test', 'key: C\n| Cmaj7 | Am7 | Dm7 | G7 |')
const PLACES = ['1:1', '2:1', '3:1', '4:1'] as const
const after = (edits: readonly TuneEdit[], document: TuneDocument = tune): TuneDocument =>
  edits.reduce(applyEdit, document)
const fret = fc.option(fc.integer({ min: 0, max: 12 }), { nil: null })
const frets = fc.array(fret, { minLength: 6, maxLength: 6 })
const grips = fc.dictionary(fc.constantFrom(...PLACES), frets, { minKeys: 1 })
const GUITAR = 'E2 A2 D3 G3 B3 E4'
const DROP_D = 'D2 A2 D3 G3 B3 E4'

describe('grips chosen by hand', () => {
  test('stay through every search, wherever it looks; all others are as it found them', () => {
    fc.assert(
      fc.property(grips, fc.array(grips, { minLength: 1, maxLength: 4 }), (fixed, searches) => {
        const byHand = Object.entries(fixed).map(([slot, frets]): TuneEdit => ({ kind: 'fix', slot, frets }))
        const found = after([...byHand, ...searches.map((grips): TuneEdit => ({ kind: 'grips', grips }))])
        expect(found.fixed).toEqual(fixed)
        expect(found.grips).toEqual({ ...searches.at(-1), ...fixed })
      }),
    )
  })
  test('hold the rest of the line as it is, unless it is to be led anew', () => {
    const frets = [null, 3, 5, 4, 5, null]
    const picked = after([{ kind: 'line', line: 2 }])
    expect(after([{ kind: 'fix', slot: '1:1', frets }], picked).line).toBe(STAYS)
    expect(after([{ kind: 'fix', slot: '1:1', frets, anew: true }], picked).line).toBe(0)
    expect(after([{ kind: 'fix-many', grips: { '1:1': frets }, did: 'pulled' }], picked).line).toBe(STAYS)
  })
  test('left to the search again: nothing of them is left, not what they were called, nor the strings they are for', () => {
    fc.assert(
      fc.property(grips, fc.constantFrom(...PLACES), (others, slot) => {
        const before = after([
          { kind: 'fix-many', grips: others, did: 'pulled', on: GUITAR },
          { kind: 'fix', slot, frets: [null, 3, 5, 4, 5, null], on: GUITAR, called: 'C6' },
        ])
        expect(before.called).toEqual({ [slot]: 'C6' })
        const freed = after([{ kind: 'fix', slot, frets: null }], before)
        for (const made of [freed.fixed, freed.grips, freed.gripsOn, freed.called])
          expect(made).not.toHaveProperty([slot])
        const rest = Object.keys(others).filter((place) => place !== slot)
        expect(Object.keys(freed.fixed).sort()).toEqual(rest.sort())
      }),
    )
  })
  test('another grip at the same place is not called what the one before was', () => {
    const named = after([{ kind: 'fix', slot: '2:1', frets: [5, null, 5, 5, 5, null], called: 'Am7' }])
    const other = after([{ kind: 'fix', slot: '2:1', frets: [null, 0, 2, 0, 1, 0] }], named)
    expect(other.called).toEqual({})
    expect(other.fixed['2:1']).toEqual([null, 0, 2, 0, 1, 0])
  })
  test('know the strings they were made on; what the search finds later is for the strings of then', () => {
    const found = after([
      { kind: 'fix', slot: '1:1', frets: [null, 3, 5, 4, 5, null], on: GUITAR },
      { kind: 'grips', grips: { '1:1': [null, 3, 2, 0, 0, 0], '2:1': [5, null, 5, 5, 5, null] }, on: DROP_D },
    ])
    expect(found.gripsOn).toEqual({ '1:1': GUITAR, '2:1': DROP_D })
    expect(found.grips['1:1']).toEqual([null, 3, 5, 4, 5, null])
  })
})

describe('how the lines are led', () => {
  test('another style, bass or condition begins at the first line again', () => {
    const second = after([{ kind: 'line', line: 1 }])
    const changes: TuneEdit[] = [
      { kind: 'style', style: 'contrary' },
      { kind: 'bass', bass: 'any' },
      { kind: 'condition-add', condition: { kind: 'top', midi: 67, from: '2:1', to: '3:1' } },
      { kind: 'condition-remove', at: 0 },
    ]
    for (const edit of changes) expect(after([edit], second).line).toBe(0)
  })
  test('a style from the list takes the place of a style of the player’s own', () => {
    const own = after([
      {
        kind: 'leading',
        leading: { ...tune.leading, own: { name: 'Low and close', base: 'bass', weights: {} } },
      },
    ] as TuneEdit[])
    expect(own.style).toBe('bass')
    const listed = after([{ kind: 'style', style: 'smooth' }], own)
    expect(listed.leading.own).toBeNull()
    expect(listed.style).toBe('smooth')
  })
  test('what is fixed by hand is not touched by any of it', () => {
    fc.assert(
      fc.property(
        grips,
        fc.array(
          fc.oneof(
            fc.constantFrom('smooth', 'contrary', 'bass', 'top', 'position').map((style) => ({
              kind: 'style',
              style,
            })),
            fc.integer({ min: 0, max: 4 }).map((line) => ({ kind: 'line', line })),
            fc.constantFrom('root', 'any').map((bass) => ({ kind: 'bass', bass })),
          ),
          { maxLength: 8 },
        ),
        (fixed, edits) => {
          const before = after([{ kind: 'fix-many', grips: fixed, did: 'pulled' }])
          const changed = after(edits as TuneEdit[], before)
          expect(changed.fixed).toEqual(fixed)
          expect(changed.grips).toEqual(before.grips)
        },
      ),
    )
  })
})
