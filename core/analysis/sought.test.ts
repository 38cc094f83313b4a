import fc from 'fast-check'
import { parseChart } from '../chart/parseChart'
import { transposeBars } from '../chart/editBars'
import { must } from '../result'
import { parseKey } from '../pitch/key'
import { numeralsAsked, soughtIn } from './sought'

const sought = (text: string) => soughtIn(parseChart(text))!
/** What SQL's LIKE answers. */
const like = (text: string, pattern: string) =>
  new RegExp(`^${pattern.replace(/%/g, '.*').replace(/_/g, '.')}$`).test(text)
function finds(query: string, text: string): boolean {
  const asked = numeralsAsked(query)
  if (!asked) throw new Error(`${query} is no numerals`)
  return 'steps' in asked ? like(sought(text).steps, asked.steps) : like(sought(text).inKey, asked.inKey)
}

describe('what a progression is found by', () => {
  test.each([
    ['ii V I', 'key: C\n| Dm7 | G7 | Cmaj7 | Cmaj7 |', true],
    // In a key the tune only points at.
    ['ii V I', 'key: C\n| C | Em7 A7 | D | C |', true],
    ['iim7 V7 Imaj7', 'key: Eb\n| Fm9 | Bb13 | Eb6 |', true],
    ['2-5-1', 'key: G minor\n| Am7b5 | D7 | Gm |', true],
    ['ii V I', 'key: G minor\n| Am7b5 | D7 | Gm |', false],
    ['ii V i', 'key: G minor\n| Am7b5 | D7 | Gm |', true],
    ['I bVII IV', 'key: D\n| D | C | G | D |', true],
    ['I bVII IV', 'key: D\n| D | G | C | D |', false],
    ['IV iv I', 'key: F\n| F | Bb | Bbm6 | F |', true],
    ['I | vi | ii | V', 'key: C\n| C Am | Dm G |', true],
    ['bVII', 'key: A\n| A | G | D | A |', true],
    ['bVII', 'key: A\n| A | E | D | A |', false],
  ])('%s in %s', (query, text, found) => {
    expect(finds(query, text)).toBe(found)
  })
  test.each(['Lantern', 'I', 'a 2', '', 'ii V blue', 'viii'])('“%s” is no numerals', (query) => {
    expect(numeralsAsked(query)).toBeNull()
  })
  test('a bass that walks or stays, and groups by their names', () => {
    expect(sought('| C | Dm7 | Em7 | F |').says).toContain('walking up')
    expect(sought('| C | G/B | Am | C/G |').says).toContain('walking down')
    expect(sought('| C | F/C | G/C | C |').says).toContain('pedal')
    expect(sought('| C | C | C | G7 |').says).not.toContain('pedal')
    expect(sought('key: C\n| C Am7 | Dm7 G7 | C |').says).toContain('turnaround')
    expect(soughtIn(parseChart(''))).toBeNull()
  })
  test('the same changes are equal in every key, others are not', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 11 }), (by) => {
        const text = '| Dm7 | G7 | Cmaj7 Am7/E | F |'
        const moved = transposeBars(text, 0, 3, by, must(parseKey('C')))
        expect(sought(moved).changes).toBe(sought(text).changes)
        expect(sought(moved).steps).toBe(sought(text).steps)
      }),
    )
    expect(sought('| Dm7 | G7 | C | F |').changes).not.toBe(sought('| Dm7 | G7 | C6 | F |').changes)
    expect(sought('| Dm7 | G7 |').changes).toBe('')
  })
})
