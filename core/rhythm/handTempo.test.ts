import { firstOf, itemAt, theOne } from '../lists'
import fc from 'fast-check'
import { slotsOf, type Slot } from '../chart/chart'
import { parseChart } from '../chart/parseChart'
import { parseChord } from '../chord/parseChord'
import { DEFAULT_LIMITS } from '../voicing/gripLimits'
import { voicingsOf } from '../voicing/enumerate'
import { voicingOf, type Voicing } from '../voicing/voicing'
import { figureNamed } from './figures'
import { HAND_TIMES, needsMs } from '../leading/handTime'
import { atEase, handTempo } from './handTempo'
import { layFigure } from './lay'
import { lacks, needsOf, voicesOf } from './voices'

const limits = DEFAULT_LIMITS
const chordOf = (symbol: string) => {
  const read = parseChord(symbol)
  if (!read.ok) throw new Error(symbol)
  return read.value
}
const grip = (symbol: string, frets: string): Voicing =>
  voicingOf(
    frets.split(' ').map((fret) => (fret === 'x' ? null : Number(fret))),
    chordOf(symbol),
    limits,
  )!
const asked = (text: string, grips: Voicing[], figure: string | null = null) => {
  const chart = parseChart(text)
  const slots = slotsOf(chart)
  return handTempo({
    chart,
    grips: new Map<Slot, Voicing>(slots.map((slot, at) => [slot, itemAt(grips, at)])),
    figure: figure === null ? null : figureNamed(figure)!,
    limits,
  })
}
const C = grip('C', 'x 3 2 0 1 0')
const Am = grip('Am', 'x 0 2 2 1 0')
const F = grip('F', '1 3 3 2 1 1')
const Bb = grip('Bb', 'x 1 3 3 3 1')
const high = grip('F', 'x 8 10 10 10 8')

test('open C to A minor is at ease at 200, from there to a full barre on F at about 105; the most limiting comes first', () => {
  const { comfortable, changes } = asked('| C | Am | F |', [C, Am, F])
  expect(changes.map(({ index }) => index)).toEqual([1, 0])
  expect(comfortable).toBe(firstOf(changes).comfortable)
  expect(theOne(changes, ({ index }) => index === 0).comfortable).toBeGreaterThan(200)
  expect(firstOf(changes).comfortable).toBeGreaterThan(90)
  expect(firstOf(changes).comfortable).toBeLessThan(120)
})
test('grips that stay the same are no change, whatever they are called', () => {
  const { changes, comfortable } = asked('| C | C | C6 |', [C, C, C])
  expect(changes).toEqual([])
  expect(comfortable).toBeGreaterThan(300)
})
test.each([
  [96.8, 'at ease to 96'],
  [399.9, 'at ease to 399'],
  // Nobody can set more than 400.
  [400, 'at ease at any tempo'],
  [1132, 'at ease at any tempo'],
])('a hand that needs no more than %d beats a minute is %s', (comfortable, says) => {
  expect(atEase(comfortable)).toBe(says)
})
test('help is worked out, and each says the tempo it gives', () => {
  const { changes } = asked('| Am F |', [Am, F], 'pushes on two and four')
  const { comfortable } = firstOf(changes)
  const help = firstOf(changes).help.map(({ text }) => text)
  expect(help.some((one) => one.startsWith('Hold Am through the push'))).toBe(true)
  expect(help.some((one) => one.startsWith('Strike F half a beat later'))).toBe(true)
  expect(help.some((one) => one.startsWith('An easier grip for F, '))).toBe(true)
  expect(help.some((one) => one.startsWith('Another figure, '))).toBe(true)
  for (const one of help) {
    const [, now, then] = /: (\d+) becomes (\d+)\.$/.exec(one)!
    expect(Number(now)).toBe(Math.floor(comfortable))
    expect(Number(then)).toBeGreaterThan(Number(now))
  }
})
test('short chords leave the hand more time than held ones', () => {
  const held = asked('| C | F |', [C, F], 'half notes').comfortable
  const let_go = asked('| C | F |', [C, F], 'four to the bar').comfortable
  expect(let_go).toBeGreaterThan(held)
})
test('a repeat is a change too: the last chord leads back to the first', () => {
  const { changes } = asked('|: C | F :|', [C, F])
  expect(changes.map(({ index, to }) => [index, to]).sort()).toEqual([
    [0, 1],
    [1, 0],
  ])
})
test('a longer way, more fingers or a harder grip never need less; more time never makes it slower', () => {
  const pool = ['C', 'F', 'Bb', 'Am', 'G7', 'Dm7'].flatMap((symbol) =>
    voicingsOf(chordOf(symbol), limits).slice(0, 12),
  )
  fc.assert(
    fc.property(fc.constantFrom(...pool), fc.constantFrom(...pool), fc.constantFrom(...pool), (a, b, c) => {
      const [one, other] = [needsMs(a, b, limits), needsMs(a, c, limits)]
      const points = (voicing: Voicing) => Math.max(HAND_TIMES.easy, voicing.fingering.difficulty)
      if (one.mm <= other.mm && one.fingers <= other.fingers && points(b) <= points(c))
        expect(one.ms).toBeLessThanOrEqual(other.ms + 1e-9)
      expect(one.ms).toBeGreaterThanOrEqual(HAND_TIMES.release)
      const [slow, quick] = [asked('| C | F |', [a, b]), asked('| C F |', [a, b], 'off-beat eighths')]
      for (const { comfortable, beats, needsMs: ms } of [...slow.changes, ...quick.changes])
        expect(comfortable).toBeCloseTo((60_000 * beats) / ms)
    }),
    { numRuns: 60 },
  )
  // The same shape further away.
  expect(needsMs(Bb, high, limits).ms).toBeGreaterThan(needsMs(Bb, Bb, limits).ms)
  expect(needsMs(Bb, high, limits).mm).toBeGreaterThan(150)
})

describe('what a hit sounds of a grip', () => {
  const voices = (symbol: string, figure: string, voicing: Voicing | null) =>
    voicesOf(layFigure(parseChart(`| ${symbol} |`), figureNamed(figure)!).hits, () => voicing)
  test('the thumb goes to the root and the fifth, under the voices above', () => {
    expect(voices('C', 'alternating thumb', C).map(({ voices: one }) => one)).toEqual([
      [0],
      [1, 2, 3, 4],
      [2],
      [0],
      [2],
    ])
    expect(itemAt(C.midis, 2) - firstOf(C.midis)).toBe(7)
  })
  test('where no other chord tone lies low it stays, and says so', () => {
    const [, , second] = voices('C', 'alternating thumb', grip('C', 'x x x 0 1 0'))
    expect(second).toEqual({ voices: [0], gaveWay: expect.stringContaining('thumb stays') })
  })
  test('voices one by one go up and down again; inner ones go round between the outer', () => {
    expect(voices('C', 'eighths through the voices', C).map(({ voices: [one] }) => one)).toEqual([
      0, 1, 2, 3, 4, 3, 2, 1,
    ])
    expect(voices('C', 'bass and top, inner voices after', C).map(({ voices: one }) => one)).toEqual([
      [0],
      [4],
      [1],
      [2],
      [3],
    ])
    expect(voices('C', 'whole notes', null)).toEqual([{ voices: [], gaveWay: null }])
  })
  test('a pick wants neighbouring strings, a thumb a low one', () => {
    expect(lacks(grip('Cmaj7', 'x 3 x 4 5 3'), needsOf(figureNamed('four to the bar')!))).toMatch(/muted/)
    expect(lacks(C, needsOf(figureNamed('four to the bar')!))).toBeNull()
    expect(lacks(grip('C', 'x x x 0 1 0'), needsOf(figureNamed('waltz')!))).toMatch(/thumb/)
  })
})
