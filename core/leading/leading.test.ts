import { firstOf, itemAt, lastOf, theOne } from '../lists'
import fc from 'fast-check'
import { chord } from '../chord/parseChord'
import { midi, modulo } from '../pitch/note'
import { must } from '../result'
import { voicingsOf } from '../voicing/enumerate'
import { DEFAULT_LIMITS, TUNE_LIMITS, type Limits } from '../voicing/gripLimits'
import type { Voicing } from '../voicing/voicing'
import { contourTops } from './contour'
import { differentLines } from './different'
import { bestLines } from './lead'
import { needsMs } from './handTime'
import { leadInStyle, styledLines } from './inStyle'
import { lineOf, type Line } from './line'
import { leastClassMotion, leastMotion, outerMotion, voiceSteps } from '../pitch/motion'
import { TERM_NAMES, weightsFrom, type Weights } from './weights'

const notes = fc
  .uniqueArray(fc.integer({ min: 40, max: 76 }), { minLength: 1, maxLength: 4 })
  .map((list) => [...list].sort((a, b) => a - b))

/** The definition itself: every set of pairs in which each note takes part, tried one by one. */
function motionByDefinition(
  a: readonly number[],
  b: readonly number[],
  distance: (x: number, y: number) => number,
): number {
  const pairs = a.flatMap((x, i) => b.map((y, j) => ({ i, j, cost: distance(x, y) })))
  let best = Infinity
  for (let set = 1; set < 1 << pairs.length; set += 1) {
    const chosen = pairs.filter((_, at) => set & (1 << at))
    const cost = chosen.reduce((sum, pair) => sum + pair.cost, 0)
    if (
      cost < best &&
      new Set(chosen.map((pair) => pair.i)).size === a.length &&
      new Set(chosen.map((pair) => pair.j)).size === b.length
    )
      best = cost
  }
  return best
}

describe('least motion (Tymoczko, "The Geometry of Musical Chords", Science 313, 2006; from memory)', () => {
  const classes = (symbol: string) => [
    ...new Set(
      chord(symbol).tones.map((tone) =>
        modulo(midi(`${'CDEFGAB'[tone.note.letter]}4`) + tone.note.alter, 12),
      ),
    ),
  ]
  const total = (a: string, b: string) =>
    leastClassMotion(classes(a), classes(b)).reduce((sum, step) => sum + Math.abs(step.semitones), 0)
  test.each([
    ['C', 'Am', 2],
    ['C', 'Em', 1],
    ['C', 'F', 3],
    ['C', 'Ab', 2],
    ['C', 'Cm', 1],
    ['C7', 'F#7', 2],
    ['C7', 'C#dim7', 1],
    ['Caug', 'C', 1],
    ['Caug', 'E', 1],
    ['Caug', 'Ab', 1],
    ['Caug', 'Am', 1],
    ['Caug', 'C#m', 1],
    ['Caug', 'Fm', 1],
    ['Dm7', 'G7', 3],
    ['G7', 'Cmaj7', 3],
  ])('%s to %s is %i', (a, b, semitones) => {
    expect(total(a, b)).toBe(semitones)
    expect(total(b, a)).toBe(semitones)
  })
  test('any diminished seventh lies one half step from each of its four dominants', () => {
    for (const root of ['C', 'Eb', 'F#', 'A']) expect(total('C#dim7', `${root}7`)).toBe(1)
  })
  test('is what the definition says, on a line and on the circle', () => {
    fc.assert(
      fc.property(notes, notes, (a, b) => {
        fc.pre(a.length * b.length <= 12)
        expect(leastMotion(a, b)).toBe(motionByDefinition(a, b, (x, y) => Math.abs(x - y)))
        const [ca, cb] = [[...new Set(a.map((one) => one % 12))], [...new Set(b.map((one) => one % 12))]]
        const round = (x: number, y: number) => Math.min(modulo(x - y, 12), modulo(y - x, 12))
        expect(leastClassMotion(ca, cb).reduce((sum, step) => sum + Math.abs(step.semitones), 0)).toBe(
          motionByDefinition(ca, cb, round),
        )
      }),
      { numRuns: 120 },
    )
  })
  test('the steps add up to it, leave no voice out, never cross, and with equal voices cost no more than pairing in order', () => {
    fc.assert(
      fc.property(notes, notes, (a, b) => {
        const steps = voiceSteps(a, b)
        expect(steps.reduce((sum, step) => sum + Math.abs(step.semitones), 0)).toBe(leastMotion(a, b))
        expect(new Set(steps.map((step) => step.from))).toEqual(new Set(a))
        expect(new Set(steps.map((step) => step.to))).toEqual(new Set(b))
        for (let at = 1; at < steps.length; at += 1) {
          expect(itemAt(steps, at).from).toBeGreaterThanOrEqual(itemAt(steps, at - 1).from)
          expect(itemAt(steps, at).to).toBeGreaterThanOrEqual(itemAt(steps, at - 1).to)
        }
        // In clusters two voices may share a note for less than pairing one to one: by the
        // definition that is the motion.
        if (a.length === b.length)
          expect(leastMotion(a, b)).toBeLessThanOrEqual(
            a.reduce((sum, from, voice) => sum + Math.abs(from - itemAt(b, voice)), 0),
          )
      }),
    )
  })
  test.each([
    [[40, 60], [42, 58], 'contrary'],
    [[40, 60], [42, 62], 'parallel'],
    [[40, 60], [42, 65], 'similar'],
    [[40, 60], [40, 65], 'oblique'],
  ] as const)('outer voices %j to %j are %s', (a, b, kind) => expect(outerMotion(a, b)).toBe(kind))
})

/** A neck of four strings and four frets, so that every line can be tried. */
const SMALL: Limits = {
  ...DEFAULT_LIMITS,
  frets: [0, 4],
  notes: [3, 4],
  bass: 'any',
  instrument: { ...DEFAULT_LIMITS.instrument, tuning: ['D3', 'G3', 'B3', 'E4'].map(midi) },
}

function everyLine(layers: Voicing[][]): Voicing[][] {
  return layers.reduce<Voicing[][]>(
    (lines, layer) => lines.flatMap((line) => layer.map((voicing) => [...line, voicing])),
    [[]],
  )
}

describe('the best lines', () => {
  const weights = fc
    .record(Object.fromEntries(TERM_NAMES.map((term) => [term, fc.constantFrom(0, 0.03, 0.5, 1, 2.5)])))
    .map((w) => w as unknown as Weights)
  test('are those of trying every sequence of grips, for any weights, fixed grips and count', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('C', 'Am7', 'Dm7', 'G7', 'Fmaj7', 'E7'), { minLength: 2, maxLength: 3 }),
        weights,
        fc.integer({ min: 1, max: 4 }),
        fc.boolean(),
        (symbols, table, count, fixSecond) => {
          const chords = symbols.map(chord)
          const layers = chords.map((one) => voicingsOf(one, SMALL))
          const fixed = new Map(fixSecond ? [[1, lastOf(itemAt(layers, 1)).frets]] : [])
          if (fixSecond) layers[1] = [lastOf(itemAt(layers, 1))]
          const costs = everyLine(layers)
            .map((line) => lineOf(line, { chords, weights: table, limits: SMALL }).cost)
            .sort((a, b) => a - b)
            .slice(0, count)
          const found = must(bestLines({ chords, limits: SMALL, weights: table, count, fixed }))
          expect(found).toHaveLength(costs.length)
          found.forEach((line, at) => expect(line.cost).toBeCloseTo(itemAt(costs, at), 6))
        },
      ),
      { numRuns: 25 },
    )
  })
  test('with motion as the only weight have the least motion there is', () => {
    const chords = ['Dm7', 'G7', 'Cmaj7'].map(chord)
    const layers = chords.map((one) => voicingsOf(one, SMALL))
    const least = Math.min(
      ...everyLine(layers).map(
        (line) =>
          leastMotion(firstOf(line).midis, itemAt(line, 1).midis) +
          leastMotion(itemAt(line, 1).midis, itemAt(line, 2).midis),
      ),
    )
    const [line] = must(
      bestLines({ chords, limits: SMALL, weights: weightsFrom('smooth', { motion: 1 }), count: 1 }),
    )
    expect(line!.steps.reduce((sum, step) => sum + step.motion, 0)).toBe(least)
    expect(line!.cost).toBe(least)
  })
  test('a cost is the sum of its parts, each its measure times its weight', () => {
    const table = weightsFrom('smooth')
    const [line] = must(
      bestLines({
        chords: ['C', 'A7', 'Dm7', 'G7'].map(chord),
        limits: TUNE_LIMITS,
        weights: table,
        count: 1,
      }),
    )
    expect(Object.values(line!.parts).reduce((sum, part) => sum + part, 0)).toBeCloseTo(line!.cost, 9)
    for (const term of TERM_NAMES)
      expect(line!.parts[term]).toBeCloseTo(line!.measures[term] * table[term], 9)
  })
  test('the guide tones of ii-V-I move as every textbook has them, in twelve keys: 7 falls to 3, 3 stays as 7 (common practice, no source)', () => {
    for (const [two, five, one] of [
      ['Dm7', 'G7', 'Cmaj7'],
      ['Gm7', 'C7', 'Fmaj7'],
      ['Cm7', 'F7', 'Bbmaj7'],
      ['Fm7', 'Bb7', 'Ebmaj7'],
      ['Bbm7', 'Eb7', 'Abmaj7'],
      ['Ebm7', 'Ab7', 'Dbmaj7'],
      ['Abm7', 'Db7', 'Gbmaj7'],
      ['C#m7', 'F#7', 'Bmaj7'],
      ['F#m7', 'B7', 'Emaj7'],
      ['Bm7', 'E7', 'Amaj7'],
      ['Em7', 'A7', 'Dmaj7'],
      ['Am7', 'D7', 'Gmaj7'],
    ]) {
      const limits: Limits = {
        ...DEFAULT_LIMITS,
        bass: 'none',
        notes: [2, 2],
        omit: ['5'],
        open: false,
        frets: [1, 12],
        strings: [2, 3],
      }
      const [line] = must(
        bestLines({
          chords: [two!, five!, one!].map(chord),
          limits,
          weights: weightsFrom('smooth'),
          count: 1,
        }),
      )
      expect(line!.steps.map((step) => [step.motion, step.held])).toEqual([
        [1, 1],
        [1, 1],
      ])
      expect(
        line!.voicings.map((voicing) =>
          voicing.strings
            .map((string) => string.degree)
            .sort()
            .join(' '),
        ),
      ).toEqual(['b3 b7', '3 b7', '3 7'])
    }
  })
  test('a chord with no grip and a fixed grip no hand holds are faults that say which', () => {
    const none = bestLines({
      chords: ['C', 'G7'].map(chord),
      limits: { ...SMALL, notes: [4, 4], frets: [4, 4], open: false },
      weights: weightsFrom('smooth'),
      count: 1,
    })
    expect(none).toMatchObject({ ok: false, fault: { code: 'no-grip', at: 0 } })
    const held = bestLines({
      chords: ['C', 'G7'].map(chord),
      limits: TUNE_LIMITS,
      weights: weightsFrom('smooth'),
      count: 1,
      fixed: new Map([[1, [1, 2, 3, 4, 5, 6]]]),
    })
    expect(held).toMatchObject({ ok: false, fault: { code: 'unplayable', at: 1 } })
  })
  test('a search can be stopped, and tells how far it is', () => {
    const told: number[] = []
    const stopped = bestLines({
      chords: ['C', 'Am', 'F', 'G'].map(chord),
      limits: TUNE_LIMITS,
      weights: weightsFrom('smooth'),
      count: 1,
      onProgress: (done) => {
        told.push(done)
        return done < 2
      },
    })
    expect(told).toEqual([1, 2])
    expect(stopped).toMatchObject({ ok: false, fault: { code: 'stopped' } })
  })
})

describe('different lines', () => {
  test('the first is the exact best; no two sound alike on most chords; they come best first', () => {
    const problem = {
      chords: ['Cmaj7', 'Am7', 'Dm9', 'G13', 'Cmaj7'].map(chord),
      limits: TUNE_LIMITS,
      weights: weightsFrom('smooth'),
      count: 3,
    }
    const lines = must(differentLines(problem))
    expect(lines).toHaveLength(3)
    expect(firstOf(lines).cost).toBeCloseTo(firstOf(must(bestLines({ ...problem, count: 1 }))).cost, 9)
    for (let a = 0; a < 3; a += 1)
      for (let b = a + 1; b < 3; b += 1) {
        const alike = itemAt(lines, a).voicings.filter(
          (voicing, at) => voicing.midis.join() === itemAt(itemAt(lines, b).voicings, at).midis.join(),
        ).length
        expect(alike).toBeLessThanOrEqual(2)
      }
    expect(lines.map((line) => line.cost)).toEqual(lines.map((line) => line.cost).sort((a, b) => a - b))
  })
})

describe('weights', () => {
  test('naming a positive weight replaces the table, naming zeros takes terms out', () => {
    expect(weightsFrom('smooth', { motion: 1 })).toMatchObject({ motion: 1, hand: 0, grip: 0 })
    expect(weightsFrom('smooth', { hand: 0 })).toMatchObject({
      hand: 0,
      motion: weightsFrom('smooth').motion,
    })
  })
})

/**
 * By the definition, every way tried: each note of the first chord goes to some note of the second,
 * and each that nobody went to takes its nearest; any pairing holds one of these.
 */
function byEveryChoice(
  from: readonly number[],
  to: readonly number[],
  apart: (a: number, b: number) => number,
): number {
  const nearest = (one: number) => Math.min(...from.map((other) => apart(other, one)))
  const goOn = (at: number, reached: ReadonlySet<number>, sum: number): number =>
    at === from.length
      ? to.reduce((all, one) => all + (reached.has(one) ? 0 : nearest(one)), sum)
      : Math.min(
          ...to.map((one) => goOn(at + 1, new Set([...reached, one]), sum + apart(itemAt(from, at), one))),
        )
  return goOn(0, new Set(), 0)
}

describe('the trade’s own examples', () => {
  test('the two ways to say the definition agree', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.nat(11), { minLength: 1, maxLength: 3 }),
        fc.uniqueArray(fc.nat(11), { minLength: 1, maxLength: 4 }),
        (a, b) => {
          const round = (x: number, y: number) => Math.min(modulo(x - y, 12), modulo(y - x, 12))
          expect(byEveryChoice(a, b, round)).toBe(motionByDefinition(a, b, round))
        },
      ),
      { numRuns: 60 },
    )
  })
  const roots = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B']
  test.each(['major', 'minor'])(
    'ii-V-I in shells, %s, all keys: in smooth the 7 of ii falls to the 3 of V, the 7 of V to the 3 of I, the 3 of ii and of V stay or step on (common practice, no source)',
    (mode) => {
      roots.forEach((_, key) => {
        const name = (up: number) => itemAt(roots, (key + up) % 12)
        const symbols =
          mode === 'major'
            ? [`${name(2)}m7`, `${name(7)}7`, `${name(0)}maj7`]
            : [`${name(2)}m7b5`, `${name(7)}7`, `${name(0)}m(maj7)`]
        const limits: Limits = { ...DEFAULT_LIMITS, families: ['shell'], notes: [3, 3], omit: ['5', 'b5'] }
        const [line] = must(
          bestLines({ chords: symbols.map(chord), limits, weights: weightsFrom('smooth'), count: 1 }),
        )
        const [two, five, one] = line!.voicings
        const at = (voicing: Voicing, ...degrees: string[]) =>
          theOne(voicing.strings, ({ degree }) => degrees.includes(degree)).midi
        expect([at(five!, '3') - at(two!, 'b7'), at(five!, 'b7') - at(two!, 'b3')]).toEqual([-1, 0])
        expect([at(one!, '3', 'b3') - at(five!, 'b7'), at(one!, '7') - at(five!, '3')]).toEqual([
          mode === 'major' ? -1 : -2,
          0,
        ])
      })
    },
  )
  test('a wanted contour is followed as its weight says, and costs what is measured', () => {
    const chords = ['Cmaj7', 'Am7', 'Dm7', 'G7', 'Em7', 'A7', 'Dm7', 'G7'].map(chord)
    const led = (contour: 'rises' | 'falls' | 'arch') =>
      firstOf(
        must(bestLines({ chords, limits: TUNE_LIMITS, weights: weightsFrom('top'), count: 1, contour })),
      )
    const tops = (line: ReturnType<typeof led>) => line.voicings.map(({ midis }) => lastOf(midis))
    expect(lastOf(tops(led('rises'))) - firstOf(tops(led('rises')))).toBeGreaterThan(4)
    expect(lastOf(tops(led('falls'))) - firstOf(tops(led('falls')))).toBeLessThan(-4)
    const arch = led('arch')
    expect(Math.max(...tops(arch).slice(2, 6))).toBeGreaterThan(
      Math.max(firstOf(tops(arch)), lastOf(tops(arch))),
    )
    expect(arch.measures.contour).toBeCloseTo(
      tops(arch).reduce((sum, top, at) => sum + Math.abs(top - itemAt(contourTops('arch', 8), at)), 0),
    )
    expect(Object.values(arch.parts).reduce((sum, part) => sum + part, 0)).toBeCloseTo(arch.cost, 9)
  })
  test('least motion of all pairs of triads and sevenths, root against root, is what the definition says', () => {
    const types = ['C', 'Cm', 'Cdim', 'Caug', 'Cmaj7', 'C7', 'Cm7', 'Cm7b5', 'Cdim7']
    const round = (x: number, y: number) => Math.min(modulo(x - y, 12), modulo(y - x, 12))
    const sounds = (symbol: string, up: number) => [
      ...new Set(
        chord(symbol).tones.map((tone) =>
          modulo(midi(`${'CDEFGAB'[tone.note.letter]}4`) + tone.note.alter + up, 12),
        ),
      ),
    ]
    for (const a of types)
      for (const b of types)
        for (let up = 0; up < 12; up += 1) {
          const [from, to] = [sounds(a, 0), sounds(b, up)]
          expect(leastClassMotion(from, to).reduce((sum, step) => sum + Math.abs(step.semitones), 0)).toBe(
            byEveryChoice(from, to, round),
          )
        }
  })
  test('drop-2 ii-V-I on the middle strings: two voices stay and two move at each change (Levine, The Jazz Theory Book, from memory)', () => {
    const limits: Limits = {
      ...DEFAULT_LIMITS,
      bass: 'any',
      notes: [4, 4],
      strings: [1, 2, 3, 4],
      families: ['drop 2'],
      open: false,
      frets: [1, 12],
    }
    const [line] = must(
      bestLines({
        chords: ['Dm7', 'G7', 'Cmaj7'].map(chord),
        limits,
        weights: weightsFrom('smooth', { motion: 1 }),
        count: 1,
      }),
    )
    // Dm7 to G7 is 3 semitones (C to B, A to G), G7 to Cmaj7 is 3 (F to E, D to C): the least there
    // is for these sounds.
    expect(line!.steps.map(({ motion, held }) => [motion, held])).toEqual([
      [3, 2],
      [3, 2],
    ])
  })
})

describe('at the tempo of the tune', () => {
  const chords = ['Dm7', 'G7', 'Cmaj7', 'A7', 'Dm7', 'G7', 'Em7', 'A7'].map(chord)
  const led = (ms: number | null) =>
    firstOf(
      must(
        styledLines({
          chords,
          limits: TUNE_LIMITS,
          style: 'smooth',
          count: 1,
          texture: 'as it comes',
          ...(ms === null ? {} : { times: chords.map((_, at) => (at === 0 ? null : ms)) }),
        }),
      ).lines,
    )
  const lateIn = ({ voicings }: Line, ms: number) =>
    voicings
      .slice(1)
      .reduce(
        (sum, voicing, at) =>
          sum + Math.max(0, needsMs(itemAt(voicings, at), voicing, TUNE_LIMITS).ms - ms) / 100,
        0,
      )
  test('the hand is never later in the line asked for at a tempo than in the one that was not, and what is measured is what it needs', () => {
    fc.assert(
      fc.property(fc.integer({ min: 40, max: 400 }), (ms) => {
        const [timed, free] = [led(ms), led(null)]
        expect(timed.measures.late).toBeCloseTo(lateIn(timed, ms), 6)
        expect(timed.measures.late).toBeLessThanOrEqual(lateIn(free, ms) + 1e-9)
        expect(free.measures.late).toBe(0)
      }),
      { numRuns: 12 },
    )
  })
})

test('a bass that is written by step is played by step (common practice, no source)', () => {
  for (const text of [
    'Dm Dm(maj7)/C# Dm7/C G/B Bbmaj7 F/A Gm7',
    'C G/B Am Am/G F C/E F G',
    'Cmaj7 C#dim7 Dm7 D#dim7 Em7',
  ]) {
    const [line] = must(
      leadInStyle({ chords: text.split(' ').map(chord), limits: TUNE_LIMITS, style: 'smooth', count: 1 }),
    )
    expect(line!.measures.walk).toBe(0)
  }
})
