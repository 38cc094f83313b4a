import { chord } from '../chord/parseChord'
import { standsFor } from './fits'
import { DEFAULT_LIMITS } from './gripLimits'

const stands = (grip: string, symbol: string, anyGuide = false) =>
  standsFor(
    grip.split(' ').map((fret) => (fret === 'x' ? null : Number(fret))),
    chord(symbol),
    DEFAULT_LIMITS,
    anyGuide,
  )

describe('what may stand for a chord in a line that adds tensions or leaves the root away (common practice)', () => {
  test.each([
    ['x x 3 5 5 5', 'Dm7', 'a rootless ninth'],
    ['x x 3 4 5 5', 'G7', 'a rootless thirteenth'],
    ['x x 10 10 x x', 'Dm7', 'guide tones'],
    ['x 3 2 4 3 x', 'Cmaj7', 'a ninth on top'],
    ['x 5 5 5 6 x', 'Dm7', 'an eleventh'],
  ])('%s for %s: %s', (grip, symbol) => expect(stands(grip, symbol)).toBe(true))
  test.each([
    ['x 3 2 0 1 0', 'Dm7', 'another chord'],
    ['x x 10 x x 8', 'F7', 'no guide tone'],
    ['x 3 3 2 1 x', 'Cmaj7', 'an eleventh over a major third'],
    ['x x x x x x', 'C', 'nothing'],
  ])('%s not for %s: %s', (grip, symbol) => expect(stands(grip, symbol)).toBe(false))
  test('an upper structure may leave the third to others', () =>
    expect([stands('x x x 5 5 3', 'Dm7'), stands('x x x 5 5 3', 'Dm7', true)]).toEqual([false, true]))
})
