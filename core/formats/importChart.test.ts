import { firstOf, itemAt } from '../lists'
import fc from 'fast-check'
import { RomanNumeral, Progression } from 'tonal'
import { analyse } from '../analysis/analyse'
import { parseChart } from '../chart/parseChart'
import { parseChord } from '../chord/parseChord'
import { parseKey } from '../pitch/key'
import { must } from '../result'
import { guessFormat, importChart, LONGEST_IMPORT } from './importChart'
import { PASTED_FORMATS } from './names'
import { chordOfNumeral } from './importNumerals'

const bars = (text: string) =>
  parseChart(text).bars.map((bar) => bar.slots.map((slot) => slot.text).join(' '))
const of = (numeral: string, key: string) => must(chordOfNumeral(numeral, must(parseKey(key))))

describe('repeats, endings and marks', () => {
  test.each([
    ['|: C | Am :| F | G7 |', '|: C | Am :| F | G7 |'],
    ['|: C |1. F :|2. G | C ||', '|: C |1. F :|2. G | C |'],
    ['| C | F Fine | G7 D.C. al Fine |', '| C | F Fine | G7 D.C. al Fine |'],
    ['Verse: |: C | Am :|x3', '[Verse] |: C | Am :|x3'],
  ])('%j', (content, text) =>
    expect(importChart(content, 'text')).toMatchObject({ text, warnings: [], lyrics: [] }),
  )
  test('in numerals and in grids of ChordPro too', () => {
    expect(importChart('key: G\n|: I | vi7 :|', 'numerals').text).toBe('key: G\n|: G | Em7 :|')
    expect(importChart('{start_of_grid}\n|: G . | D7 . :|\n{end_of_grid}', 'chordpro').text).toBe(
      '|: G . | D7 . :|',
    )
  })
  test('no string throws or hangs in any format, and what it makes can be read', () => {
    const words = fc
      .array(
        fc.constantFrom(
          'C',
          'Am7',
          'ii7',
          '4',
          '6-',
          '|',
          '|:',
          ':|',
          '1.',
          ' - ',
          '\n',
          '[',
          ']',
          '{',
          '}',
          'Verse:',
          '{key: X}',
          'key: Bb',
          'la',
          '(',
          ')',
          '%',
          '.',
          'Fine',
          'x3',
        ),
        { maxLength: 40 },
      )
      .map((parts) => parts.join(' '))
    fc.assert(
      fc.property(fc.oneof(words, fc.string()), fc.constantFrom(...PASTED_FORMATS), (content, format) => {
        const { text, warnings } = importChart(content, format)
        const lines = content.split(/\r\n|\r|\n/)
        expect(parseChart(text).problems.filter((problem) => problem.code === 'bad-chord')).toEqual([])
        for (const warning of warnings) {
          expect(warning.line).toBeGreaterThanOrEqual(1)
          expect(warning.line).toBeLessThanOrEqual(lines.length)
          expect(warning.message).not.toBe('')
        }
      }),
      { numRuns: 800 },
    )
  })
})

describe('numerals and numbers to chords', () => {
  test.each([
    ['I', 'C', 'C'],
    ['ii7', 'C', 'Dm7'],
    ['IIm7', 'C', 'Dm7'],
    ['V7', 'F', 'C7'],
    ['bVII7', 'C', 'Bb7'],
    ['viiø7', 'C', 'Bm7b5'],
    ['VIIm7b5', 'C', 'Bm7b5'],
    ['#i°7', 'C', 'C#dim7'],
    ['V7/ii', 'C', 'A7'],
    ['ii7/IV', 'C', 'Gm7'],
    ['bII7/V', 'C', 'Ab7'],
    ['Imaj7', 'Eb', 'Ebmaj7'],
    ['iv6', 'G', 'Cm6'],
    ['i', 'Am', 'Am'],
    ['VI', 'Am', 'F'],
    ['bVI', 'Am', 'F'],
    ['V7b9', 'Am', 'E7b9'],
    ['vii°7', 'Am', 'G#dim7'],
    ['1', 'D', 'D'],
    ['6-', 'D', 'Bm'],
    ['2m7', 'D', 'Em7'],
    ['57', 'D', 'A7'],
    ['4/6', 'D', 'G/B'],
    ['b7', 'D', 'C'],
  ])('%s in %s is %s', (numeral, key, chord) => expect(of(numeral, key)).toBe(chord))
  test('what the analysis writes for the chords of a key reads back as those chords, in both schools', () => {
    for (const key of ['C', 'Ab', 'F#', 'B'])
      for (const school of ['case', 'capitals'] as const) {
        const chart = parseChart(
          `key: ${key}\n| ${['I', 'ii7', 'iii7', 'IVmaj7', 'V7', 'vi9', 'viiø7', 'bVII7'].map((numeral) => of(numeral, key)).join(' | ')} |`,
        )
        for (const reading of analyse(chart, school).readings)
          if (!reading.roman.includes('/'))
            expect(of(reading.roman, key)).toBe(must(parseChord(reading.slot.text)).canonical)
      }
  })
  test('capital numerals agree with a general theory library (tonal 6.4.3)', () => {
    for (const tonic of ['C', 'D', 'Eb', 'F#'])
      for (const numeral of ['I', 'IIm7', 'IIIm7', 'IVmaj7', 'V7', 'VIm', 'bIII', 'bVII7']) {
        expect(RomanNumeral.get(numeral).empty).toBe(false)
        expect(of(numeral, tonic)).toBe(
          must(parseChord(firstOf(Progression.fromRomanNumerals(tonic, [numeral])))).canonical,
        )
      }
  })
  test.each(['H', 'viiii', 'V7/x', '8', ''])('"%s" is refused', (text) =>
    expect(chordOfNumeral(text, must(parseKey('C'))).ok).toBe(false),
  )
})

describe('bringing a chart in', () => {
  test('a line of chords with dashes', () => {
    const { text, warnings } = importChart('C - Am7 - F-7 - G', 'text')
    expect(bars(text)).toEqual(['C', 'Am7', 'F-7', 'G'])
    expect(warnings).toEqual([
      expect.objectContaining({ line: 1, message: expect.stringContaining('each chord became a bar') }),
    ])
  })
  test('bars, headings and settings', () => {
    const { text, warnings } = importChart(
      'Title: Tow Path\nKey: G\nTime: 3/4\nVerse:\n| G | Em7 . D |\n[Chorus] C | D',
      'text',
    )
    expect(parseChart(text)).toMatchObject({ title: 'Tow Path', meter: { beats: 3 }, problems: [] })
    expect(parseChart(text).bars.map((bar) => bar.section)).toEqual(['Verse', 'Verse', 'Chorus', 'Chorus'])
    expect(warnings).toEqual([])
  })
  test('chords over lyrics: each word goes with the chord it stands under; a word among chords is listed', () => {
    const { text, lyrics, warnings } = importChart(
      'Am       Dm7   (slow)\nOver the water we wait\nE7  Am',
      'text',
    )
    expect(bars(text)).toEqual(['Am', 'Dm7', 'E7', 'Am'])
    expect(warnings.map(({ line, column, text: what }) => [line, column, what])).toContainEqual([
      1,
      16,
      '(slow)',
    ])
    expect(lyrics).toEqual([
      { bar: 1, beat: 1, text: 'Over the' },
      { bar: 2, beat: 1, text: 'water we wait' },
    ])
  })
  test('ChordPro', () => {
    const { text, lyrics, warnings } = importChart(
      '{title: Slow Boat Home}\n{key: D}\n{start_of_chorus}\n[D]Slow [Bm7]boat [Zz]home\n{end_of_chorus}\n{capo: 2}\nno chords here\n{start_of_grid}\n| G . . A7 | D |\n{end_of_grid}',
      'chordpro',
    )
    expect(parseChart(text)).toMatchObject({ title: 'Slow Boat Home', problems: [] })
    expect(bars(text)).toEqual(['D', 'Bm7', 'G A7', 'D'])
    expect(warnings.map(({ line }) => line).sort()).toEqual([4, 4])
    expect(lyrics).toEqual([
      { bar: 1, beat: 1, text: 'Slow' },
      { bar: 2, beat: 1, text: 'boat home no chords here' },
    ])
  })
  test('numerals and numbers with a key', () => {
    expect(bars(importChart('key: Bb\n| I | vi7 ii7 | V7/V | V7 |', 'numerals').text)).toEqual([
      'Bb',
      'Gm7 Cm7',
      'C7',
      'F7',
    ])
    expect(bars(importChart('key: A\n1 - 6- - 4 - 57', 'numerals').text)).toEqual(['A', 'F#m', 'D', 'E7'])
  })
  test('whatever comes in, it never throws, the chart it makes has no unreadable chord, and warnings lie in the content', () => {
    const music = fc
      .array(
        fc.constantFrom(
          'C',
          'Am7',
          '|',
          '-',
          '[Verse]',
          '{key: C}',
          '[G]la',
          '\n',
          'words',
          'ii7',
          '%',
          '.',
          'key: H',
          '(',
          ')',
          '|:',
          'Title: x\n',
        ),
        { maxLength: 30 },
      )
      .map((parts) => parts.join(' '))
    fc.assert(
      fc.property(fc.oneof(fc.string(), music), fc.constantFrom(...PASTED_FORMATS), (content, format) => {
        const { text, warnings } = importChart(content, format)
        expect(parseChart(text).problems.filter((problem) => problem.code === 'bad-chord')).toEqual([])
        const lines = content.split(/\r\n|\r|\n/)
        for (const { line, column } of warnings) {
          expect(line).toBeGreaterThanOrEqual(1)
          expect(line).toBeLessThanOrEqual(lines.length)
          expect(column).toBeLessThanOrEqual(itemAt(lines, line - 1).length + 1)
        }
      }),
      { numRuns: 1000 },
    )
  })
})

describe('a paste of several kinds of line', () => {
  const MIXED = `Verse 1
F          C
Down by the river bank
Dm         Bb
waiting for the ferry

Chorus (x2)
[F]Carry me [C]home
Dm     C
over the water

Bridge:
| Bb | C |`
  test('each line is read as what it is, whatever the whole is taken for; words for parts are parts, and x2 is read', () => {
    for (const format of ['text', 'chordpro'] as const) {
      const { text, lyrics, warnings } = importChart(MIXED, format)
      const chart = parseChart(text)
      expect(chart.problems).toEqual([])
      expect(chart.bars.map(({ section, slots: [slot] }) => [section, slot!.text])).toEqual([
        ...['F', 'C', 'Dm', 'Bb'].map((chord) => ['Verse 1', chord]),
        ...['F', 'C', 'Dm', 'C'].map((chord) => ['Chorus', chord]),
        ...['Bb', 'C'].map((chord) => ['Bridge', chord]),
      ])
      expect(
        chart.bars.map(({ opensRepeat, played }) => Number(opensRepeat) + 2 * Number(played === 2)),
      ).toEqual([0, 0, 0, 0, 1, 0, 0, 2, 0, 0])
      expect(lyrics.map((one) => one.text).join(' ')).toBe(
        'Down by the river bank waiting for the ferry Carry me home over the water',
      )
      expect(warnings.map(({ message }) => message)).toEqual([
        'There are no bar lines here: each chord became a bar.',
      ])
    }
  })
  test.each([
    ['Verse 1\nC G', ['Verse 1']],
    ['Chorus x3\nC G', ['Chorus']],
    ['[Pre-Chorus (x2)]\nC G', ['Pre-Chorus']],
    ['Verse two\nC G', ['Verse two']],
    ['Solo\nC G\nOutro 2x\nF', ['Solo', 'Outro']],
    ['Bridge: C G', ['Bridge']],
  ])('%j names its parts', (content, parts) => {
    const { text, warnings } = importChart(content, 'text')
    expect([...new Set(parseChart(text).bars.map(({ section }) => section))]).toEqual(parts)
    expect(warnings.every(({ message }) => message.startsWith('There are no bar lines'))).toBe(true)
  })
  test('a part that has repeat signs of its own keeps them', () =>
    expect(importChart('Chorus (x2)\n|: C | G :|', 'text').text).toBe('[Chorus] |: C | G :|'))
  test.each([
    ['C2', ['1', '2', '3', '5']],
    ['Cmj7', ['1', '3', '5', '7']],
    ['CMA7', ['1', '3', '5', '7']],
    ['Cmj9', ['1', '3', '5', '7', '9']],
    ['CmMA7', ['1', 'b3', '5', '7']],
  ])('%s is read', (symbol, degrees) => {
    expect(importChart(`| ${symbol} |`, 'text').warnings).toEqual([])
    expect(
      must(parseChord(symbol))
        .tones.map(({ degree }) => degree)
        .sort(),
    ).toEqual([...degrees].sort())
  })
  test.each([
    ['Bes7', 'Bb7'],
    ['Fis', 'F#'],
    ['Es/Bes', 'Eb/Bb'],
    ['Asus4', 'Asus4'],
    ['Esus', 'Esus'],
    ['Cism7', 'C#m7'],
    ['As', 'Ab'],
  ])('%s is %s', (named, symbol) =>
    expect(importChart(`| ${named} | C |`, 'text').text).toBe(`| ${symbol} | C |`),
  )
})

describe('as players paste it', () => {
  const signs = (text: string) => text.replace(/\s+/g, ' ')
  test.each([
    ['Em / C / G / D', '| Em | C | G | D |'],
    ['Em/C/G/D', '| Em | C | G | D |'],
    ['Am -> F -> C -> G', '| Am | F | C | G |'],
    ['Am->F->C->G', '| Am | F | C | G |'],
    ['Am-F-C-G', '| Am | F | C | G |'],
    ['Am → F … C, G*', '| Am | F | C | G |'],
    ['(Am) [F] {C} "G"', '| Am | F | C | G |'],
    ['Am F C G ...', '| Am | F | C | G |'],
    ['**Am** F* C G', '| Am | F | C | G |'],
    ['| D | x2', '|: D :|'],
    ['| D | G | x3', '|: D | G :|x3'],
    ['C G Am F x2', '|: C | G | Am | F :|'],
    ['C G Am F (4x)', '|: C | G | Am | F :|x4'],
    ['C / / / G / / /', '| C . . . | G . . . |'],
    ['| C / / / | F / G / |', '| C / / / | F / G / |'],
    ['| C / G | F |', '| C G | F |'],
    ['C-7 F7 Bb', '| C-7 | F7 | Bb |'],
    ['Am/G F#m7b5/E', '| Am/G | F#m7b5/E |'],
    ['c am f g7', '| C | Am | F | G7 |'],
    ['Do Sol Lam Fa', '| C | G | Am | F |'],
    ['Do7 Re- Mi', '| C7 | D- | E |'],
  ])('%s', (content, text) => expect(signs(importChart(content, 'text').text)).toBe(text))

  test('what was taken for something is said', () => {
    const said = (content: string, format: 'text' | 'numerals' = 'text') =>
      importChart(content, format)
        .warnings.map(({ message }) => message)
        .join(' ')
    expect(said('Do Sol Lam Fa')).toContain('Do, Re, Mi … were read as C, D, E')
    expect(said('| Do | Em7 | A7 |')).toContain('was read as D diminished')
    expect(said('H7 Em')).toContain('"H" was read as B')
    expect(said('c am f g7')).toContain('Small letters were read as capitals')
    expect(said('i - VI - III - VII', 'numerals')).toContain('read in A minor')
    expect(said('I - vi - IV - V', 'numerals')).toContain('read in C major')
    expect(said('Bes7 Es')).toContain('"Bes7" was read as Bb7: notes in -es and -is are flats and sharps.')
  })
  test('numerals in the key that is chosen', () => {
    expect(importChart('i - VI - III - VII', 'numerals').text).toBe('| Am | F | C | G |')
    expect(importChart('I - vi', 'numerals', { key: must(parseKey('Bb')) }).text).toBe('key: Bb\n| Bb | Gm |')
  })
  test.each([
    ['| C | Am |', 'text'],
    ['C - Am - F - G', 'text'],
    ['[A] | C | Am |', 'text'],
    ['C\nla la la', 'text'],
    ['Verse:\nC G', 'text'],
    ['[C]la [G]la', 'chordpro'],
    ['[C]   [G]\nla la la', 'chordpro'],
    ['{title: A}\n[C]', 'chordpro'],
    ['I vi ii V', 'numerals'],
    ['i - VI - III - VII', 'numerals'],
    ['1 - 6- - 4 - 5', 'numerals'],
    ['key: Bb\n| I | vi7 |', 'numerals'],
  ])('%j is guessed to be %s', (content, format) => expect(guessFormat(content)).toBe(format))
  test('reading takes time in proportion to the text', () => {
    for (const piece of ['(', '[', 'C->', 'x2 ', '/ ', '…', '{a', 'Do ', '* ']) {
      // The processor's time and not the clock's: other jobs on the machine do not count.
      const begin = process.cpuUsage()
      importChart(piece.repeat(LONGEST_IMPORT / piece.length), 'text')
      guessFormat(piece.repeat(LONGEST_IMPORT / piece.length))
      // Not a benchmark: a reader that goes back over what it has read takes minutes here.
      expect(process.cpuUsage(begin).user / 1000).toBeLessThan(20_000)
    }
  })
})
