import fc from 'fast-check'
import { parseChart } from '../chart/parseChart'
import { notatedPieces } from '../melody/clock'
import { midiOf, parsePitch } from '../pitch/note'
import type { MelodyNote } from '../reharm/melodyFit'
import { must } from '../result'
import { TUNE_LIMITS } from '../voicing/gripLimits'
import { exportChart } from './exportChart'
import { importAbc } from './importAbc'
import { importTune } from './importTune'
import { importMusicXml } from './importMusicXml'

const named = (bar: number, beat: number, beats: number, note: string): MelodyNote => ({
  bar,
  beat,
  beats,
  note: must(parsePitch(note)),
})
const TEXT =
  'title: Back & Forth\nkey: F\nmeter: 4/4\ntempo: 90\n[A] | F | Gm7 C7 | Am7 . D7b9 . |: Gm7 | C7 :| F | % |'
const chart = parseChart(TEXT)

/** Notes on a grid of twelfths of a beat, one after the other: quarters and thirds mixed. */
const anyMelody = fc
  .array(
    fc.tuple(
      fc.constantFrom(3, 4, 6, 8, 9, 12, 16, 24, 36, 48),
      fc.constantFrom('', 'C4', 'Eb4', 'F#4', 'G4', 'Bb4', 'D5', 'Ab5'),
    ),
    { minLength: 1, maxLength: 20 },
  )
  .map((list) => {
    let at = 0
    return list.flatMap(([length, note]): MelodyNote[] => {
      const [bar, place] = [Math.floor(at / 48) + 1, at % 48]
      at += length
      return note === '' || at > 7 * 48
        ? []
        : [named(bar, Math.round((place / 12 + 1) * 1e4) / 1e4, Math.round((length / 12) * 1e4) / 1e4, note)]
    })
  })
  .filter((melody) => melody.length > 0)

const READERS = { abc: importAbc, musicxml: importMusicXml }

describe.each(['abc', 'musicxml'] as const)('%s', (format) => {
  const back = (melody: readonly MelodyNote[], text = TEXT) =>
    must(
      READERS[format](
        must(exportChart({ chart: parseChart(text), frets: [], melody, limits: TUNE_LIMITS }, format))
          .content,
      ),
    )
  test('what is exported comes back: bars, beats, lengths, pitches, triplets and ties over bar lines', () => {
    fc.assert(
      fc.property(anyMelody, (melody) => {
        const read = back(melody)
        expect(
          read.melody.map(({ bar, beat, beats, note }) => [
            bar,
            beat.toFixed(2),
            beats.toFixed(2),
            midiOf(must(parsePitch(note))),
          ]),
        ).toEqual(
          melody.map(({ bar, beat, beats, note }) => [bar, beat.toFixed(2), beats.toFixed(2), midiOf(note)]),
        )
      }),
      { numRuns: 60 },
    )
  })
  test('so do title, key, metre, tempo, chords and repeats', () => {
    const { text, warnings } = back([named(1, 1, 4, 'A4')])
    expect(warnings).toEqual([])
    const read = parseChart(text)
    expect(read.problems).toEqual([])
    expect([read.title, read.tempo, read.meter, text.includes('key: F')]).toEqual([
      'Back & Forth',
      90,
      { beats: 4, unit: 4 },
      true,
    ])
    const chordsOf = (one: typeof read) =>
      one.bars.map(({ slots, opensRepeat, played }) => [
        slots.map(({ beat, text: symbol }) => `${beat} ${symbol}`),
        opensRepeat,
        played,
      ])
    expect(chordsOf(read)).toEqual(chordsOf(chart))
  })
  test('upbeats, other metres, changes of metre and endings', () => {
    const text = 'key: G\nmeter: 3/4\npickup: 1\n| D7 |: G | Em7 |1. Am7 :|2. D7 |\nmeter: 4/4\n| G |'
    const melody = [named(0, 3, 1, 'D4'), named(1, 1, 3, 'B4'), named(4, 2, 2, 'A4'), named(5, 1, 4, 'G4')]
    const read = back(melody, text)
    expect(read.melody.map(({ note, ...place }) => [place.bar, place.beat, place.beats, note])).toEqual([
      [0, 3, 1, 'D4'],
      [1, 1, 3, 'B4'],
      [4, 2, 2, 'A4'],
      [5, 1, 4, 'G4'],
    ])
    const again = parseChart(read.text)
    expect(again.pickup).toBe(1)
    expect(again.bars.map(({ ending, played, meter }) => [ending, played, meter.beats])).toEqual(
      parseChart(text).bars.map(({ ending, played, meter }) => [ending, played, meter.beats]),
    )
  })
  test('noise is refused or read, never thrown', () => {
    const heads = {
      abc: 'X:1\nM:4/4\nL:1/8\nK:F\n',
      musicxml: '<score-partwise><part-list/><part id="P1"><measure>',
    }
    const words = fc
      .array(
        fc.constantFrom(
          'C',
          '"F"',
          '|',
          ':|',
          '|:',
          '[1',
          '(3',
          'z4',
          '<note>',
          '</note>',
          '<pitch><step>C</step><octave>4</octave></pitch>',
          '<duration>2</duration>',
          '</measure>',
          '</part>',
          '</score-partwise>',
          '&amp;',
          '&#x0;',
          '<!--',
          '<',
          '[K:',
          '"',
        ),
        { maxLength: 30 },
      )
      .map((parts) => parts.join(''))
    fc.assert(
      fc.property(fc.oneof(words, fc.string()), (noise) => {
        const read = READERS[format](heads[format] + noise)
        if (read.ok)
          expect(
            parseChart(read.value.text).problems.filter(
              ({ code }) => code === 'bad-chord' || code === 'bad-key',
            ),
          ).toEqual([])
        else expect(read.fault.accepted).toMatch(/./)
      }),
      { numRuns: 150 },
    )
  })
})

describe('ABC as players write it', () => {
  test('key signatures, accidentals that hold for the bar, triplets, the highest of notes together', () => {
    const { melody } = must(importAbc('X:1\nL:1/8\nM:4/4\nK:Eb\n"Eb"E2 =A A (3GFE [B,EG]2 | A4 z4 |'))
    expect(melody.map(({ note, beats }) => `${note} ${beats.toFixed(2)}`)).toEqual([
      'Eb4 1.00',
      'A4 0.50',
      'A4 0.50',
      'G4 0.33',
      'F4 0.33',
      'Eb4 0.33',
      'G4 1.00',
      'Ab4 2.00',
    ])
  })
  test('modes get the key with their signature, and the first of several tunes and voices is said to be taken', () => {
    const { text, warnings } = must(importAbc('X:1\nT:One\nK:Ddor\nDEFG|\nV:2\nDDDD|\n\nX:2\nK:C\nC|'))
    expect(text).toMatch(/title: One\nkey: C\n/)
    expect(warnings.join(' ')).toMatch(/2 tunes.*first voice/)
  })
  test.each([
    ['nothing', ''],
    ['no key line', 'CDEF|'],
    ['no notes', 'X:1\nK:C\n'],
    ['too long', `X:1\nK:C\n${'C\n'.repeat(25_001)}`],
    ['a line of faults', `X:1\nK:C\n${'{'.repeat(40_000)}`],
  ])('%s is refused', (_, content) => {
    expect(importAbc(content)).toMatchObject({
      ok: false,
      fault: { accepted: expect.stringMatching(/ABC notation|lines of at most/) },
    })
  })
})

describe('hostile and broken XML: a clear error, and nothing hangs', () => {
  const wrap = (inside: string) => `<?xml version="1.0"?><score-partwise>${inside}</score-partwise>`
  test.each([
    ['no XML', 'hello', /well-formed|no MusicXML/],
    ['cut off', wrap('<part id="P1"><measure number="1">').slice(0, 50), /well-formed/],
    ['entities', '<!DOCTYPE x [<!ENTITY a "b">]><score-partwise/>', /entities/],
    ['nested deep', wrap('<a>'.repeat(5000) + '</a>'.repeat(5000)), /deep/],
    ['another root', '<html></html>', /no MusicXML/],
    ['time by time', '<score-timewise></score-timewise>', /time by time/],
    ['compressed', 'PK\u0003\u0004', /compressed/],
    ['no notes', wrap('<part id="P1"><measure/></part>'), /no notes/],
    ['too large', ' '.repeat(2_000_001), /letters/],
    ['open comments', `${'<!--'.repeat(200_000)}`, /well-formed|no MusicXML/],
  ])('%s', (_, content, message) => {
    const read = importMusicXml(content)
    expect(read.ok).toBe(false)
    if (!read.ok) {
      expect(read.fault.message).toMatch(message)
      expect(read.fault.accepted).toContain('MusicXML')
    }
  })
  test('transposing parts sound as they are played, kinds and degrees become symbols, other parts are said', () => {
    const note = (step: string) =>
      `<note><pitch><step>${step}</step><octave>4</octave></pitch><duration>4</duration></note>`
    const harmony = (kind: string, degree = '') =>
      `<harmony><root><root-step>B</root-step><root-alter>-1</root-alter></root><kind>${kind}</kind>${degree}</harmony>`
    const { text, melody, warnings } = must(
      importMusicXml(
        wrap(`<part-list><score-part id="P1"><part-name>Bass</part-name></score-part><score-part id="P2"><part-name>Lead</part-name></score-part></part-list>
      <part id="P1"><measure>${note('C')}</measure></part>
      <part id="P2"><measure><attributes><divisions>1</divisions><transpose><chromatic>-2</chromatic></transpose></attributes>${harmony('dominant', '<degree><degree-value>9</degree-value><degree-alter>-1</degree-alter><degree-type>add</degree-type></degree>')}${note('D')}</measure><measure>${harmony('half-diminished')}${note('E')}</measure></part>`),
      ),
    )
    expect(melody.map((one) => one.note)).toEqual(['C4', 'D4'])
    expect(text).toContain('| Bb7(b9) | Bbm7b5 |')
    expect(warnings.join()).toMatch(/"Lead"; 1 other part/)
  })
})

test('a note over a bar line is in two pieces, tied', () => {
  expect(
    notatedPieces(chart, [named(1, 3, 4, 'A4')]).map(({ bar, beat, beats, tiedFrom, tiedOn }) => [
      bar,
      beat,
      beats,
      tiedFrom,
      tiedOn,
    ]),
  ).toEqual([
    [1, 3, 2, false, true],
    [2, 1, 2, true, false],
  ])
})

test.each(['"F"F999999999 |', 'F999999 |', 'z999999999|', '[FA]99999|'])(
  'a bar or a note longer than any is refused with its bar: %s',
  (bar) => {
    const read = importTune(`X:1\nK:F\nCDEF|${bar}`, 'abc')
    expect(read).toMatchObject({
      ok: false,
      fault: { code: 'too-large', message: 'Bar 2 of the file is longer than 32 quarter notes.' },
    })
  },
)
test('a note without a length that can be played is left out, and said', () => {
  const read = must(importTune('X:1\nL:1/4\nK:F\nF1/999999999 CDE|', 'abc'))
  expect(read.melody.map(({ note }) => note)).toEqual(['C4', 'D4', 'E4'])
  expect(read.warnings.join(' ')).toContain('1 note has no length that can be played')
})
