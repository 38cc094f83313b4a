import { newDocument } from './document'
import { applyEdit } from './tuneEdit'
import { openDocument } from './stored'
import { tryEdit } from './tryEdit'

const tune = {
  ...newDocument('Sung', '| C | F G7 | Am |'),
  lyrics: [
    { bar: 1, beat: 1, text: 'over' },
    { bar: 2, beat: 3, text: 'wa', joins: true as const },
    { bar: 3, beat: 1, text: 'ter' },
  ],
}
const places = ({ lyrics }: typeof tune | ReturnType<typeof applyEdit>) =>
  lyrics.map(({ bar, beat, text }) => `${bar}:${beat} ${text}`)

test('the words of one bar are put in place of those it has; others stay', () => {
  const next = applyEdit(tune, {
    kind: 'lyrics',
    bar: 2,
    lyrics: [
      { bar: 2, beat: 3, text: 'b' },
      { bar: 2, beat: 1, text: 'a' },
      // What is of another bar is not of this edit.
      { bar: 3, beat: 1, text: 'c' },
    ],
  })
  expect(places(next)).toEqual(['1:1 over', '2:1 a', '2:3 b', '3:1 ter'])
})

test('words go with their chords when bars are put in; none is lost where a chord is taken out', () => {
  expect(places(applyEdit(tune, { kind: 'text', text: '| Dm7 | C | F G7 | Am |' }))).toEqual([
    '2:1 over',
    '3:3 wa',
    '4:1 ter',
  ])
  const less = applyEdit(tune, { kind: 'text', text: '| C | Am |' })
  expect(less.lyrics.flatMap(({ text }) => text.split(' ')).sort()).toEqual(['over', 'ter', 'wa'])
})

test('a file brought in takes its words and drawn grips along; without words those there were go, a melody stays', () => {
  const melody = [{ bar: 1, beat: 1, beats: 1, note: 'E4' }]
  const next = applyEdit(
    { ...tune, melody },
    {
      kind: 'bring-in',
      text: '| C | C/E |',
      lyrics: [{ bar: 2, beat: 1, text: 'home' }],
      drawn: [{ symbol: 'C', frets: [null, 3, 2, 0, 1, 0] }],
      did: 'chords brought in',
    },
  )
  expect(places(next)).toEqual(['2:1 home'])
  expect(next.grips).toEqual({ '1:1': [null, 3, 2, 0, 1, 0] })
  expect(next.melody).toEqual(melody)
})

test('words that could not be kept are refused with a sentence, and a document of the version before opens without any', () => {
  expect(tryEdit(tune, { kind: 'lyrics', bar: 1, lyrics: [{ bar: 1, beat: 1, text: ' ' }] })).toMatchObject({
    ok: false,
  })
  const { lyrics: _, ...before } = tune
  expect(openDocument(before, 1)).toMatchObject({ document: { lyrics: [] }, unread: [] })
  expect(openDocument({ ...tune, lyrics: [...tune.lyrics, { bar: 'x' }] })).toMatchObject({
    document: { lyrics: tune.lyrics },
    unread: [expect.stringMatching(/bar is “x”/)],
  })
})
