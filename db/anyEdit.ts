import fc from 'fast-check'
import type { TuneEdit } from '../core/tune/tuneEdit'

/** Edits for tests, of every area of a tune. */

export const one = (symbol: string, rule: string) => ({
  chords: [{ symbol, beats: 4 }],
  span: 1,
  rule,
  at: 5,
})

export const anyEdit: fc.Arbitrary<TuneEdit> = fc.oneof(
  fc.string({ maxLength: 40 }).map((text): TuneEdit => ({ kind: 'text', text: `| ${text} |` })),
  fc
    .constantFrom(0, 1, 2, 3, 4 as const)
    .map((colour): TuneEdit => ({ kind: 'colour', colour: colour as 0 })),
  fc
    .constantFrom('1:1', '2:1', '3:1')
    .map((slot): TuneEdit => ({ kind: 'choose', slot, choice: one('C6/9', 'major-colour') })),
  fc.constantFrom('1:1', '2:1', '3:1').map((slot): TuneEdit => ({
    kind: 'choose',
    slot,
    choice: {
      ...one('Em7', 'vi-for-i'),
      chords: [
        { symbol: 'Em7', beats: 2 },
        { symbol: 'A7', beats: 6 },
      ],
      span: 2,
    },
  })),
  fc.constantFrom('1:1', '2:1').map((from): TuneEdit => ({
    kind: 'condition-add',
    condition: { kind: 'top', midi: 67, from, to: '3:1' },
  })),
  fc.constant<TuneEdit>({ kind: 'condition-remove', at: 0 }),
  fc.constantFrom('First', 'Second').map((name): TuneEdit => ({ kind: 'version-keep', name, at: 7 })),
  fc.constantFrom('First', 'Second').map((name): TuneEdit => ({ kind: 'version-take', name })),
  fc.constantFrom('First').map((name): TuneEdit => ({ kind: 'version-remove', name })),
  fc.constantFrom('1:1', '2:1').map((slot): TuneEdit => ({ kind: 'choose', slot, choice: null })),
  fc
    .constantFrom('1:1', '4:1')
    .map((slot): TuneEdit => ({ kind: 'fix', slot, frets: [null, 3, 2, 0, 1, 0] })),
  fc.integer({ min: 20, max: 400 }).map((tempo): TuneEdit => ({ kind: 'tempo', tempo })),
  fc.constantFrom('Later', 'Plain').map((name): TuneEdit => ({ kind: 'chart-add', name })),
  fc.nat(3).map((at): TuneEdit => ({ kind: 'chart-show', at })),
  fc
    .constantFrom('1:1', '3:1')
    .map((slot): TuneEdit => ({ kind: 'way', choices: { [slot]: one('Am7', 'vi-for-i') }, did: 'way 1' })),
  fc.constant<TuneEdit>({ kind: 'chart-remove' }),
  fc.constantFrom('First', 'Second').map((name): TuneEdit => ({ kind: 'chart-name', name })),
  fc.constantFrom('Alpha', 'Beta').map((title): TuneEdit => ({ kind: 'title', title })),
)

/** What a search found: it belongs to the present state. */
export const foundEdit: fc.Arbitrary<TuneEdit> = fc.constantFrom(3, 5).map((fret) => ({
  kind: 'grips',
  grips: { '1:1': [null, fret, fret, null, null, null] },
}))
