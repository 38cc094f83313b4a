import { firstOf } from '../lists'
import { Midi } from '@tonejs/midi'
import { XMLParser } from 'fast-xml-parser'
import { parseChart } from '../chart/parseChart'
import { chord } from '../chord/parseChord'
import { pitchClass, parsePitch } from '../pitch/note'
import { must } from '../result'
import { TUNE_LIMITS } from '../voicing/gripLimits'
import { exportChart } from './exportChart'
import { importAbc } from './importAbc'
import { importChart } from './importChart'
import { importMusicXml } from './importMusicXml'
import { importTune } from './importTune'

/**
 * Semitones above the root of the kinds we write, and where degrees lie, as MusicXML 4.0 (W3C
 * Community Group) defines them; from memory.
 */
// prettier-ignore
const KIND_TONES: Readonly<Record<string, readonly number[]>> = {
  major: [0, 4, 7], minor: [0, 3, 7], augmented: [0, 4, 8], diminished: [0, 3, 6], dominant: [0, 4, 7, 10], 'major-seventh': [0, 4, 7, 11], 'minor-seventh': [0, 3, 7, 10],
  'diminished-seventh': [0, 3, 6, 9], 'augmented-seventh': [0, 4, 8, 10], 'half-diminished': [0, 3, 6, 10], 'major-minor': [0, 3, 7, 11], 'major-sixth': [0, 4, 7, 9],
  'minor-sixth': [0, 3, 7, 9], 'suspended-fourth': [0, 5, 7], 'suspended-second': [0, 2, 7], power: [0, 7],
}
/** Added degrees count from a dominant chord: major and perfect, and a minor seventh. */
const DOMINANT_DEGREES: Readonly<Record<number, number>> = {
  1: 0,
  2: 2,
  3: 4,
  4: 5,
  5: 7,
  6: 9,
  7: 10,
  9: 2,
  11: 5,
  13: 9,
}

interface Xml {
  [name: string]: unknown
}
const list = <T>(value: T | T[] | undefined): T[] => [value ?? []].flat() as T[]
const exported = (text: string, melody: { bar: number; beat: number; beats: number; note: string }[] = []) =>
  must(
    exportChart(
      {
        chart: parseChart(text),
        frets: [],
        melody: melody.map((one) => ({ ...one, note: must(parsePitch(one.note)) })),
        limits: TUNE_LIMITS,
      },
      'musicxml',
    ),
  ).content
const partsOf = (xml: string) =>
  list<Xml>(new XMLParser({ ignoreAttributes: false }).parse(xml)['score-partwise'].part as Xml | Xml[]).map(
    ({ measure }) => list(measure as Xml | Xml[]),
  )

/** What a reader hears of a harmony that knows nothing but the standard. */
function soundsOf({ kind, degree }: Xml): number[] {
  const sounds = new Set(KIND_TONES[(kind as Xml)['#text'] as string])
  for (const one of list(degree as Xml | Xml[] | undefined)) {
    const value = one['degree-value'] as number
    const natural = DOMINANT_DEGREES[value]!
    const sound = (natural + (one['degree-alter'] as number) + 12) % 12
    if (one['degree-type'] === 'subtract') sounds.delete(natural)
    else {
      if (one['degree-type'] === 'alter') sounds.delete(natural)
      sounds.add(sound)
    }
  }
  return [...sounds].sort((a, b) => a - b)
}

// prettier-ignore
const SYMBOLS = [
  'C', 'Cm', 'C7', 'Cmaj7', 'Cm7', 'Cm7b5', 'Cdim7', 'Cdim', 'Caug', 'C6', 'Cm6', 'C6/9', 'C9', 'Cmaj9', 'Cm9', 'C13', 'Cm(maj7)', 'C7b9', 'C7#9', 'C7#11', 'C7b5', 'C7#5',
  'Csus4', 'Csus2', 'C7sus4', 'C9sus4', 'C13sus4', 'C7sus4b9', 'C11', 'Cmaj11', 'Cm11', 'C7b13', 'C7alt', 'C13b9', 'Cadd9', 'Cmadd9', 'C5', 'C7no3', 'C9no3', 'C7no5', 'Cmaj7no3', 'Cmaj7#5', 'Cmaj7b5',
  'C7#5#9', 'C7b5b9', 'Cm9b5', 'Cmaj7#11', 'C13#11',
]

test.each(SYMBOLS)('%s: its kind and degrees sound what the symbol means', (symbol) => {
  const [[measure]] = partsOf(exported(`key: C\n| ${symbol} |`)) as [[Xml]]
  const root = pitchClass(chord(symbol).root)
  expect(soundsOf(measure.harmony as Xml)).toEqual(
    [...new Set(chord(symbol).tones.map(({ note }) => (pitchClass(note) - root + 12) % 12))].sort(
      (a, b) => a - b,
    ),
  )
})

test('an ending is over before the next repeat begins', () => {
  const [measures] = partsOf(exported('key: C\n|: C | F |1. G :|2. G | C |\n[B] |: Am | Dm :|')) as [Xml[]]
  const endings = measures.flatMap((measure) =>
    list(measure.barline as Xml | Xml[] | undefined).flatMap(({ ending }) =>
      ending ? [`${measure['@_number'] as string} ${(ending as Xml)['@_type'] as string}`] : [],
    ),
  )
  expect(endings).toEqual(['3 start', '3 stop', '4 start', '4 discontinue'])
})

test('N.C. is written; symbols, tempo and signs stand in one part only', () => {
  const parts = partsOf(
    exported('key: C\n[A] | C Segno | N.C. | G7 D.S. |', [{ bar: 1, beat: 1, beats: 4, note: 'C5' }]),
  )
  expect(parts).toHaveLength(2)
  const [lead, guitar] = parts as [Xml[], Xml[]]
  expect(lead.map(({ harmony }) => ((harmony as Xml).kind as Xml)['#text'])).toEqual([
    'major',
    'none',
    'dominant',
  ])
  expect(lead.filter(({ direction }) => direction !== undefined)).toHaveLength(2)
  for (const measure of guitar) expect([measure.harmony, measure.direction]).toEqual([undefined, undefined])
  // A chord without a grip is a slash.
  expect(firstOf(list(firstOf(guitar).note as Xml | Xml[])).notehead as string | undefined).toBe('slash')
})

test('triplets are in groups: each begun is ended, and fills its time', () => {
  const thirds = (bar: number, beat: number, count: number, beats: number) =>
    Array.from({ length: count }, (_, at) => ({ bar, beat: beat + at * beats, beats, note: 'G4' }))
  const [lead] = partsOf(
    exported('key: C\n| C | F |', [
      ...thirds(1, 1, 3, 1 / 3),
      ...thirds(1, 2, 3, 1 / 3),
      ...thirds(1, 3, 3, 2 / 3),
      { bar: 2, beat: 1, beats: 2 / 3, note: 'A4' },
      { bar: 2, beat: 5 / 3, beats: 1 / 3, note: 'A4' },
    ]),
  ) as [Xml[]]
  const groups = lead.flatMap(({ note }) =>
    list(note as Xml | Xml[]).flatMap(({ notations, duration }) => {
      const tuplet = (notations as Xml | undefined)?.tuplet as Xml | undefined
      return tuplet ? [`${tuplet['@_type'] as string} ${duration as number}`] : []
    }),
  )
  expect(groups).toEqual([
    'start 16',
    'stop 16',
    'start 16',
    'stop 16',
    'start 32',
    'stop 32',
    'start 32',
    'stop 16',
  ])
})

test('a chord sounds on over bars without a symbol, in MusicXML and ABC, until N.C. is said', () => {
  const note = '<note><rest/><duration>4</duration></note>'
  const bars = [
    '<root><root-step>D</root-step></root><kind>minor-seventh</kind>',
    '',
    '',
    '<root><root-step>C</root-step></root><kind>none</kind>',
    '',
  ]
  const xml = `<score-partwise><part-list/><part id="P1">${bars
    .map(
      (harmony) =>
        `<measure><attributes><divisions>1</divisions></attributes>${harmony ? `<harmony>${harmony}</harmony>` : ''}${note}</measure>`,
    )
    .join('')}</part></score-partwise>`
  expect(must(importMusicXml(xml)).text).toContain('| Dm7 | % | % | N.C. |\n| N.C. |')
  expect(must(importAbc('X:1\nM:4/4\nL:1/4\nK:C\n"Dm7" z4 | z4 | z4 | "G7" z4 | z4 |\n')).text).toContain(
    '| Dm7 | % | % | G7 |',
  )
})

test('slash noteheads are a rhythm and no melody; a seventh over a suspended chord is a part of its name', () => {
  const xml = `<score-partwise><part-list/><part id="P1"><measure><attributes><divisions>1</divisions></attributes>
    <harmony><root><root-step>G</root-step></root><kind>suspended-fourth</kind><degree><degree-value>7</degree-value><degree-alter>0</degree-alter><degree-type>add</degree-type></degree></harmony>
    <note><pitch><step>B</step><octave>4</octave></pitch><duration>4</duration><notehead>slash</notehead></note></measure></part></score-partwise>`
  const { text, melody } = must(importMusicXml(xml))
  expect(melody).toEqual([])
  expect(text).toContain('G7sus4')
})

describe('ABC 2.1, read back by a notation library', () => {
  const out = (text: string, melody: { bar: number; beat: number; beats: number; note: string }[] = []) =>
    must(
      exportChart(
        {
          chart: parseChart(text),
          frets: [],
          melody: melody.map((one) => ({ ...one, note: must(parsePitch(one.note)) })),
          limits: TUNE_LIMITS,
        },
        'abc',
      ),
    ).content
  test('the key in force counts for the signs, also some bars behind its change', () => {
    const text = 'key: C\n| C | C |\nkey: D\n| D | D | D |'
    const notes = [1, 2, 3, 4, 5].map((bar) => ({ bar, beat: 1, beats: 4, note: 'F#4' }))
    const read = must(importAbc(out(text, notes)))
    expect(read.melody.map(({ note }) => note)).toEqual(['F#4', 'F#4', 'F#4', 'F#4', 'F#4'])
    // In D an F sharp needs no sign, in C it does.
    const bars = out(text, notes)
    expect(bars.match(/\^F/g)).toHaveLength(2)
  })
  test('sections, signs and a passage played three times come back', () => {
    const text =
      'key: C\n[A] |: Segno C | F :|x3\n[B] | G To Coda | C | D.S. al Coda G7 |\n[C] | Coda C | Fine C |'
    const chart = parseChart(text)
    const back = parseChart(must(importAbc(out(text))).text)
    const form = ({ bars }: typeof chart) =>
      bars.map(({ section, opensRepeat, played, marks }) => [section, opensRepeat, played, [...marks].sort()])
    expect(form(back)).toEqual(form(chart))
  })
})

test('MIDI, read by a general parser: a chord without a grip sounds its own tones', () => {
  const { content } = must(
    exportChart(
      { chart: parseChart('key: C\n| Dm7 | G7/B | N.C. |'), frets: [], melody: [], limits: TUNE_LIMITS },
      'midi',
    ),
  )
  const [guitar] = new Midi(Buffer.from(content, 'base64')).tracks.filter(({ notes }) => notes.length > 0)
  const sounds = (tick: number) =>
    guitar!.notes
      .filter(({ ticks }) => ticks === tick * 480)
      .map(({ midi }) => midi)
      .sort((a, b) => a - b)
  expect([sounds(0), sounds(4), sounds(8)]).toEqual([[50, 53, 57, 60], [59, 62, 65, 67], []])
})

test('ChordPro comes back with its sections and capo', () => {
  const text = 'title: Out\nkey: C\nmeter: 3/4\ncapo: 2\n[A] | C | F |\n[Bridge] | G7 | C |'
  const { content } = must(
    exportChart({ chart: parseChart(text), frets: [], melody: [], limits: TUNE_LIMITS }, 'chordpro'),
  )
  const back = importChart(content, 'chordpro')
  expect(back.warnings).toEqual([])
  const [read, meant] = [parseChart(back.text), parseChart(text)]
  expect([read.capo, read.bars.map(({ section }) => section)]).toEqual([
    2,
    meant.bars.map(({ section }) => section),
  ])
})

describe('what other programs write', () => {
  const abc = (body: string) => must(importTune(`X:1\nT:T\nM:4/4\nL:1/4\nK:C\n${body}`, 'abc'))
  test('a metre between two lines of ABC, with its key', () => {
    expect(abc('"C"CDEF|\nM:3/4\nK:G\n"G"GAB|').text).toContain('| C |\nkey: G\nmeter: 3/4\n| G |')
  })
  test('words stand under their notes; a second verse and the order of parts are said to be left out', () => {
    const { lyrics, warnings } = must(
      importTune(
        'X:1\nP:AAB\nM:4/4\nL:1/4\nK:C\nP:A\n"C"CDEF|GA B2|\nw:sum-mer * night| is~so long\nw:win-ter\n',
        'abc',
      ),
    )
    expect(lyrics.map(({ bar, beat, text, joins }) => [bar, beat, joins ? `${text}-` : text])).toEqual([
      [1, 1, 'sum-'],
      [1, 2, 'mer'],
      [1, 4, 'night'],
      [2, 1, 'is so'],
      [2, 2, 'long'],
    ])
    expect(warnings.join(' ')).toMatch(/first verse/)
    expect(warnings.join(' ')).toMatch(/AAB/)
  })
  test('an upbeat inside a tune stays one: the bars around the repeat sign are as long as they are written', () => {
    const { text, melody } = abc('"C"CDEF|"G"GAB:|\n|:c|"F"FGAB|"C"c4:|')
    const { bars } = parseChart(text)
    expect(bars.map(({ beats }) => beats)).toEqual([4, 3, 1, 4, 4])
    expect(melody.map(({ bar, beat }) => [bar, beat]).slice(4, 9)).toEqual([
      [2, 1],
      [2, 2],
      [2, 3],
      [3, 1],
      [4, 1],
    ])
  })

  const xml = (harmony: string, fifths = 0) =>
    must(
      importTune(
        `<score-partwise version="4.0"><part-list><score-part id="P1"><part-name>x</part-name></score-part></part-list><part id="P1"><measure number="1"><attributes><divisions>1</divisions><key><fifths>${fifths}</fifths></key><time><beats>4</beats><beat-type>4</beat-type></time></attributes><harmony>${harmony}</harmony><note><pitch><step>E</step><octave>4</octave></pitch><duration>4</duration><type>whole</type></note></measure></part></score-partwise>`,
        'musicxml',
      ),
    )
  const root = (step: string, alter = 0) =>
    `<root><root-step>${step}</root-step><root-alter>${alter}</root-alter></root>`
  /** Kinds and their sounds: W3C MusicXML 4.0, `kind-value` and `numeral`. */
  test.each([
    [`${root('A', -1)}<kind>German</kind>`, 0, 'Ab7', true],
    [`${root('A', -1)}<kind>French</kind>`, 0, 'Ab7b5', true],
    [`${root('D', -1)}<kind>Neapolitan</kind>`, 0, 'Db', true],
    [`${root('F')}<kind>Tristan</kind>`, 0, 'Fm7b5', true],
    [`${root('C')}<kind>pedal</kind>`, 0, 'C5', true],
    ['<numeral><numeral-root>5</numeral-root></numeral><kind>dominant</kind>', -3, 'Bb7', false],
    [
      '<numeral><numeral-root>6</numeral-root><numeral-alter>-1</numeral-alter></numeral><kind>major</kind>',
      0,
      'Ab',
      false,
    ],
    [
      '<numeral><numeral-root>2</numeral-root><numeral-key><numeral-fifths>1</numeral-fifths><numeral-mode>major</numeral-mode></numeral-key></numeral><kind>minor-seventh</kind>',
      0,
      'Am7',
      false,
    ],
    ['<function>ii</function><kind>minor-seventh</kind>', 1, 'Am7', false],
  ])('%s in the key of %i fifths is %s', (harmony, fifths, symbol, said) => {
    const { text, warnings } = xml(harmony, fifths)
    expect(text.split('\n').at(-1)).toBe(`| ${symbol} |`)
    expect(warnings.length > 0).toBe(said)
  })
  test('a symbol that names no root is said', () => {
    expect(xml('<kind>major</kind>').warnings.join(' ')).toContain('without a root')
  })
})
