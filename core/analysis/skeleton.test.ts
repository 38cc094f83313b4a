import { itemAt } from '../lists'
import fc from 'fast-check'
import { parseChart } from '../chart/parseChart'
import { printChart } from '../chart/print'
import { chord } from '../chord/parseChord'
import { reduceTo, skeletonOf } from './skeleton'

const bars = (text: string, level: 1 | 2 | 3) =>
  printChart(skeletonOf(parseChart(text), level))
    .split('\n')
    .at(-1)

describe('the skeleton of a progression (common practice, no source)', () => {
  test('drops the ii of every ii-V, also across a bar line and in minor', () => {
    expect(bars('key: C\n| C | Dm7 G7 | Bm7b5 | E7 | Am |', 1)).toBe('| Am |')
    expect(printChart(skeletonOf(parseChart('key: C\n| C | Dm7 G7 | Bm7b5 | E7 |'), 1))).toContain(
      '| C | G7 | E7 | E7 |',
    )
  })
  test('drops passing diminished and approach chords', () => {
    expect(bars('key: C\n| C C#dim7 | Dm | G7 | C |', 1)).toBe('| C | G7 | G7 | C |')
    expect(bars('key: C\n| C | Ebm7 Dm7 | G13 | C |', 1)).toBe('| C | C G13 | G13 | C |')
  })
  test('reduces to sevenths, then to triads', () => {
    expect(bars('key: C\n| C6/9 | F13 | Em11 | Bb9#11 |', 2)).toBe('| C6 | F7 | Em7 | Bb7 |')
    expect(bars('key: C\n| C6/9 | F13 | Em11 | Bb9#11 |', 3)).toBe('| C | F | Em | Bb |')
  })
  test.each([
    ['Cm9b5', 'Cm7b5', 'Cdim'],
    ['Cdim7', 'Cdim7', 'Cdim'],
    ['C7alt', 'C7', 'C'],
    ['C13sus4', 'C7sus4', 'Csus4'],
    ['Cm(maj9)', 'Cm(maj7)', 'Cm'],
    ['Cmaj7#5', 'Cmaj7#5', 'Caug'],
    ['C9/E', 'C7/E', 'C/E'],
    ['C5', 'C5', 'C5'],
  ])('%s is %s as a seventh and %s as a triad', (symbol, seventh, triad) => {
    expect(reduceTo(chord(symbol), 2).canonical).toBe(seventh)
    expect(reduceTo(chord(symbol), 3).canonical).toBe(triad)
  })
  test('bars keep their length and number, nothing new comes in at level 1, and the chart itself is not touched', () => {
    const tune = fc.array(
      fc.constantFrom(
        'C',
        'Am7 D9',
        'Dm7 G7',
        'C#dim7',
        'F . G7 .',
        'Em7b5 A7 Dm',
        '%',
        'N.C.',
        'Bb13 Eb',
        'zz',
      ),
      { minLength: 1, maxLength: 12 },
    )
    fc.assert(
      fc.property(tune, fc.constantFrom(1, 2, 3 as const), (list, level) => {
        const text = `key: C\n| C | ${list.join(' | ')} |`
        const chart = parseChart(text)
        const before = JSON.stringify(chart)
        const skeleton = skeletonOf(chart, level as 1)
        expect(JSON.stringify(chart)).toBe(before)
        expect(skeleton.bars).toHaveLength(chart.bars.length)
        skeleton.bars.forEach((bar, at) => {
          const sum = (slots: { beats: number }[]) => slots.reduce((beats, slot) => beats + slot.beats, 0)
          expect(sum(bar.slots)).toBeCloseTo(sum(itemAt(chart.bars, at).slots), 6)
        })
        const symbols = new Set(
          chart.bars.flatMap((bar) =>
            bar.slots.map((slot) =>
              slot.symbol?.kind === 'chord' ? slot.symbol.chord.canonical : slot.text,
            ),
          ),
        )
        if (level === 1)
          for (const bar of skeleton.bars)
            for (const slot of bar.slots) expect(symbols.has(slot.text)).toBe(true)
      }),
    )
  })
})
