import { firstOf, itemAt } from '../lists'
import fc from 'fast-check'
import { carryOver } from './carryOver'
import { slotKey, slotsOf } from './chart'
import { printChart } from './print'
import { parseChart } from './parseChart'

const shape = (text: string) =>
  parseChart(text).bars.map((bar) =>
    bar.slots
      .map((slot) => `${slot.text}@${Number(slot.beat.toFixed(3))}+${Number(slot.beats.toFixed(3))}`)
      .join(' '),
  )

describe('chart text', () => {
  test('settings, sections, bars', () => {
    const chart = parseChart(
      'title: A Tune\nkey: Bb\nmeter: 3/4\ntempo: 132\n[A] | Bb | Gm7 | [B] | Cm7 | F7 |',
    )
    expect(chart).toMatchObject({ title: 'A Tune', meter: { beats: 3, unit: 4 }, tempo: 132, problems: [] })
    expect(chart.bars.map((bar) => [bar.section, bar.opensSection])).toEqual([
      ['A', true],
      ['A', false],
      ['B', true],
      ['B', false],
    ])
  })
  test('chords share a bar equally unless beats are marked', () => {
    expect(shape('| C G | C . . G7 | C Am F | C / G / |')).toEqual([
      'C@1+2 G@3+2',
      'C@1+3 G7@4+1',
      'C@1+1.333 Am@2.333+1.333 F@3.667+1.333',
      'C@1+2 G@3+2',
    ])
  })
  test('% repeats the bar before, a hold at the beginning of a bar goes on with its chord', () => {
    expect(shape('| C G | % | / . Am . |')).toEqual(['C@1+2 G@3+2', 'C@1+2 G@3+2', 'G@1+2 Am@3+2'])
  })
  test('line ends and double bar lines close bars; brackets keep their spaces', () => {
    expect(shape('C | Am\nDm7 (b5) || G7(b9, b13) |]')).toEqual([
      'C@1+4',
      'Am@1+4',
      'Dm7@1+2 (b5)@3+2',
      'G7(b9, b13)@1+4',
    ])
  })
  test.each([
    ['| C | X7 |', { line: 1, column: 7, bar: 2, beat: 1, text: 'X7' }],
    ['key: C\n| C Dm7q |', { line: 2, column: 5, bar: 1, beat: 3, text: 'Dm7q' }],
    ['| % |', { code: 'nothing-to-repeat', bar: 1 }],
    ['| C . G |', { code: 'wrong-beats', bar: 1 }],
    ['key: H\n| C |', { code: 'bad-key', line: 1, column: 6 }],
    ['meter: 4/5', { code: 'bad-meter' }],
    ['tempo: fast', { code: 'bad-tempo' }],
    ['mood: blue\n| C |', { code: 'bad-mood' }],
  ])('%j is marked in its place', (text, expected) => {
    const [problem] = parseChart(text).problems
    expect(problem).toMatchObject(expected)
    expect(problem!.accepted).not.toBe('')
  })
  test('a bad symbol leaves the rest standing and keeps its text', () => {
    const chart = parseChart('| C | Xyz Am | F |')
    expect(slotsOf(chart).map((slot) => slot.text)).toEqual(['C', 'Xyz', 'Am', 'F'])
    expect(slotsOf(chart).map((slot) => slot.symbol?.kind ?? null)).toEqual(['chord', null, 'chord', 'chord'])
  })
  test('no text throws, every problem has a place in it, and no bar holds more than the beats it is written with', () => {
    const music = fc
      .array(
        fc.constantFrom(
          'C',
          'Am7',
          '|',
          '%',
          '.',
          '/',
          '[A]',
          '\n',
          ' ',
          'x',
          '(',
          ')',
          ']',
          '[',
          '|:',
          ':|',
          ':|x3',
          '|1.',
          'C_G',
          '_',
          'Fine',
          'D.S. al Coda',
          'pickup: 1\n',
          'meter: 3/4\n',
          'key: G\n',
          'N.C.',
          'G7(b9, 13)',
        ),
        { maxLength: 40 },
      )
      .map((parts) => parts.join(' '))
    fc.assert(
      fc.property(fc.oneof(fc.string(), music), (text) => {
        const chart = parseChart(text)
        const lines = text.split(/\r\n|\r|\n/)
        for (const problem of chart.problems) {
          expect(problem.line).toBeGreaterThanOrEqual(1)
          expect(problem.line).toBeLessThanOrEqual(lines.length)
          expect(problem.column).toBeLessThanOrEqual(itemAt(lines, problem.line - 1).length + 1)
        }
        for (const bar of chart.bars) {
          const sum = bar.slots.reduce((beats, slot) => beats + slot.beats, 0)
          if (bar.slots.length > 0) expect(sum).toBeLessThanOrEqual(bar.beats + 1e-9)
        }
      }),
      { numRuns: 1500 },
    )
  })
})

describe('what was made on chords follows them', () => {
  const slots = (text: string) => slotsOf(parseChart(text))
  test('a bar put in moves what stands after it', () => {
    const moved = carryOver(slots('| C | Am | F | G |'), slots('| C | Em | Am | F | G |'))
    expect([...moved]).toEqual(
      expect.arrayContaining([
        ['1:1', '1:1'],
        ['2:1', '3:1'],
        ['4:1', '5:1'],
      ]),
    )
  })
  test('order is kept, only equal symbols are joined, and an unchanged chart keeps everything', () => {
    const tune = fc.array(fc.constantFrom('C', 'Am', 'F', 'G', 'E7'), { minLength: 1, maxLength: 12 })
    fc.assert(
      fc.property(tune, tune, (a, b) => {
        const [before, after] = [slots(`| ${a.join(' | ')} |`), slots(`| ${b.join(' | ')} |`)]
        const moved = carryOver(before, after)
        const text = (list: typeof before) => new Map(list.map((slot) => [slotKey(slot), slot.text]))
        const bars: number[] = []
        for (const slot of before) {
          const to = moved.get(slotKey(slot))
          if (!to) continue
          expect(text(after).get(to)).toBe(slot.text)
          bars.push(Number(to.split(':')[0]))
        }
        expect(bars).toEqual([...bars].sort((x, y) => x - y))
        expect(new Set(bars).size).toBe(bars.length)
        expect(carryOver(before, before).size).toBe(before.length)
      }),
    )
  })
})

test('a sign that is longer than any beat has room for stays as text, is told, and costs no time', () => {
  for (const sign of ['_'.repeat(90_000), 'C'.repeat(500), 'C_'.repeat(60)]) {
    const chart = parseChart(`| C | ${sign} | G |`)
    expect(chart.bars.map(({ slots }) => slots.map(({ symbol }) => symbol?.kind ?? null))).toEqual([
      ['chord'],
      [null],
      ['chord'],
    ])
    expect(chart.problems.map(({ code }) => code)).toEqual(['crowded-beat'])
    expect(firstOf(itemAt(parseChart(printChart(chart)).bars, 1).slots).text).toBe(sign)
  }
  expect(parseChart(`| ${'C_'.repeat(40)}C . . . |`).problems).toEqual([])
})
