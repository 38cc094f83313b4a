import fc from 'fast-check'
import { parseChord } from '../chord/parseChord'
import { itemAt } from '../lists'
import type { Frets } from '../neck/instrument'
import { must } from '../result'
import { movableShape } from '../voicing/gripIdiom'
import { DEFAULT_LIMITS } from '../voicing/gripLimits'
import { knownLines, type KnownProblem } from './knownLine'
import { handPlace, handTravelMm } from './measures'
import { knownGrips, knownShape, placesOfShape, STAGES, type StageName } from './vocabulary'

const x = null
/** A shape of each type of seventh on strings 6 4 3 2 and 5 4 3 2. Common practice, no source. */
const TWO_SETS: Frets[] = [
  [5, x, 5, 5, 5, x],
  [5, x, 5, 6, 5, x],
  [5, x, 6, 6, 5, x],
  [5, x, 5, 5, 4, x],
  [x, 5, 7, 5, 6, x],
  [x, 5, 7, 5, 7, x],
  [x, 5, 7, 6, 7, x],
  [x, 5, 6, 5, 6, x],
]
const ROOTS = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B']
const chordsOf = (symbols: string) => symbols.split(' ').map((symbol) => must(parseChord(symbol)))
const asked = (symbols: string, own: Partial<KnownProblem> = {}): KnownProblem => ({
  chords: chordsOf(symbols),
  limits: DEFAULT_LIMITS,
  vocabulary: { shapes: TWO_SETS.map(knownShape) },
  style: 'smooth',
  fixed: new Map(),
  more: 0,
  count: 1,
  ...own,
})
const lead = (problem: KnownProblem) => must(knownLines(problem))

describe('a line of known grips', () => {
  const seventh = fc
    .tuple(fc.constantFrom(...ROOTS), fc.constantFrom('m7', '7', 'maj7', 'm7b5'))
    .map(([root, suffix]) => root + suffix)
  const known = new Set(TWO_SETS.map(movableShape))

  it('sounds nothing else, on any chart of sevenths', () => {
    fc.assert(
      fc.property(fc.array(seventh, { minLength: 1, maxLength: 8 }), (symbols) => {
        const { lines, holes } = lead(asked(symbols.join(' ')))
        return holes.length === 0 && lines[0]!.voicings.every(({ frets }) => known.has(movableShape(frets)))
      }),
      { numRuns: 100 },
    )
  })

  it('goes the least total way of the hand: no other choice of these grips is shorter', () => {
    fc.assert(
      fc.property(fc.array(seventh, { minLength: 2, maxLength: 4 }), (symbols) => {
        const problem = asked(symbols.join(' '))
        const way = (grips: Parameters<typeof handPlace>[0][]) =>
          grips
            .map((grip) => handPlace(grip, DEFAULT_LIMITS.instrument))
            .reduce((sum, hand, at, all) => (at === 0 ? 0 : sum + handTravelMm(itemAt(all, at - 1), hand)), 0)
        const ways = problem.chords
          .map((chord) => knownGrips(chord, problem.vocabulary, DEFAULT_LIMITS))
          .reduce<Parameters<typeof handPlace>[0][][]>(
            (before, grips) => before.flatMap((one) => grips.map((grip) => [...one, grip])),
            [[]],
          )
        const least = Math.min(...ways.map(way))
        // Of ways a millimetre apart the smoother one may be taken.
        return way(lead(problem).lines[0]!.voicings) <= least + 1
      }),
      { numRuns: 30 },
    )
  })

  it('names what no grip serves, and the one that would help most', () => {
    const { lines, indexes, holes, wouldHelp } = lead(asked('Dm7 G7b9 Cmaj7 Am7 D7b9 Gmaj7 F#13'))
    expect(holes).toEqual([1, 4, 6])
    expect(indexes).toEqual([0, 2, 3, 5])
    expect(lines[0]!.voicings).toHaveLength(4)
    expect(wouldHelp!.fills).toEqual([1, 4])
    expect(wouldHelp!.movable).toBe(true)
  })

  it('takes so many new grips where they fill holes', () => {
    const { holes, added, lines } = lead(asked('Dm7 G7b9 Cmaj7 D7b9 F#13', { more: 1 }))
    expect(added.map(({ fills }) => fills)).toEqual([[1, 3]])
    expect(holes).toEqual([4])
    expect(lines[0]!.voicings).toHaveLength(4)
    expect(lead(asked('Dm7 G7', { more: 3 })).added).toEqual([])
  })

  it('leaves an open shape where it is, and lets the bass rule give way', () => {
    const open: Frets = [x, 3, 2, 0, 1, 0]
    expect(placesOfShape(knownShape(open), DEFAULT_LIMITS)).toEqual([open])
    expect(placesOfShape({ frets: [5, x, 5, 5, 5, x], movable: false }, DEFAULT_LIMITS)).toHaveLength(1)
    // Em7 over no root of its own is Cmaj9 to somebody's bass.
    const [rootless] = knownGrips(
      must(parseChord('Cmaj9')),
      { shapes: [knownShape([x, 7, 9, 7, 8, x])] },
      DEFAULT_LIMITS,
    )
    expect(rootless!.frets).toEqual([x, 7, 9, 7, 8, x])
  })
})

describe('the stages', () => {
  const first = (symbol: string, stage: StageName) =>
    knownGrips(must(parseChord(symbol)), { stage }, DEFAULT_LIMITS).map(({ frets }) =>
      frets.map((fret) => fret ?? 'x').join('.'),
    )
  it('know the grips of the trade', () => {
    expect(first('G7', 'shells')).toContain('3.x.3.4.x.x')
    expect(first('Dm7', 'sevenths on two string sets')).toEqual(
      expect.arrayContaining(['x.5.7.5.6.x', '10.x.10.10.10.x']),
    )
    expect(first('D9', 'with ninths')).toContain('x.5.4.5.5.x')
    expect(first('D9', 'sevenths on two string sets')).not.toContain('x.5.4.5.5.x')
    expect(first('G13', 'with 13 and alterations')).toContain('3.x.3.4.5.x')
    expect(first('F', "learner's hand")).toContain('1.3.3.2.1.1')
    expect(first('Am', "learner's hand")).toContain('x.0.2.2.1.0')
  })

  it('play a chord with fewer tones before they play none', () => {
    for (const stage of STAGES)
      for (const symbol of ['C', 'Dm', 'G13', 'A7b9', 'Fmaj9', 'Em9', 'Bb6'])
        expect([stage, symbol, first(symbol, stage).length > 0]).toEqual([stage, symbol, true])
  })
})
