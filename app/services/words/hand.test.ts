import fc from 'fast-check'
import {
  MOST_TO_HOLD,
  aloneInWords,
  halfSteps,
  effortInWords,
  hardPartsInWords,
  holdInWords,
} from './handWords'

const HARDER = ['easy', 'moderate', 'demanding', 'hard']

test('what is harder is never said to be easier', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 20, noNaN: true }),
      fc.double({ min: 0, max: 20, noNaN: true }),
      (a, b) => {
        const [low, high] = [Math.min(a, b), Math.max(a, b)]
        expect(HARDER.indexOf(holdInWords(high))).toBeGreaterThanOrEqual(HARDER.indexOf(holdInWords(low)))
      },
    ),
  )
})
test('a filter lets through what has its name', () => {
  for (const [most, name] of MOST_TO_HOLD)
    if (name !== 'very easy') expect(holdInWords(Number(most) - 0.01)).toBe(name)
})
test('of what makes a grip hard the two worst are named, the worst first', () => {
  expect(hardPartsInWords({ fingers: 1.6, stretch: 2, placement: 0.5, barre: 0, mutes: 0.1, thumb: 0 })).toBe(
    'stretch, fingers to set down',
  )
  expect(hardPartsInWords({ fingers: 0.4, stretch: 0, placement: 0, barre: 0, mutes: 0, thumb: 0 })).toBe('')
})
test.each([
  [0, ''],
  [1, ', 1 note without a chord'],
  [3, ', 3 notes without a chord'],
])('%d notes alone', (count, words) => expect(aloneInWords(count)).toBe(words))
test.each([
  [1, '1 half step'],
  [0, '0 half steps'],
  [13, '13 half steps'],
])('%d', (count, words) => expect(halfSteps(count)).toBe(words))
test('a hand', () =>
  expect([0, 2, 3, 9].map(effortInWords)).toEqual([
    'easy for the hand',
    'moderate for the hand',
    'demanding for the hand',
    'hard for the hand',
  ]))
