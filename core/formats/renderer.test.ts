import { execFileSync } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { XMLParser } from 'fast-xml-parser'
import { slotsOf } from '../chart/chart'
import { parseChart } from '../chart/parse'
import type { Lyric } from '../melody/lyrics'
import { midiOf, parsePitch } from '../pitch/note'
import { must } from '../result'
import { TUNE_LIMITS } from '../voicing/limits'
import { exportChart } from './exportChart'

/** What our files are to a general renderer of notation (verovio 6, RISM Digital Center): it reads them into MEI (Music Encoding Initiative, 5.1). */
interface Rendered {
  measures: number
  /** Of the first staff's first layer, tied notes once. */
  pitches: number[]
  /** Lengths in quarters, tied notes together. */
  lengths: number[]
  harms: string[]
  words: string[]
  repeats: string[]
  endings: string[]
  /** Staves, with the sign of their clef. */
  clefs: string[]
}

type Node = Record<string, unknown>
const nameOf = (node: Node): string => Object.keys(node).find((key) => key !== ':@') ?? ''
const inside = (node: Node): Node[] => {
  const children = node[nameOf(node)]
  return Array.isArray(children) ? (children as Node[]) : []
}
const at = (node: Node, name: string): string | undefined =>
  (node[':@'] as Record<string, string> | undefined)?.[name]
const every = (node: Node, name: string): Node[] =>
  inside(node).flatMap((one) => [...(nameOf(one) === name ? [one] : []), ...every(one, name)])
const textOf = (node: Node): string =>
  nameOf(node) === '#text' ? String(node['#text']) : inside(node).map(textOf).join('')

const ALTER: Readonly<Record<string, number>> = { s: 1, f: -1, ss: 2, x: 2, ff: -2, n: 0 }

function rendered(files: readonly string[]): Rendered[] {
  const file = join(mkdtempSync(join(tmpdir(), 'render-')), 'files.json')
  writeFileSync(file, JSON.stringify(files))
  const script = `
    import { readFileSync } from 'node:fs'
    import createModule from 'verovio/wasm'
    import { VerovioToolkit } from 'verovio/esm'
    const toolkit = new VerovioToolkit(await createModule())
    const all = JSON.parse(readFileSync(process.argv[1], 'utf8')).map((content) => {
      if (!toolkit.loadData(content)) throw new Error(toolkit.getLog())
      return toolkit.getMEI({ removeIds: false })
    })
    process.stdout.write(JSON.stringify(all))`
  const told = execFileSync(process.execPath, ['--input-type=module', '-e', script, file], {
    encoding: 'utf8',
    maxBuffer: 1e9,
    stdio: ['ignore', 'pipe', 'ignore'],
  })
  return (JSON.parse(told) as string[]).map(readMei)
}

function readMei(mei: string): Rendered {
  const root: Node = {
    root: new XMLParser({ preserveOrder: true, ignoreAttributes: false, attributeNamePrefix: '' }).parse(
      mei,
    ) as Node[],
  }
  const measures = every(root, 'measure')
  const tiedOn = new Map(
    every(root, 'tie').map((tie) => [
      at(tie, 'endid')?.replace(/^#/, ''),
      at(tie, 'startid')?.replace(/^#/, ''),
    ]),
  )
  const notes = new Map<string, { pitch: number; length: number }>()
  const quarters = (node: Node): number => {
    const dots = Number(at(node, 'dots') ?? 0)
    return (4 / Number(at(node, 'dur'))) * (2 - 1 / 2 ** dots)
  }
  const walk = (node: Node, share: number): void => {
    for (const one of inside(node)) {
      if (nameOf(one) === 'note') {
        const sign = every(one, 'accid')[0]
        const alter =
          at(one, 'accid.ges') ??
          (sign && (at(sign, 'accid') ?? at(sign, 'accid.ges'))) ??
          at(one, 'accid') ??
          'n'
        const pitch = midiOf({
          letter: 'cdefgab'.indexOf(at(one, 'pname')!),
          alter: ALTER[alter]!,
          octave: Number(at(one, 'oct')),
        })
        const id = at(one, 'xml:id')!
        const from = tiedOn.get(id)
        const before = from === undefined ? undefined : notes.get(from)
        if (before) {
          before.length += quarters(one) * share
          notes.set(id, before)
        } else notes.set(id, { pitch, length: quarters(one) * share })
      } else if (nameOf(one) === 'tuplet')
        walk(one, (share * Number(at(one, 'numbase'))) / Number(at(one, 'num')))
      else walk(one, share)
    }
  }
  for (const measure of measures) {
    const [staff] = every(measure, 'staff').filter((one) => at(one, 'n') === '1')
    const [layer] = staff ? every(staff, 'layer') : []
    if (layer) walk(layer, 1)
  }
  const sung = [...new Set(notes.values())]
  return {
    measures: measures.length,
    pitches: sung.map(({ pitch }) => pitch),
    lengths: sung.map(({ length }) => Math.round(length * 1000) / 1000),
    harms: every(root, 'harm').map(textOf),
    words: every(root, 'syl')
      .map(textOf)
      .filter((word) => word.trim() !== ''),
    repeats: measures.flatMap(
      (one) => [at(one, 'left'), at(one, 'right')].filter((line) => line?.startsWith('rpt')) as string[],
    ),
    endings: every(root, 'ending').map((one) => at(one, 'n') ?? ''),
    clefs: every(root, 'staffDef').map(
      (one) =>
        at(one, 'clef.shape') ??
        every(one, 'clef')
          .map((clef) => at(clef, 'shape'))
          .join(),
    ),
  }
}

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

/** Signs and brackets as they are engraved differ; verovio 6 writes the root of a chord of kind `none`, which says N.C. by its text. */
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

  test.each(TUNES.map((tune, index) => [/title: (\w+)/.exec(tune.text)![1]!, tune, index] as const))(
    '%s: the same bars, notes, lengths, symbols, repeats, endings and words, in MusicXML and in ABC',
    (_, { text, melody, lyrics }, index) => {
      const chart = parseChart(text)
      const symbols = slotsOf(chart).map((slot) => slot.text)
      const bars = new Map(chart.bars.map((bar) => [bar.number, bar]))
      const lengths = melody.map(
        (one) => Math.round(one.beats * (4 / bars.get(one.bar)!.meter.unit) * 1000) / 1000,
      )
      const repeats = chart.bars.flatMap(({ opensRepeat, played }) => [
        ...(opensRepeat ? ['rptstart'] : []),
        ...(played > 0 ? ['rptend'] : []),
      ])
      for (const read of [xml[index]!, abc[index]!]) {
        expect(read.measures).toBe(chart.bars.length)
        expect(read.pitches).toEqual(melody.map((one) => midiOf(one.note)))
        read.lengths.forEach((length, at) => expect(length).toBeCloseTo(lengths[at]!, 2))
        // It writes degrees behind the text of a kind that says them, though they ask not to be printed.
        expect(read.harms.map((one, order) => plain(one).slice(0, plain(symbols[order]!).length))).toEqual(
          symbols.map(plain),
        )
        expect(read.repeats).toEqual(repeats)
        expect(read.words).toEqual(lyrics.map((one) => one.text))
      }
      expect(xml[index]!.endings).toEqual(
        chart.bars.filter(({ ending }) => ending.length > 0).map(({ ending }) => ending.join()),
      )
    },
  )

  test('grips stand on a staff of tablature under the notes', () => {
    const { text } = TUNES[1]!
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
