import fc from 'fast-check'
import { parseKey } from '../pitch/key'
import { pitchClass } from '../pitch/note'
import { must } from '../result'
import { slotsOf, type Chart } from './chart'
import { MOST_BARS, parseChart } from './parseChart'
import { MOST_SIGNS } from './readBar'
import { printChart } from './print'
import { keyAbove, transposeText } from './transpose'
import { keyName } from '../pitch/key'

const symbol = fc.constantFrom('C', 'Am7', 'F#m7b5', 'Bb13', 'N.C.', 'G7(b9, 13)', 'D/F#', 'Ebmaj7', 'what?')
const bar = fc.oneof(
  fc.array(symbol, { minLength: 1, maxLength: 5 }).map((chords) => chords.join(' ')),
  fc
    .array(fc.oneof(symbol, fc.constantFrom('.', '/', 'C_G7', '_G7', 'C_', 'C__G7', '_', 'Am7_D7_G_C')), {
      minLength: 1,
      maxLength: 7,
    })
    .map((words) => words.join(' ')),
  fc.constant('%'),
)
const before = fc.constantFrom(
  '',
  '',
  '',
  '[A] ',
  '[B] ',
  'key: Ab\n',
  'meter: 3/4\n',
  'meter: 6/8\nkey: Em\n',
  'mood: wet\n',
)
const opens = fc.constantFrom(
  '| "lightly" ',
  '|: "a 2" "[A] (x3)" Segno ',
  '| ',
  '| ',
  '| ',
  '|: ',
  '|1. ',
  '|2,3. ',
  '|: Segno ',
  '| Coda ',
)
const closes = fc.constantFrom(
  ' |',
  ' |',
  ' |',
  ' :|',
  ' :|x3',
  ' Fine |',
  ' To Coda |',
  ' D.S. al Coda |',
  ' D.C. :|',
)
const chartText = fc
  .tuple(
    fc.constantFrom('', 'title: A Tune\n'),
    fc.constantFrom('', 'key: Bb\n', 'key: F#m\n', 'key: H\n'),
    fc.constantFrom('', 'meter: 4/4\n', 'meter: 5/4\n', 'meter: 12/8\n'),
    fc.constantFrom('', 'tempo: 90\n', 'capo: 3\n', 'pickup: 1\n', 'pickup: 2\n'),
    fc.array(fc.tuple(before, opens, bar, closes), { minLength: 1, maxLength: 12 }),
  )
  .map(
    ([title, key, meter, rest, bars]) =>
      title + key + meter + rest + bars.map((pieces) => pieces.join('')).join('\n'),
  )

const near = (value: number) => Number(value.toFixed(6))
/** What a chart means, without where it stood in the text. */
const meaning = (chart: Chart) => ({
  title: chart.title,
  key: chart.key,
  meter: chart.meter,
  tempo: chart.tempo,
  capo: chart.capo,
  pickup: chart.pickup,
  loose: chart.loose,
  problems: chart.problems.map(({ code }) => code).sort(),
  bars: chart.bars.map(({ source: _, slots, ...bar }) => ({
    ...bar,
    slots: slots.map(({ text, beat, beats, held }) => [text, near(beat), near(beats), held]),
  })),
})

describe('printing a chart', () => {
  test('reading the print gives the same chart, and printing that gives the same print', () => {
    fc.assert(
      fc.property(chartText, (text) => {
        const chart = parseChart(text)
        const printed = printChart(chart)
        expect(meaning(parseChart(printed))).toEqual(meaning(chart))
        expect(printChart(parseChart(printed))).toBe(printed)
      }),
      { numRuns: 600 },
    )
  })
  test('whatever was typed: nothing throws, nothing is lost, and reading the print is reading the text', () => {
    const noise = fc
      .array(
        fc.constantFrom(
          'C',
          'Am7',
          '|',
          '||',
          '|]',
          '%',
          '.',
          '/',
          '_',
          '[A]',
          '[',
          ']',
          '\n',
          'x',
          '(',
          ')',
          '|:',
          ':|',
          ':|x3',
          '1.',
          '|2.',
          'Fine',
          'Segno',
          'D.S. al Coda',
          'To Coda',
          'key: G\n',
          'key: C\n',
          'meter: 3/4\n',
          'pickup: 1\n',
          'capo: 99\n',
          'N.C.',
          'G7(b9, 13)',
          'wörd',
          'C_G',
          '::',
          '"',
          '"slow',
          '"slow down"',
          '"Am7"',
        ),
        { maxLength: 30 },
      )
      .map((parts) => parts.join(' '))
    fc.assert(
      fc.property(fc.oneof(noise, fc.string(), fc.string({ unit: 'grapheme' })), (text) => {
        const chart = parseChart(text)
        const printed = printChart(chart)
        expect(meaning(parseChart(printed)).bars).toEqual(meaning(chart).bars)
        expect(new Set(meaning(parseChart(printed)).problems)).toEqual(new Set(meaning(chart).problems))
        const unread = [
          ...slotsOf(chart)
            .filter((slot) => !slot.symbol)
            .map((slot) => slot.text),
          ...chart.loose.map((one) => one.text),
        ]
        for (const words of unread) expect(printed).toContain(words)
      }),
      { numRuns: 1500, examples: [['_)_'], ['_)_ C']] },
    )
  })
  test('more bars, or signs in a bar, than are read: they are said, kept in the text, and the print reads the same', () => {
    const sizes = fc.record({
      bars: fc.constantFrom(MOST_BARS - 1, MOST_BARS, MOST_BARS + 1, MOST_BARS + 40),
      signs: fc.constantFrom(3, MOST_SIGNS, MOST_SIGNS + 1, MOST_SIGNS + 30),
      word: fc.constantFrom('C', 'Am7', '(', '.', 'wörd'),
    })
    fc.assert(
      fc.property(sizes, ({ bars, signs, word }) => {
        const text =
          `${Array.from({ length: bars }, (_, at) => (at % 7 === 6 ? '[A] | G7 :|\n' : '| C ')).join('')}|\n| ${'% | '.repeat(2)}`.replace(
            '| C ',
            `| ${`${word} `.repeat(signs)}`,
          )
        const chart = parseChart(text)
        const printed = printChart(chart)
        expect(chart.bars.length).toBe(Math.min(MOST_BARS, bars + 2))
        expect(chart.problems.some(({ code }) => code === 'too-many-bars')).toBe(bars + 2 > MOST_BARS)
        expect(chart.problems.some(({ code }) => code === 'crowded-bar')).toBe(signs > MOST_SIGNS)
        expect(meaning(parseChart(printed)).bars).toEqual(meaning(chart).bars)
        expect(printed.replace(/\s/g, '').length).toBeGreaterThan(text.replace(/\s/g, '').length * 0.8)
      }),
      { numRuns: 40 },
    )
  })
  test.each([
    'meter: 4/4\n| C . _G7 . | C_G7 . . . | C__G7 Am . . |',
    'meter: 4/4\n|: C | Am |1. F | G7 :|\n|2. F G7 | C |',
    'meter: 4/4\npickup: 1\n| G7 | C | Segno F | G To Coda | Am D.S. al Coda |\n| Coda C Fine |',
    'key: C\nmeter: 12/8\ncapo: 2\n[A] |: C . . . . . F G . . . . | G :|x3\nkey: Eb\nmeter: 5/4\n[B] | Eb . . Bb7 . | % |',
    'meter: 4/4\n| C | . . G7 . |',
    'meter: 4/4\n| C | D :| |: E :|',
  ])('what is written the usual way is printed letter for letter: %j', (text) => {
    expect(parseChart(text).problems).toEqual([])
    expect(printChart(parseChart(text))).toBe(text)
  })
  test('four bars a line, a new line for each section', () => {
    expect(printChart(parseChart('key: C\n[A] C | Am | Dm | G | C . . G7\n[B] | F | % |'))).toBe(
      'key: C\nmeter: 4/4\n[A] | C | Am | Dm | G |\n| C . . G7 |\n[B] | F | % |',
    )
  })
})

describe('transposing', () => {
  const move = (text: string, from: string, to: string) =>
    transposeText(text, must(parseKey(from)), must(parseKey(to)))
  test.each([
    ['| C | A7 | Dm7 | G7 |', 'C', 'Eb', '| Eb | C7 | Fm7 | Bb7 |'],
    ['| C | F#°7 | G/B | Bb7 |', 'C', 'E', '| E | A#°7 | B/D# | D7 |'],
    ['| Am | E7(b9, b13) | C/G |', 'Am', 'F#m', '| F#m | C#7(b9, b13) | A/E |'],
    ['| C6/9 | N.C. | % | what? |', 'C', 'D', '| D6/9 | N.C. | % | what? |'],
  ])('%s from %s to %s is %s', (text, from, to, expected) => expect(move(text, from, to)).toBe(expected))
  test('the key line goes along, and the layout stays letter for letter', () => {
    expect(move('title: Cabin\r\nkey: C \n\n[C]  | C   Am |\r\n', 'C', 'D')).toBe(
      'title: Cabin\r\nkey: D\n\n[C]  | D   Bm |\r\n',
    )
  })
  test('there and back is the same chords, and no root gets more than one accidental', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -11, max: 11 }),
        fc.constantFrom('C', 'Bb', 'E', 'F#', 'Am', 'Ebm'),
        (semitones, name) => {
          const from = must(parseKey(name))
          const to = keyAbove(from, semitones)
          const tune = `| ${name.replace('m', '')} | ${keyName(keyAbove(from, 5)).replace('m', '')}7 |`
          const there = transposeText(tune, from, to)
          expect(there).not.toMatch(/bb|##/)
          const sounds = (text: string) =>
            parseChart(text).bars.map((one) =>
              one.slots.map((slot) =>
                slot.symbol?.kind === 'chord'
                  ? slot.symbol.chord.tones.map((tone) => pitchClass(tone.note))
                  : null,
              ),
            )
          expect(sounds(transposeText(there, to, from))).toEqual(sounds(tune))
        },
      ),
    )
  })
})
