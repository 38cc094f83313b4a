import { firstOf, itemAt, lastOf, theOne } from '../lists'
import fc from 'fast-check'
import { NEAR } from '../chart/beats'
import { slotsOf } from '../chart/chart'
import { playOrder } from '../chart/form'
import { parseChart } from '../chart/parseChart'
import { parsePitch, type Pitch } from '../pitch/note'
import {
  ACCENTS,
  FIGURES,
  figureNamed,
  figuresFor,
  lengthInCycle,
  HIT_PARTS,
  STROKES,
  type Cycle,
} from './figures'
import { RESTARTS } from './hit'
import { layFigure, type Laid } from './lay'
import { playedBars, spansOf } from './playedTime'
import { swingAt, swung, swungTime } from './swing'

const laid = (text: string, figure: string | Cycle, options: Parameters<typeof layFigure>[2] = {}) =>
  layFigure(parseChart(text), typeof figure === 'string' ? figureNamed(figure)! : figure, options)
const short = ({ hits }: Laid) =>
  hits.map(({ bar, beat, slot, pushed }) => `${bar}:${beat} ${slot.text}${pushed ? ' pushed' : ''}`)
const pitch = (text: string): Pitch => {
  const read = parsePitch(text)
  if (!read.ok) throw new Error(text)
  return read.value
}

describe('the table', () => {
  test('has at least 24 figures over the five metres, each with a name of its own and a reason', () => {
    expect(FIGURES.length).toBeGreaterThanOrEqual(24)
    expect(new Set(FIGURES.map(({ name }) => name)).size).toBe(FIGURES.length)
    for (const meter of ['4/4', '3/4', '6/8', '12/8', '5/4'])
      expect(figuresFor(meter).length).toBeGreaterThan(1)
    for (const { why } of FIGURES) expect(why.length).toBeGreaterThan(20)
  })
  test.each(FIGURES.map((figure) => [figure.name, figure] as const))(
    '%s: hits in order within the cycle, none longer than to its next',
    (_, figure) => {
      const places = figure.hits.map(({ at }) => at)
      expect(places).toEqual([...places].sort((a, b) => a - b))
      for (const hit of figure.hits) {
        expect(hit.at).toBeGreaterThanOrEqual(0)
        expect(hit.at).toBeLessThan(figure.cycle)
        const length = lengthInCycle(figure, hit)
        expect(length).toBeGreaterThan(0)
        expect(length).toBeLessThanOrEqual(figure.cycle)
      }
    },
  )
})

describe('laying', () => {
  test('a push takes the next chord half a beat early and ties over; the first chord has nothing to be pushed from', () => {
    const { hits } = laid('| Dm7 | G7 | C |', 'pushes on the and of four')
    expect(hits.map(({ bar, beat, slot, pushed }) => [bar, beat, slot.text, pushed])).toEqual([
      [1, 1, 'Dm7', false],
      [1, 2.5, 'Dm7', false],
      [1, 4.5, 'G7', true],
      [2, 2.5, 'G7', false],
      [2, 4.5, 'C', true],
      [3, 2.5, 'C', false],
      [3, 4.5, 'C', false],
    ])
    // Half a beat before the bar line, and on to the next hit.
    expect(itemAt(hits, 2).beats).toBeCloseTo(2)
  })
  test('with two chords a bar a figure that pushes has its other hit ahead of the second one', () => {
    const { hits } = laid('| Dm7 G7 | C A7 | Dm7 G7 |', 'pushes on the and of four')
    expect(
      hits.filter(({ bar }) => bar === 2).map(({ beat, slot, pushed }) => [beat, slot.text, pushed]),
    ).toEqual([
      [2.5, 'A7', true],
      [4.5, 'Dm7', true],
    ])
  })
  test('three beats run on over the bar line, until the tune, the section or the bar begins again', () => {
    const text = '[A] | C | % | [B] | F | % |'
    const ones = (restart: (typeof RESTARTS)[number]) =>
      laid(text, { cycle: 3, hits: [firstOf(figureNamed('big quarters')!.hits)] }, { restart }).hits.map(
        ({ bar, beat }) => `${bar}:${beat}`,
      )
    expect(ones('tune')).toEqual(['1:1', '1:4', '2:3', '3:2', '4:1', '4:4'])
    expect(ones('section')).toEqual(['1:1', '1:4', '2:3', '3:1', '3:4', '4:3'])
    expect(ones('bar')).toEqual(['1:1', '1:4', '2:1', '2:4', '3:1', '3:4', '4:1', '4:4'])
  })
  test('repeats and endings are followed as they are played', () => {
    const { hits } = laid('|: C |1. F :|2. G |', 'whole notes')
    expect(hits.map(({ bar }) => bar)).toEqual([1, 2, 1, 3])
  })
  test('silences stay silent and say so; what has no hit of the figure is struck where it comes', () => {
    const { hits, silent } = laid('| C . N.C. . | F G Am G |', 'whole notes')
    expect(short({ hits } as Laid)).toEqual(['1:1 C', '2:1 F', '2:2 G', '2:3 Am', '2:4 G'])
    expect(firstOf(hits).beats).toBe(2)
    expect(itemAt(hits, 2).why).toMatch(/so that G is heard/)
    expect(silent).toEqual([{ bar: 1, beat: 3, text: 'N.C.', why: expect.stringContaining('N.C.') }])
  })
  test('a chord that would have only its bass sounds whole', () => {
    const { hits } = laid('| C F |', 'bass, bass, chord, chord')
    expect(hits.map(({ part }) => part)).toEqual(['all', 'fifth', 'all', 'upper'])
  })
  test.each(FIGURES.filter(({ hits }) => hits.some(({ part }) => part === 'fifth')).map(({ name }) => name))(
    '%s: the first low note of a chord that comes anew is its bass, and the last chord rings (common practice, no source)',
    (name) => {
      const { meters } = figureNamed(name)!
      for (const bars of ['| C F | G C | Am | Dm G |', '| C | F | G | C |', '| C F G Am | Dm | G |']) {
        const { hits, length } = laid(`meter: ${meters[0]}\n${bars}`, name)
        const first = new Map<unknown, string>()
        for (const { slot, part, stroke } of hits)
          if (stroke !== 'dead' && part !== 'upper' && part !== 'top' && part !== 'inner' && !first.has(slot))
            first.set(slot, part)
        for (const [, part] of first) expect(['bass', 'all', 'single']).toContain(part)
        const end = lastOf(hits)
        expect(end.time + end.lasts).toBeCloseTo(length, 6)
      }
    },
  )
  test('a pickup has the end of the cycle, so that the first bar has its beginning', () => {
    const { hits } = laid('pickup: 1\n| G | C | F |', 'waltz')
    const four = laid('pickup: 1\n| G | C | F |', 'two and four')
    expect(hits.some(({ bar, beat }) => bar === 1 && beat === 1)).toBe(true)
    expect(four.hits.slice(0, 3).map(({ bar, beat }) => `${bar}:${beat}`)).toEqual(['0:4', '1:2', '1:4'])
  })
  test('where the metre changes the figure begins again; where the beat changes another stands in and that is said', () => {
    const three = laid('| C | [3/4] F | G | [4/4] C |', 'dotted quarter and eighth')
    expect(three.hits.filter(({ beat }) => beat === 1).map(({ bar }) => bar)).toEqual([1, 2, 3, 4])
    const six = laid('| C | [6/8] F | % |', 'two and four')
    if (itemAt(parseChart('| C | [6/8] F | % |').bars, 1).meter.unit === 8) {
      expect(six.notes[0]).toMatch(/6\/8/)
      expect(six.hits.filter(({ bar }) => bar === 2).map(({ beat }) => beat)).toEqual([1, 4])
    }
  })
  test('the last hit of a section and of the tune is accented', () => {
    const { hits } = laid('[A] | C | F | [B] | G | C |', 'half notes')
    expect(hits.filter(({ accent }) => accent === 'accent').map(({ bar, beat }) => [bar, beat])).toEqual([
      [2, 3],
      [4, 3],
    ])
  })
})

describe('space', () => {
  const text = '| C | Am | Dm | G7 |'
  test('density thins ghosts first and the first hit of each chord last, each with what is said of it', () => {
    const at = (density: number) => laid(text, 'sixteenths with dead strokes', { density })
    const ghosts = ({ hits }: Laid) => hits.filter(({ accent }) => accent === 'ghost').length
    expect(ghosts(at(1))).toBeGreaterThan(0)
    expect(ghosts(at(0.4))).toBe(0)
    expect(at(0.15).hits.map(({ beat }) => beat)).toContain(1)
    expect(at(0).hits).toEqual([])
    expect(at(0).silent.map(({ bar }) => bar)).toEqual([1, 2, 3, 4])
    expect(at(0.5).leftOut.every(({ why }) => why.startsWith('thinned out: '))).toBe(true)
  })
  test('less is a part of more', () => {
    const places = (density: number) => new Set(short(laid(text, 'off-beat eighths', { density })))
    for (const [less, more] of [
      [0.2, 0.5],
      [0.5, 0.9],
    ] as const)
      for (const place of places(less)) expect(places(more)).toContain(place)
  })
  test('under a melody the guitar answers in its gaps, keeps every chord, and gives its register up', () => {
    const note = (bar: number, beat: number, beats: number, name: string) => ({
      bar,
      beat,
      beats,
      note: pitch(name),
    })
    const melody = [1, 2, 3, 4].map((beat) => note(1, beat, 1, 'E5')).concat([note(2, 1, 1, 'A3')])
    const { hits, leftOut } = laid(text, 'four to the bar', { melody })
    expect(hits.filter(({ bar }) => bar === 1).map(({ beat }) => beat)).toEqual([1])
    expect(hits.filter(({ bar }) => bar === 2).map(({ beat }) => beat)).toEqual([1, 2, 3, 4])
    expect(hits.find(({ bar }) => bar === 2)).toMatchObject({
      part: 'upper',
      why: expect.stringContaining('low'),
    })
    expect(leftOut).toHaveLength(3)
    expect(firstOf(leftOut).why).toMatch(/melody/)
  })
})

describe('phrases', () => {
  const text = '| C | Am | Dm | G7 | C | Am | Dm | G7 |'
  const plain = laid(text, 'dotted quarter and eighth')
  const seeded = (seed: number, phrase: 2 | 4 = 4) =>
    laid(text, 'dotted quarter and eighth', { seed, phrase })
  const ofBar = ({ hits }: Laid, bar: number) =>
    hits.filter((hit) => hit.bar === bar).map(({ beat, beats, accent }) => `${beat} ${beats} ${accent}`)
  test('a seed gives the same phrase each time, other seeds others', () => {
    expect(short(seeded(3))).toEqual(short(seeded(3)))
    expect(new Set([1, 2, 3, 4, 5].map((seed) => JSON.stringify(short(seeded(seed))))).size).toBeGreaterThan(
      2,
    )
  })
  test('the phrase states the figure, changes one bar and fills its end', () => {
    for (let seed = 1; seed < 12; seed += 1) {
      const one = seeded(seed)
      expect(ofBar(one, 1)).toEqual(ofBar(plain, 1))
      const changed = [2, 3].filter((bar) => ofBar(one, bar).join() !== ofBar(plain, bar).join())
      expect(changed.length).toBeGreaterThan(0)
      expect(one.hits.some(({ bar, why }) => bar === 4 && why?.includes('fill'))).toBe(true)
      expect(seeded(seed, 2).hits.some(({ bar, why }) => bar === 2 && why?.includes('fill'))).toBe(true)
    }
  })
})

describe('on any chart with any figure', () => {
  const symbols = ['C', 'Am7', 'Dm7', 'G7', 'F#m7b5', 'Bb13', 'N.C.', 'E/G#']
  const barText = fc
    .array(fc.constantFrom(...symbols), { minLength: 1, maxLength: 4 })
    .map((chords) => ({ chords, text: chords.join(' ') }))
  const chart = fc
    .record({
      meter: fc.constantFrom('4/4', '3/4', '5/4', '6/8', '12/8'),
      bars: fc.array(barText, { minLength: 1, maxLength: 9 }),
      section: fc.integer({ min: 0, max: 8 }),
      repeat: fc.boolean(),
    })
    .map(({ meter, bars, section, repeat }) => {
      const fits = bars.map(({ chords }) => chords.slice(0, meter === '3/4' ? 3 : 4).join(' '))
      const written = fits.map((bar, at) => `${at === section ? '[B] ' : ''}| ${bar} `).join('')
      return `meter: ${meter}\n${repeat ? `|: ${written.replace(/^(\[B\] )?\| /, '$1')}:|` : `${written}|`}`
    })
  const eighths = fc.integer({ min: 0, max: 31 }).map((at) => at / 2)
  const hit = fc.record({
    at: eighths,
    length: fc.constantFrom('short' as const, 'held' as const, 1, 0.5, 3),
    part: fc.constantFrom(...HIT_PARTS),
    accent: fc.constantFrom(...ACCENTS),
    stroke: fc.constantFrom(...STROKES),
    push: fc.boolean(),
  })
  const figure = fc.oneof(
    fc.constantFrom(...FIGURES),
    fc
      .record({
        cycle: fc.constantFrom(1, 1.5, 2, 3, 4, 5, 8),
        hits: fc.array(hit, { minLength: 1, maxLength: 8 }),
      })
      .map(({ cycle, hits }) => ({ cycle, hits: hits.map((one) => ({ ...one, at: one.at % cycle })) })),
  )
  const options = fc.record({
    restart: fc.constantFrom(...RESTARTS),
    density: fc.constantFrom(1, 0.7, 0.3, 0),
    seed: fc.constantFrom(0, 1, 7),
    phrase: fc.constantFrom(2 as const, 4 as const),
  })
  test('every chord is heard or its silence is said; hits lie in their bars, in order, and end before another chord sounds; a push sounds what comes', () =>
    fc.assert(
      fc.property(chart, figure, options, (text, cycle, given) => {
        const read = parseChart(text)
        fc.pre(read.problems.length === 0)
        const { hits, silent, length } = layFigure(read, cycle, given)
        const bars = playedBars(read)
        const spans = spansOf(bars)
        expect(length).toBeCloseTo(spans.reduce((sum, { from, to }) => sum + to - from, 0))
        const wrong = hits.flatMap((one, at) => {
          const span = theOne(
            spans,
            ({ from, slot }) => Math.abs(from - one.chordFrom) < NEAR && slot === one.slot,
          )
          const { scale } = theOne(
            bars,
            ({ bar, from, to }) => bar.number === one.bar && one.time >= from - NEAR && one.time < to,
          )
          const bar = theOne(read.bars, ({ number }) => number === one.bar)
          const holds = {
            'stands in its chord, or up to a beat before it': one.pushed
              ? one.time < span.from - NEAR && span.from - one.time <= scale + NEAR
              : one.time >= span.from - NEAR && one.time < span.to,
            'ends before another chord': one.time + one.lasts <= span.to + NEAR,
            lasts: one.lasts > 0,
            'comes in order': one.time >= (hits[at - 1]?.time ?? 0) - NEAR,
            'lies in its bar': one.beat >= bar.from - NEAR && one.beat < bar.from + bar.beats,
          }
          return Object.entries(holds).flatMap(([what, so]) => (so ? [] : [`hit ${at}: ${what}`]))
        })
        expect(wrong).toEqual([])
        const sounding = new Set(hits.map(({ chordFrom }) => Math.round(chordFrom * 1000)))
        const said = spans.filter(({ from }) => !sounding.has(Math.round(from * 1000)))
        expect(silent).toHaveLength(said.length)
        for (const { why } of silent) expect(why).not.toBe('nothing is struck here')
      }),
      { numRuns: 300 },
    ))
  test('the chart is not changed by it, and the bars keep their beats', () =>
    fc.assert(
      fc.property(chart, figure, (text, cycle) => {
        const read = parseChart(text)
        const before = JSON.stringify(read)
        layFigure(read, cycle)
        expect(JSON.stringify(read)).toBe(before)
        expect(playedBars(read).map(({ bar }) => bar)).toEqual(playOrder(read).map((at) => read.bars[at]))
        expect(slotsOf(read).length).toBeGreaterThan(0)
      }),
      { numRuns: 50 },
    ))
})

describe('swing', () => {
  test('falls as the tempo rises: about 2 near 120, towards 1.3 above 220 (from memory of published timing studies)', () => {
    expect(swingAt(120)).toBeCloseTo(2)
    expect(swingAt(230)).toBeLessThan(1.4)
    for (let tempo = 30; tempo < 320; tempo += 5) {
      expect(swingAt(tempo + 5)).toBeLessThanOrEqual(swingAt(tempo))
      expect(swingAt(tempo)).toBeGreaterThan(1)
    }
  })
  test('moves the eighths between the beats and nothing on them, and keeps the order', () => {
    expect(swung(0.5, 2)).toBeCloseTo(2 / 3)
    expect(swung(0, 3)).toBe(0)
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 0.999, noNaN: true }),
        fc.double({ min: 0, max: 0.999, noNaN: true }),
        fc.double({ min: 1, max: 4, noNaN: true }),
        (a, b, ratio) => {
          if (a < b) expect(swung(a, ratio)).toBeLessThanOrEqual(swung(b, ratio))
        },
      ),
    )
  })
  test('a pickup is swung from its own beats, eighth metres stay straight', () => {
    const bars = playedBars(parseChart('pickup: 1\n| G | C |'))
    expect(swungTime(bars, 0.5, 2)).toBeCloseTo(2 / 3)
    expect(swungTime(bars, 1.5, 2)).toBeCloseTo(1 + 2 / 3)
    expect(swungTime(playedBars(parseChart('meter: 6/8\n| C |')), 1.5, 2)).toBe(1.5)
  })
})
