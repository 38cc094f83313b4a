import { chord } from '../chord/parseChord'
import { parseKey } from '../pitch/key'
import { must } from '../result'
import { distanceFrom, fifthsBetween, tonesOutside } from './distance'

const key = (name: string) => must(parseKey(name))
const far = (symbols: readonly [string, number][], from = 'C') =>
  distanceFrom(
    symbols.map(([symbol, beats]) => ({ chord: chord(symbol), beats })),
    key(from),
  )

test.each([
  [0, 7, 1],
  [0, 5, 1],
  [0, 2, 2],
  [0, 6, 6],
  [0, 1, 5],
  [4, 4, 0],
])('from %i to %i it is %i fifths', (a, b, steps) => expect(fifthsBetween(a, b)).toBe(steps))

test.each([
  ['Cmaj7', 'C', 0],
  ['D7', 'C', 1],
  ['Db7', 'C', 2],
  ['F#maj7', 'C', 3],
  ['E7', 'Am', 0],
])('%s in %s has %i tones outside', (symbol, name, tones) =>
  expect(tonesOutside(chord(symbol), key(name))).toBe(tones),
)

test('a chord is as far as its tones and its root are: seven tenths and three tenths of the farthest', () => {
  expect(far([['Db7', 4]])).toEqual({ tones: 2, root: 5, total: 0.7 * (2 / 4) + 0.3 * (5 / 6) })
  expect(far([['Cmaj7', 4]])).toEqual({ tones: 0, root: 0, total: 0 })
  // The tones alone, the root alone.
  expect(far([['G7', 4]]).total).toBeCloseTo(0.05)
  expect(far([['Cm7', 4]]).total).toBeGreaterThan(0)
})

test('each chord counts for its time', () => {
  const [one, other] = [far([['Cmaj7', 4]]).total, far([['Db7', 4]]).total]
  expect(
    far([
      ['Cmaj7', 6],
      ['Db7', 2],
    ]).total,
  ).toBeCloseTo(0.75 * one + 0.25 * other)
})
