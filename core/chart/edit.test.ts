import fc from 'fast-check'
import { parseKey } from '../pitch/key'
import { must } from '../result'
import {
  insertBars,
  joinBars,
  moveBars,
  removeBars,
  splitBar,
  transposeBars,
  withBeat,
  withSetting,
} from './editBars'
import { parseChart } from './parseChart'

const C = must(parseKey('C'))
/** What is heard in each bar, whatever signs it is written with. */
const heard = (text: string) =>
  parseChart(text).bars.map((bar) => bar.slots.map((slot) => `${slot.text}${slot.beats}`).join(' '))

describe('a chord put on a beat', () => {
  test.each([
    ['| C | F |', 0, 3, 'G7', '| C G7 | F |'],
    ['| C | F |', 0, 4, 'G7', '| C . . G7 | F |'],
    ['| C | F |', 0, 4, '_G7', '| C . . _G7 | F |'],
    ['| C G7 | F |', 0, 3, '', '| C | F |'],
    ['| C | F |', 1, 1, '', '| C | . . . . |'],
    ['| C | % | F |', 1, 3, 'A7', '| C | C A7 | F |'],
    ['title: x\n\n[A]  |: C   Am :|x3', 0, 1, 'Em7', 'title: x\n\n[A]  |: Em7 Am :|x3'],
    ['| C . . G . | F |', 0, 5, 'A7', '| C . . G A7 | F |'],
    ['| "lightly" C | F |', 0, 3, 'G7', '| "lightly" C G7 | F |'],
  ])('%j bar %i beat %i %j', (text, bar, beat, word, expected) =>
    expect(withBeat(text, bar, beat, word)).toBe(expected),
  )
  test('a beat that is not there changes nothing', () => expect(withBeat('| C |', 0, 5, 'G')).toBe('| C |'))
})

describe('bars put in, taken out, moved, split and joined', () => {
  test.each([
    ['| C | F |', 1, ['G'], '| C | G | F |'],
    ['| C | F |', 2, ['G', 'A'], '| C | F | G | A |'],
    ['| C | % |', 1, ['G'], '| C | G | C |'],
    ['| C | D | E | F Fine |', 4, ['G'], '| C | D | E | F Fine |\n| G |'],
    ['| E | F Fine |', 2, ['G'], '| E | F Fine | G |'],
    ['|: C :|', 1, ['G'], '|: C :|\n| G |'],
    ['', 0, ['G'], '| G |'],
  ])('%j before %i: %j', (text, at, bars, expected) => expect(insertBars(text, at, bars)).toBe(expected))
  test.each([
    ['| C | D | E |', 1, 1, '| C | E |'],
    ['| C | D | E |', 2, 2, '| C | D |'],
    ['| C | D | % |', 1, 1, '| C | D |'],
    ['|: C | D :| E |', 1, 1, '|: C :| E |'],
    ['|: C :| E |', 0, 0, '| E |'],
    ['[A] | C |\n[B] | D |', 0, 0, '[B] | D |'],
    ['| C | D |\n| E |', 0, 2, ''],
    ['|: A |1. B | C :|2. D |', 1, 1, '|: A |1. C :|2. D |'],
  ])('%j without %i to %i', (text, from, to, expected) => expect(removeBars(text, from, to)).toBe(expected))
  test.each([
    ['| C | D | E | F |', 0, 1, 1, '| E | C | D | F |'],
    ['|: C | D :| E |', 1, 1, 1, '|: C | E :| D |'],
    ['| C | % | E |', 1, 1, 1, '| C | E | C |'],
    ['| C | % | E |', 0, 1, 1, '| E | C | % |'],
    ['| C | D |', 0, 0, -1, '| C | D |'],
  ])('%j: %i to %i by %i', (text, from, to, by, expected) =>
    expect(moveBars(text, from, to, by)).toBe(expected),
  )
  test.each([
    ['| C G7 | F |', 0, '| C | G7 | F |'],
    ['| C | F |', 0, '| C | % | F |'],
    ['| C . . G7 |', 0, '| C | C G7 |'],
    ['| C D E F | % |', 0, '| C D | E F | C D E F |'],
  ])('%j split at %i', (text, at, expected) => expect(splitBar(text, at)).toBe(expected))
  test.each([
    ['| C | G7 | F |', '| C G7 | F |'],
    ['| C | % | F |', '| C | F |'],
    ['| C G | F |', '| C G F . |'],
  ])('%j joined', (text, expected) => expect(joinBars(text, 0)).toBe(expected))
  test('transposing some bars leaves the others', () => {
    expect(transposeBars('key: C\n| C | G7 | % | F |', 0, 1, 1, C)).toBe('key: C\n| Db | Ab7 | G7 | F |')
  })
})

const bar = fc.constantFrom('C', 'Am7 D7', 'F . . G7', '%', 'C_G7 . . .', 'nonsense')
const chart = fc
  .array(
    fc.tuple(
      fc.constantFrom('| ', '|: ', '[B] | ', '|1. '),
      bar,
      fc.constantFrom(' |', ' |\n', ' :|', ' Fine |'),
    ),
    { minLength: 2, maxLength: 8 },
  )
  .map((bars) => `| Em |${bars.map((pieces) => pieces.join('')).join('')}`)

describe('settings', () => {
  test.each([
    ['key: C\n| C |', 'capo', '2', 'key: C\ncapo: 2\n| C |'],
    ['| C |', 'capo', '2', 'capo: 2\n| C |'],
    ['capo: 2\n| C |', 'capo', null, '| C |'],
    ['key: C\ncapo: 2\n| C |', 'capo', '5', 'key: C\ncapo: 5\n| C |'],
    ['key: C\ncapo: 2\n| C |', 'capo', null, 'key: C\n| C |'],
    ['| C |', 'capo', null, '| C |'],
    ['key: C\n| C |\nkey: D\n| D |', 'key', 'E', 'key: E\n| C |\nkey: D\n| D |'],
  ] as const)('%j %s %j', (text, name, value, expected) =>
    expect(withSetting(text, name, value)).toBe(expected),
  )
})

describe('for any chart', () => {
  const at = fc.nat(7)
  test('a bar put in and taken out again leaves what is heard', () => {
    fc.assert(
      fc.property(chart, at, (text, where) => {
        const { bars } = parseChart(text)
        const index = Math.min(where + 1, bars.length)
        const more = insertBars(text, index, ['Eb7'])
        expect(parseChart(more).bars).toHaveLength(bars.length + 1)
        expect(heard(more)[index]).toBe('Eb74')
        expect(heard(removeBars(more, index, index))).toEqual(heard(text))
      }),
    )
  })
  test('moving bars changes their order and nothing else', () => {
    fc.assert(
      fc.property(chart, at, fc.integer({ min: -3, max: 3 }), (text, where, by) => {
        const sorted = (list: string[]) => [...list].sort()
        expect(sorted(heard(moveBars(text, where, where, by)))).toEqual(sorted(heard(text)))
      }),
    )
  })
  test('no edit throws, and none touches what is not a chord', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          chart,
          fc.string({ maxLength: 60 }),
          fc.string({
            unit: fc.constantFrom(
              '|',
              ':',
              'C',
              ' ',
              '.',
              '_',
              '%',
              '1',
              '\n',
              '[A]',
              'Fine',
              'key: ',
              'x3',
              '(',
              'b5',
            ),
          }),
        ),
        at,
        fc.integer({ min: 1, max: 5 }),
        (text, index, beat) => {
          for (const edited of [
            withBeat(text, index, beat, 'G7'),
            insertBars(text, index),
            removeBars(text, index, index + 1),
            moveBars(text, index, index, 1),
            splitBar(text, index),
            joinBars(text, index),
            transposeBars(text, index, index, 2, C),
          ])
            expect(typeof edited).toBe('string')
        },
      ),
      { numRuns: 500 },
    )
  })
})
