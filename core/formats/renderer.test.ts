import { entryOf, itemAt } from '../lists'
import { rendered } from '../../bench/mei'
import { slotsOf } from '../chart/chart'
import { parseChart } from '../chart/parseChart'
import type { Lyric } from '../melody/lyrics'
import { midiOf, parsePitch } from '../pitch/note'
import { must } from '../result'
import { TUNE_LIMITS } from '../voicing/gripLimits'
import { exportChart } from './exportChart'

const note = (bar: number, beat: number, beats: number, pitch: string) => ({
  bar,
  beat,
  beats,
  note: must(parsePitch(pitch)),
})
const TUNES: readonly { text: string; melody: ReturnType<typeof note>[]; lyrics: Lyric[] }[] = [
  {
    text: 'title: Signs\nkey: Bb\nmeter: 4/4\n|: Bb | F#m7b5 B7(#9) |1. C7 :|2. D7 |\n[B] | Gm | Am7 D7alt | N.C. | Gm/F |',
    melody: [
      note(1, 1, 1.5, 'Bb4'),
      note(1, 2.5, 3.5, 'F#4'),
      note(5, 1, 1, 'Eb5'),
      note(5, 2, 2.5, 'E5'),
      note(8, 4, 1, 'Cb5'),
    ],
    lyrics: [
      { bar: 1, beat: 1, text: 'home', joins: true },
      { bar: 1, beat: 2.5, text: 'ward' },
      { bar: 5, beat: 2, text: 'now' },
    ],
  },
  {
    text: 'title: Three\nkey: F\nmeter: 3/4\npickup: 1\n| C7 | F | Bb . C7 | F |',
    melody: [
      note(0, 3, 1, 'C5'),
      ...[1, 1.333, 1.667].map((beat) => note(1, beat, 0.333, 'A4')),
      note(1, 2, 2, 'F4'),
      note(3, 1, 3, 'F4'),
    ],
    lyrics: [],
  },
  {
    text: 'title: Eights\nkey: Em\nmeter: 6/8\n| Em | Am . . B7 . . |\nkey: G\n| G | D7 |',
    melody: [
      note(1, 1, 1, 'B4'),
      note(1, 2, 1, 'C5'),
      note(1, 3, 1, 'D#5'),
      note(1, 4, 3, 'E5'),
      note(3, 1, 2, 'B4'),
    ],
    lyrics: [],
  },
]

/**
 * Signs and brackets as they are engraved differ; verovio 6 writes the root of a chord of kind
 * `none`, which says N.C. by its text.
 */
const plain = (symbol: string): string =>
  symbol
    .replaceAll('♭', 'b')
    .replaceAll('♯', '#')
    .replace(/[()]/g, '')
    .replace(/^N\.C\.$/, 'C')

describe('our files in a general renderer', () => {
  const out = (format: 'musicxml' | 'abc', frets: (number | null)[][] = []) =>
    TUNES.map(
      ({ text, melody, lyrics }) =>
        must(exportChart({ chart: parseChart(text), frets, melody, lyrics, limits: TUNE_LIMITS }, format))
          .content,
    )
  const xml = rendered(out('musicxml'))
  const abc = rendered(out('abc'))

  test.each(TUNES.map((tune, index) => [itemAt(/title: (\w+)/.exec(tune.text)!, 1), tune, index] as const))(
    '%s: the same bars, notes, lengths, symbols, repeats, endings and words, in MusicXML and in ABC',
    (_, { text, melody, lyrics }, index) => {
      const chart = parseChart(text)
      const symbols = slotsOf(chart).map((slot) => slot.text)
      const bars = new Map(chart.bars.map((bar) => [bar.number, bar]))
      const lengths = melody.map(
        (one) => Math.round(one.beats * (4 / entryOf(bars, one.bar).meter.unit) * 1000) / 1000,
      )
      const repeats = chart.bars.flatMap(({ opensRepeat, played }) => [
        ...(opensRepeat ? ['rptstart'] : []),
        ...(played > 0 ? ['rptend'] : []),
      ])
      for (const read of [xml[index]!, abc[index]!]) {
        expect(read.measures).toBe(chart.bars.length)
        expect(read.pitches).toEqual(melody.map((one) => midiOf(one.note)))
        read.lengths.forEach((length, at) => expect(length).toBeCloseTo(itemAt(lengths, at), 2))
        // It writes degrees behind the text of a kind that says them, though they ask not to be
        // printed.
        expect(
          read.harms.map((one, order) => plain(one).slice(0, plain(itemAt(symbols, order)).length)),
        ).toEqual(symbols.map(plain))
        expect(read.repeats).toEqual(repeats)
        expect(read.words).toEqual(lyrics.map((one) => one.text))
      }
      expect(itemAt(xml, index)!.endings).toEqual(
        chart.bars.filter(({ ending }) => ending.length > 0).map(({ ending }) => ending.join()),
      )
    },
  )

  test('grips stand on a staff of tablature under the notes', () => {
    const { text } = itemAt(TUNES, 1)
    const grips = [
      [null, 3, 2, 3, 1, null],
      [1, 3, 3, 2, 1, 1],
      [null, 1, 3, 3, 3, null],
      [null, 3, 2, 3, 1, null],
      [1, 3, 3, 2, 1, 1],
    ]
    const content = must(
      exportChart({ chart: parseChart(text), frets: grips, melody: [], limits: TUNE_LIMITS }, 'musicxml'),
    ).content
    const [read] = rendered([content])
    expect(read!.clefs).toEqual(['G', 'TAB'])
    expect(content).toContain('<staff-tuning line="1">')
  })
})
