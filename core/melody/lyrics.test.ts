import fc from 'fast-check'
import { lyricsInOrder, lyricAt, MOST_LYRIC, printLyrics, readLyrics, type Lyric } from './lyrics'

const bar = { number: 3, from: 1, beats: 4 }
const read = (typed: string, onsets: readonly number[] = []) =>
  readLyrics(typed, bar, onsets).map(({ beat, text, joins }) => [beat, joins ? `${text}-` : text])

test('words go on the notes of the bar in turn, syllables too; a dot leaves a note without', () => {
  expect(read('sum-mer night', [1, 2, 3.5])).toEqual([
    [1, 'sum-'],
    [2, 'mer'],
    [3.5, 'night'],
  ])
  expect(read('. home', [1, 2, 3])).toEqual([[2, 'home']])
  expect(read('far a-way from here', [1, 3])).toEqual([
    [1, 'far'],
    [3, 'a- way from here'],
  ])
})

test('without notes all of it stands at the beginning; a beat can be said', () => {
  expect(read('over the water')).toEqual([[1, 'over the water']])
  expect(read('over @3 the wa-')).toEqual([
    [1, 'over'],
    [3, 'the wa-'],
  ])
  // Beats that the bar does not have are no places.
  expect(read('@5 late @2 in time')).toEqual([[2, 'in time']])
  expect(read('  ')).toEqual([])
})

const texts = fc
  .oneof(
    fc.string({ unit: 'grapheme', maxLength: 12 }),
    fc.constantFrom('home', 'sum-', 'of the', '.', '@3', 'a-b', '-', 'end.', '. .', '@ 2', 'x @1 y'),
  )
  .map((text) => lyricAt({ bar: 3, beat: 1 }, text))
  .filter((one) => one !== null)
const places = fc.uniqueArray(fc.constantFrom(1, 1.5, 2, 2.333, 3, 3.75, 4), { maxLength: 5 })

test('what a bar prints reads back as the same words, whatever notes it has', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(texts, places), { maxLength: 1 }),
      places,
      fc.array(texts),
      places,
      (_, at, words, onsets) => {
        const lyrics = lyricsInOrder(
          at.flatMap((beat, index): Lyric[] => (words[index] ? [{ ...words[index], beat }] : [])),
        )
        const notes = [...onsets].sort((a, b) => a - b)
        expect(readLyrics(printLyrics(lyrics, bar, notes), bar, notes)).toEqual(lyrics)
      },
    ),
    { numRuns: 500 },
  )
})

test('words fit on one line and within their length', () => {
  expect(lyricAt({ bar: 1, beat: 1 }, ' a\n\tb ')).toEqual({ bar: 1, beat: 1, text: 'a b' })
  expect(lyricAt({ bar: 1, beat: 1 }, 'x'.repeat(300))!.text).toHaveLength(MOST_LYRIC)
  expect(lyricAt({ bar: 1, beat: 1 }, ' - ')).toBeNull()
})
