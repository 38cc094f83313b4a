import { analyse } from '../analysis/analyse'
import { slotsOf } from '../chart/chart'
import { parseChart } from '../chart/parseChart'
import { itemAt } from '../lists'
import { DEFAULT_LIMITS } from '../voicing/gripLimits'
import { ringingStrings } from './letRing'

const ringing = (text: string, sizes: 1 | 2, only: number | null = null) => {
  const chart = parseChart(text)
  const chords = slotsOf(chart).flatMap(({ symbol }) => (symbol?.kind === 'chord' ? [symbol.chord] : []))
  const roles = analyse(chart).readings.map(({ role }) => role)
  return ringingStrings(chords, roles, DEFAULT_LIMITS, sizes, only)!
}
const LOW_E = 0
const A_STRING = 1
const B_STRING = 4

describe('an open string that rings through a stretch', () => {
  test('open B over B F# E G#m: what it is to each, what each becomes, and grips with it', () => {
    const [found] = ringing('key: E\n| B | F# | E | G#m |', 1)
    expect(found!.strings).toEqual([B_STRING])
    expect(found!.chords.map(({ degrees }) => degrees[0])).toEqual(['1', '11', '5', 'b3'])
    expect(found!.chords.map(({ becomes }) => becomes.canonical)).toEqual(['B', 'F#add11', 'E', 'G#m'])
    for (const { grip } of found!.chords) expect(grip!.frets[B_STRING]).toBe(0)
  })

  test('the 4 of a dominant takes the place of its third; a sixth on a triad is called so', () => {
    const over = (text: string, string: number) =>
      ringing(text, 1, string)[0]!.chords.map(({ becomes, degrees }) => `${becomes.canonical} ${degrees[0]}`)
    expect(over('key: D\n| D | Bm7 | G | A7 |', 2)).toEqual(['D 1', 'Bm7 b3', 'G 5', 'A7sus4 4'])
    expect(over('key: C\n| C | F | C | G |', 5)).toEqual(['C 3', 'Fmaj7 7', 'C 3', 'G6 6'])
  })

  test('a tone to avoid is said, not refused', () => {
    const [found] = ringing('key: E\n| B | F# | E | G#m |', 1, B_STRING)
    const under = itemAt(found!.chords, 1)
    expect(under.heard).toBe('avoid')
    expect(under.says).toContain('avoid')
    expect(under.grip).not.toBeNull()
  })

  test('least change first, and every grip holds the tones of what the chord becomes', () => {
    for (const sizes of [1, 2] as const) {
      const all = ringing('key: G\n| G | Em7 | Am7 | D7 |', sizes)
      expect(all).toHaveLength(sizes === 1 ? 6 : 15)
      const costs = all.map(({ cost }) => cost)
      expect(costs).toEqual([...costs].sort((a, b) => a - b))
      for (const { strings, chords } of all)
        for (const { grip } of chords)
          if (grip) for (const string of strings) expect(grip.frets[string]).toBe(0)
    }
  })

  test('a string below the bass is a pedal, and a slash chord keeps its bass in its name', () => {
    const [pedal] = ringing('key: A\n| A | D | E |', 1, A_STRING)
    expect(itemAt(pedal!.chords, 1).grip!.frets[A_STRING]).toBe(0)
    const [under] = ringing('key: C\n| C | G/B | Am |', 1, LOW_E)
    expect(itemAt(under!.chords, 1).becomes.canonical).toMatch(/\/B$/)
  })
})
