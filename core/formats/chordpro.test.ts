import { ChordLyricsPair, ChordProParser } from 'chordsheetjs'
import { parseChart } from '../chart/parseChart'
import { printChart } from '../chart/print'
import { must } from '../result'
import { TUNE_LIMITS } from '../voicing/gripLimits'
import { exportChart } from './exportChart'
import { importChart } from './importChart'

const out = (text: string): string =>
  must(exportChart({ chart: parseChart(text), frets: [], melody: [], limits: TUNE_LIMITS }, 'chordpro'))
    .content
const back = (text: string) => importChart(out(text), 'chordpro')

const CHARTS: readonly string[] = [
  'title: A\nkey: C\nmeter: 4/4\ntempo: 120\ncapo: 2\n[A] | C | Am F | G7 | C |\n[B] | F | G7 |',
  'key: G\nmeter: 4/4\npickup: 1\n| D7 |: G | Em7 . _A7 . | Am7 D7 |1. Bm7 E7 :|2. G |',
  'key: C\nmeter: 4/4\n|: C | F :|x3\n| G7 | C |',
  'key: C\nmeter: 4/4\n|: C | F :|: G7 | C :|',
  'key: C\nmeter: 4/4\n| Segno C | F To Coda | G7 D.S. al Coda |\n| Coda C | Fine C Fine |'.replace(
    'Fine C Fine',
    'C Fine',
  ),
  'key: C\nmeter: 4/4\n| C | % | N.C. | . G7 . . |\nkey: Eb\nmeter: 3/4\n| Ebmaj7 | Ab Bb7 . |',
  'key: F\nmeter: 6/8\n| F . . C7__Bb . . | F |',
]

test.each(CHARTS)('a chart comes back out of its own ChordPro with nothing said: %j', (text) => {
  const read = back(text)
  expect(read.warnings).toEqual([])
  expect(printChart(parseChart(read.text))).toBe(
    printChart({ ...parseChart(text), title: parseChart(text).title ?? 'Untitled' }),
  )
  // And the file of what came back is the same file.
  expect(out(read.text)).toBe(out(text))
})

test('tablature and other notations are no chords, comments are remarks, and signs of the form are read', () => {
  const read = importChart(
    '{title: T}\n{start_of_tab}\ne|--3--|--0--|\n{end_of_tab}\n{comment: Segno}\n{ci: let it ring | "all"}\n{c: Verse 2}\n{sog}\n| C . . . | G . . . |\n{eog}\n{c: D.S.}\n{comment: softly}\n{c: Am7}\n',
    'chordpro',
  )
  expect(read.text).toBe(`title: T\n[Verse 2] | "let it ring 'all'" Segno C . . . | G . . . D.S. |\n"softly"`)
  const { bars, problems } = parseChart(read.text)
  expect(problems).toEqual([])
  expect(bars.map(({ remarks }) => remarks)).toEqual([["let it ring 'all'"], ['softly']])
  expect(read.warnings.map(({ line }) => line)).toEqual([2, 13])
})

test('a chord that cannot be read is a beat of silence: what stands behind it keeps its place', () => {
  const read = importChart('{sog}\n| Cquux7 . G7 . | C . . . |\n{eog}', 'chordpro')
  expect(read.text).toBe('| N.C. . G7 . | C . . . |')
  expect(read.warnings.map(({ text }) => text)).toEqual(['Cquux7'])
})

test('another reader (chordsheetjs 15) finds the settings and the words under their chords', () => {
  const lyrics = [
    { bar: 1, beat: 1, text: 'Over' },
    { bar: 1, beat: 2, text: 'the' },
    { bar: 2, beat: 1, text: 'wa', joins: true as const },
    { bar: 2, beat: 3, text: 'ter' },
  ]
  const chart = parseChart(
    'title: Low Tide\nkey: Bb\nmeter: 3/4\ntempo: 96\ncapo: 3\n| Bb | F#m7b5 . B7(#9) | Gm7 |',
  )
  const { content } = must(
    exportChart({ chart, frets: [], melody: [], lyrics, limits: TUNE_LIMITS }, 'chordpro'),
  )
  const song = new ChordProParser().parse(content)
  expect([song.title, song.key, song.time, song.capo, song.tempo]).toEqual([
    'Low Tide',
    'Bb',
    '3/4',
    '3',
    '96',
  ])
  const pairs = song.lines
    .flatMap(({ items }) => items)
    .flatMap((item) =>
      item instanceof ChordLyricsPair && item.chords ? [[item.chords, item.lyrics?.trim()]] : [],
    )
  expect(pairs).toEqual([
    ['Bb', 'Over'],
    ['F#m7b5', 'wa'],
    ['B7(#9)', 'ter'],
    ['Gm7', ''],
  ])
})

test('a grip behind the capo does not sound: it is refused, not written with frets below nothing', () => {
  const refused = exportChart(
    { chart: parseChart('capo: 3\n| F |'), frets: [[1, 3, 3, 2, 1, 1]], melody: [], limits: TUNE_LIMITS },
    'chordpro',
  )
  expect(refused).toMatchObject({ ok: false, fault: { code: 'unplayable', at: 0 } })
})
