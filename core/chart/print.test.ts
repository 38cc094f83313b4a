import fc from 'fast-check'
import { parseKey } from '../pitch/key'
import { pitchClass } from '../pitch/note'
import { must } from '../result'
import type { Chart } from './chart'
import { parseChart } from './parse'
import { printChart } from './print'
import { keyAbove, transposeText } from './transpose'
import { keyName } from '../pitch/key'

const bar = fc.oneof(
  fc.array(fc.constantFrom('C', 'Am7', 'F#m7b5', 'Bb13', 'N.C.', 'G7(b9, 13)', 'D/F#', 'Ebmaj7'), { minLength: 1, maxLength: 4 }).map((chords) => chords.join(' ')),
  fc.constantFrom('C . . G7', 'C / Am .', 'F . G .', '%'),
)
const chartText = fc.tuple(
  fc.constantFrom('', 'title: A Tune\n'), fc.constantFrom('', 'key: Bb\n', 'key: F#m\n'), fc.constantFrom('', 'meter: 4/4\n'), fc.constantFrom('', 'tempo: 90\n'),
  fc.array(fc.tuple(fc.constantFrom('', '', '[A] ', '[B] '), bar), { minLength: 1, maxLength: 12 }),
).map(([title, key, meter, tempo, bars]) => title + key + meter + tempo + bars.map(([section, chords], at) => `${section}| ${at === 0 && chords === '%' ? 'C' : chords} |`).join('\n'))

/** What a chart means, without where it stood in the text. */
const meaning = (chart: Chart) => ({
  title: chart.title, key: chart.key, meter: chart.meter, tempo: chart.tempo, problems: chart.problems.length,
  bars: chart.bars.map(({ section, opensSection, repeats, slots }) => ({
    section, opensSection, repeats,
    slots: slots.map(({ text, beat, beats }) => [text, Number(beat.toFixed(6)), Number(beats.toFixed(6))]),
  })),
})

describe('printing a chart', () => {
  test('reading the print gives the same chart, and printing that gives the same print', () => {
    fc.assert(fc.property(chartText, (text) => {
      const chart = parseChart(text)
      const printed = printChart(chart)
      expect(meaning(parseChart(printed))).toEqual(meaning(chart))
      expect(printChart(parseChart(printed))).toBe(printed)
    }), { numRuns: 400 })
  })
  test('four bars a line, a new line for each section', () => {
    expect(printChart(parseChart('key: C\n[A] C | Am | Dm | G | C . . G7\n[B] | F | % |'))).toBe('key: C\nmeter: 4/4\n[A] | C | Am | Dm | G |\n| C . . G7 |\n[B] | F | % |')
  })
})

describe('transposing', () => {
  const move = (text: string, from: string, to: string) => transposeText(text, must(parseKey(from)), must(parseKey(to)))
  test.each([
    ['| C | A7 | Dm7 | G7 |', 'C', 'Eb', '| Eb | C7 | Fm7 | Bb7 |'],
    ['| C | F#°7 | G/B | Bb7 |', 'C', 'E', '| E | A#°7 | B/D# | D7 |'],
    ['| Am | E7(b9, b13) | C/G |', 'Am', 'F#m', '| F#m | C#7(b9, b13) | A/E |'],
    ['| C6/9 | N.C. | % | what? |', 'C', 'D', '| D6/9 | N.C. | % | what? |'],
  ])('%s from %s to %s is %s', (text, from, to, expected) => expect(move(text, from, to)).toBe(expected))
  test('the key line goes along, and the layout stays letter for letter', () => {
    expect(move('title: Cabin\r\nkey: C \n\n[C]  | C   Am |\r\n', 'C', 'D')).toBe('title: Cabin\r\nkey: D\n\n[C]  | D   Bm |\r\n')
  })
  test('there and back is the same chords, and no root gets more than one accidental', () => {
    fc.assert(fc.property(fc.integer({ min: -11, max: 11 }), fc.constantFrom('C', 'Bb', 'E', 'F#', 'Am', 'Ebm'), (semitones, name) => {
      const from = must(parseKey(name))
      const to = keyAbove(from, semitones)
      const tune = `| ${name.replace('m', '')} | ${keyName(keyAbove(from, 5)).replace('m', '')}7 |`
      const there = transposeText(tune, from, to)
      expect(there).not.toMatch(/bb|##/)
      const sounds = (text: string) => parseChart(text).bars.map((one) => one.slots.map((slot) => (slot.symbol?.kind === 'chord' ? slot.symbol.chord.tones.map((tone) => pitchClass(tone.note)) : null)))
      expect(sounds(transposeText(there, to, from))).toEqual(sounds(tune))
    }))
  })
})
