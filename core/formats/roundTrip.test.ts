import { entryOf, itemAt } from '../lists'
import fc from 'fast-check'
import { parseChart } from '../chart/parseChart'
import { printChart } from '../chart/print'
import { lyricsInOrder, lyricAt, type Lyric } from '../melody/lyrics'
import { parsePitch } from '../pitch/note'
import type { MelodyNote } from '../reharm/melodyFit'
import { must } from '../result'
import { TUNE_LIMITS } from '../voicing/gripLimits'
import { exportChart, type ExportFormat } from './exportChart'
import { importChart } from './importChart'
import { importTune } from './importTune'

/** Everything a file holds of a tune. */
interface Tune {
  text: string
  melody: readonly MelodyNote[]
  lyrics: readonly Lyric[]
}

const out = ({ text, melody, lyrics }: Tune, format: ExportFormat): string =>
  must(exportChart({ chart: parseChart(text), frets: [], melody, lyrics, limits: TUNE_LIMITS }, format))
    .content

/** A tune out of a file, and what the reader said. */
function back(content: string, format: 'chordpro' | 'musicxml' | 'abc'): Tune & { said: string[] } {
  if (format === 'chordpro') {
    const { text, lyrics, warnings } = importChart(content, format)
    return { text, melody: [], lyrics, said: warnings.map(({ message }) => message) }
  }
  const { text, melody, lyrics, warnings } = must(importTune(content, format))
  return {
    text,
    melody: melody.map((one) => ({ ...one, note: must(parsePitch(one.note)) })),
    lyrics,
    said: warnings,
  }
}

const symbols = fc.constantFrom(
  'C', 'Am7', 'F#m7b5', 'Bb7(#9)', 'D/F#', 'N.C.', 'G13(b9)', 'Ebmaj9', 'Abm(maj7)', 'Bdim7', 'C7sus4', 'E7alt', 'Fadd9', 'A6/9', 'Db7(b5,#9)', 'G7no5', 'Caug', 'Gm11',
) // prettier-ignore
const bar = fc.oneof(
  symbols,
  fc.tuple(symbols, symbols).map((pair) => pair.join(' ')),
  fc.tuple(symbols, symbols).map(([a, b]) => `${a} . _${b} .`),
  fc.constant('. C . .'),
  fc.constant('%'),
)

const charts = fc
  .record({
    title: fc.constantFrom('Low Tide', 'A & B <"c">', 'Übermorgen'),
    key: fc.constantFrom('C', 'Eb', 'F#m', 'Am', 'Db'),
    capo: fc.constantFrom(0, 3),
    pickup: fc.boolean(),
    parts: fc.array(
      fc.record({
        section: fc.constantFrom('', '[A] ', '[Bridge] '),
        bars: fc.array(bar, { minLength: 1, maxLength: 9 }),
        repeat: fc.constantFrom('', ':|', ':|x3', 'endings'),
        change: fc.constantFrom('', 'key: D\n', 'meter: 3/4\n', 'key: Bbm\nmeter: 6/8\n'),
        mark: fc.constantFrom('', 'Fine', 'To Coda'),
        remark: fc.constantFrom('', '', '"lightly" ', '"Verse 2" "à 2, (brushes) & more; x3" '),
      }),
      { minLength: 1, maxLength: 4 },
    ),
  })
  .map(({ title, key, capo, pickup, parts }) => {
    const lines = parts.map(({ section, bars, repeat, change, mark, remark }, at) => {
      const inside = remark + bars.join(' | ')
      const head = (at > 0 ? change : '') + section
      if (repeat === 'endings') return `${head}|: ${inside} |1. C :|2. G7 |`
      if (repeat) return `${head}|: ${inside} ${repeat}`
      return `${head}| ${inside}${mark ? ` ${mark}` : ''} |`
    })
    return [
      `title: ${title}`,
      `key: ${key}`,
      'meter: 4/4',
      'tempo: 96',
      ...(capo ? [`capo: ${capo}`] : []),
      ...(pickup ? ['pickup: 1', '| G7 |'] : []),
      ...lines,
    ].join('\n')
  })

// Named exception: what a chart tells as a problem (no such symbol, beats that do not add up,
// nothing to repeat) is no music a file could hold.
const soundCharts = charts.filter((text) => parseChart(text).problems.length === 0)

const pitches = fc.constantFrom('C4', 'F#4', 'Bb4', 'G4', 'Db5', 'B3', 'Cb5', 'E#4')
const words = fc.constantFrom('home', 'sum-', 'of the', 'end.', 'a-b', 'x', 'späť', '“no”')

/** Notes on eighths, and words on some of them. */
const tunes = fc
  .tuple(
    soundCharts,
    fc.array(fc.tuple(fc.nat(200), pitches, fc.integer({ min: 1, max: 6 }), words, fc.boolean()), {
      maxLength: 24,
    }),
  )
  .map(([text, notes]): Tune => {
    const { bars } = parseChart(text)
    const eighths = bars.flatMap(({ number, from, beats, meter }) =>
      Array.from({ length: (beats * 8) / meter.unit }, (_, at) => ({
        bar: number,
        beat: from + (at * meter.unit) / 8,
        eighth: meter.unit / 8,
      })),
    )
    const sorted = new Map(notes.map((one) => [one[0] % eighths.length, one]))
    const places = [...sorted.keys()].sort((a, b) => a - b)
    const melody: MelodyNote[] = []
    const lyrics: Lyric[] = []
    places.forEach((place, at) => {
      const [, pitch, length, word, sung] = entryOf(sorted, place)
      const { bar: number, beat, eighth } = itemAt(eighths, place)
      const room = (places[at + 1] ?? eighths.length) - place
      // Inside its bar: a note over a bar line of another metre is tried elsewhere.
      const inBar = eighths.slice(place).findIndex((one) => one.bar !== number)
      const lasts = Math.min(length, room, inBar < 0 ? room : inBar)
      const note = must(parsePitch(pitch))
      // Two eighths of a beat may be three notes of a triplet.
      if (lasts === 2 && length === 2 && Number.isInteger(beat) && eighth === 0.5)
        [0, 0.333, 0.667].forEach((later) =>
          melody.push({ bar: number, beat: beat + later, beats: 0.333, note }),
        )
      else melody.push({ bar: number, beat, beats: lasts * eighth, note })
      const lyric = sung ? lyricAt({ bar: number, beat }, word) : null
      if (lyric) lyrics.push(lyric)
    })
    return { text, melody, lyrics: lyricsInOrder(lyrics) }
  })

describe.each(['chordpro', 'musicxml', 'abc'] as const)(
  '%s: export, import, export is the same file',
  (format) => {
    test('chords, form, melody and words of every chart of the grammar', () => {
      fc.assert(
        fc.property(tunes, (tune) => {
          const first = out(tune, format)
          const read = back(first, format)
          if (format === 'chordpro') expect(read.said).toEqual([])
          expect(out({ ...read, melody: format === 'chordpro' ? [] : read.melody }, format)).toBe(first)
        }),
        { numRuns: 120 },
      )
    })
  },
)

test('chart text comes back exactly by the way of text, and every other way keeps its bars', () => {
  fc.assert(
    fc.property(charts, (text) => {
      const { text: read, warnings } = importChart(text, 'text')
      expect(warnings.filter(({ message }) => !message.includes('In line'))).toEqual([])
      expect(printChart(parseChart(read))).toBe(printChart(parseChart(text)))
    }),
    { numRuns: 120 },
  )
})

test('an open string stays open with a capo, in a grip that is defined and in one of a tablature', () => {
  const define = '{capo: 2}\n{define: D base-fret 1 frets x x 0 2 3 2}\n[D]a'
  expect(importChart(define, 'chordpro').grips).toEqual([{ symbol: 'D', frets: [null, null, 0, 4, 5, 4] }])
  // Beyond any neck there is no grip.
  expect(
    importChart('{capo: 9}\n{define: D base-fret 30 frets x x 1 2 3 2}\n[D]a', 'chordpro').grips,
  ).toEqual([])
  const tab = 'capo: 2\n   D\nE |2---|\nB |3---|\nG |2---|\nD |0---|\nA |----|\nE |----|'
  expect(importChart(tab, 'tab').grips).toEqual([{ symbol: 'D', frets: [null, null, 0, 4, 5, 4] }])
})

test('lines of chords above a tablature that are more than its own are chords by themselves', () => {
  const tab = 'C\nF\nG\n   D\nE |2---|\nB |3---|\nG |2---|\nD |0---|'
  expect(importChart(tab, 'tab').text).toBe('| C |\n| F |\n| G |\n| D |')
})

describe('tablature', () => {
  test('comes back: export, import, export is the same file, with half and third beats, capo, changes and signs', () => {
    const out = (text: string) => {
      const chart = parseChart(text)
      return must(exportChart({ chart, frets: [], melody: [], limits: TUNE_LIMITS }, 'tab')).content
    }
    fc.assert(
      fc.property(soundCharts, (text) => {
        const { text: read, warnings } = importChart(out(text), 'tab')
        expect(warnings).toEqual([])
        expect(out(read)).toBe(out(text))
      }),
      { numRuns: 120 },
    )
  })

  test('grips come back by their chords, as they lie with the capo', () => {
    const chart = parseChart('capo: 2\n| D . _A7 . | D |')
    const limits = { ...TUNE_LIMITS, instrument: { ...TUNE_LIMITS.instrument, capo: 2 } }
    const frets = [
      [null, null, 4, 4, 3, null],
      [null, 0, 4, 4, null, null],
      [null, null, 4, 4, 3, null],
    ]
    const file = exportChart({ chart, frets, melody: [], limits }, 'tab')
    const { grips } = importChart(must(file).content, 'tab')
    expect(grips).toContainEqual({ symbol: 'D', frets: frets[0] })
  })

  test('of others: chords are named by the frets that are struck together, single notes are said', () => {
    const { text, warnings } = importChart(
      [
        'e|-----0---|-----3-|',
        'B|-----1---|-----0-|',
        'G|-----0---|-----0-|',
        'D|-----2---|-----0-|',
        'A|-3---3---|-----2-|',
        'E|---------|-----3-|',
      ].join('\n'),
      'tab',
    )
    expect(text).toBe('| N.C. C | . . . G |')
    expect(warnings.map(({ message }) => message)).toEqual([
      expect.stringMatching(/named by the frets/),
      expect.stringMatching(/Single notes/),
    ])
  })
})

test('ABC: a passage that goes three times is told from one that ends at the same sign', () => {
  const text = 'title: Low Tide\nkey: C\nmeter: 4/4\ntempo: 96\n|: C :|\n|: % :|x3'
  const first = out({ text, melody: [], lyrics: [] }, 'abc')
  expect(out(back(first, 'abc'), 'abc')).toBe(first)
})
