import { itemAt } from '../lists'
import fc from 'fast-check'
import { isFitted, WRITTEN } from '../../fit/dataset'
import { PAIRS } from '../../fit/pairs'
import { chord } from '../chord/parseChord'
import { weightsOf } from '../leading/lineProblem'
import { lineOf } from '../leading/line'
import { usualTextures } from '../leading/usualTextures'
import { weightsFrom } from '../leading/weights'
import { STANDARD_GUITAR, type Frets } from '../neck/instrument'
import { mudBelow } from './clashes'
import { voicingsOf } from './enumerate'
import { hasUsualForm, gripIdiom, movableShape, strangenessOf, usualFirst, writtenIn } from './gripIdiom'
import { IDIOM_WEIGHTS } from './idiomWeights'
import { DEFAULT_LIMITS } from './gripLimits'
import { voicingOf } from './voicing'

const frets = (text: string): Frets => text.split(' ').map((fret) => (fret === 'x' ? null : Number(fret)))
const first = (symbol: string, count = 5) =>
  usualFirst(voicingsOf(chord(symbol), DEFAULT_LIMITS), chord(symbol), STANDARD_GUITAR)
    .slice(0, count)
    .map((voicing) => voicing.frets.map((fret) => fret ?? 'x').join(' '))

describe('the first grips of a chord', () => {
  // @tombatossals/chords-db 0.5.1: the weights were fitted on the keys C D E F G A B, these are the
  // others.
  test('in keys the weights were not fitted on: a written shape among the first five for 95 in 100 chords, half of all shapes among them', () => {
    const counts = WRITTEN.filter((one) => !isFitted(one)).flatMap(({ chord: of, shapes }) => {
      const inOrder = usualFirst(voicingsOf(of, DEFAULT_LIMITS), of, STANDARD_GUITAR).map((voicing) =>
        voicing.frets.join(),
      )
      const written = new Set(shapes.map((shape) => shape.join()))
      const there = inOrder.filter((one) => written.has(one)).length
      return there > 0 ? [{ there, among: inOrder.slice(0, 5).filter((one) => written.has(one)).length }] : []
    })
    expect(counts.length).toBeGreaterThan(180)
    expect(counts.filter(({ among }) => among > 0).length / counts.length).toBeGreaterThanOrEqual(0.95)
    expect(
      counts.reduce((sum, { among }) => sum + among, 0) / counts.reduce((sum, { there }) => sum + there, 0),
    ).toBeGreaterThanOrEqual(0.7)
  })
  test.each([
    ['C', 'x 3 2 0 1 0'],
    ['Am', 'x 0 2 2 1 0'],
    ['G', '3 2 0 0 0 3'],
    ['D', 'x x 0 2 3 2'],
    ['E', '0 2 2 1 0 0'],
    ['Em', '0 2 2 0 0 0'],
    ['F', '1 3 3 2 1 1'],
    ['Dm', 'x x 0 2 3 1'],
  ])('%s begins with the chord everybody knows: %s (common practice, no source)', (symbol, shape) =>
    expect(first(symbol, 1)).toEqual([shape]),
  )
  test('nothing is muddy below D3 in the first ten, but for full open chords that are written down', () => {
    for (const symbol of ['Gmaj7', 'G13', 'Fm9', 'Abmaj7', 'Bb7', 'F#m7', 'Ebdim7', 'A7alt', 'Dm11', 'G'])
      for (const voicing of usualFirst(
        voicingsOf(chord(symbol), DEFAULT_LIMITS),
        chord(symbol),
        STANDARD_GUITAR,
      ).slice(0, 10))
        expect(
          mudBelow(voicing.midis) === 0 ||
            (voicing.frets.includes(0) &&
              voicing.midis.length >= 5 &&
              (writtenIn(voicing.frets, chord(symbol), STANDARD_GUITAR) > 0 ||
                hasUsualForm(voicing, chord(symbol), STANDARD_GUITAR))),
        ).toBe(true)
  })
})

describe('idiom', () => {
  test('a shape moved along the neck is the same shape; with a capo the open chords move with it', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 8 }), (up) =>
        expect(movableShape(frets('1 3 3 2 1 1').map((fret) => fret! + up))).toBe(
          movableShape(frets('1 3 3 2 1 1')),
        ),
      ),
    )
    expect(writtenIn(frets('x 3 2 0 1 0'), chord('C'), STANDARD_GUITAR)).toBeGreaterThan(0)
    expect(writtenIn(frets('x 5 4 0 3 0'), chord('D'), { ...STANDARD_GUITAR, capo: 2 })).toBeGreaterThan(0)
    expect(
      writtenIn(frets('x 3 2 0 1 0'), chord('C'), { ...STANDARD_GUITAR, tuning: [38, 45, 50, 55, 57, 62] }),
    ).toBe(0)
  })
  test('an open string beside the tenth fret is stranger than one in open position', () => {
    const strange = (shape: string) => {
      const voicing = voicingOf(frets(shape), chord('Am'), DEFAULT_LIMITS)!
      return strangenessOf(voicing, chord('Am'), STANDARD_GUITAR)
    }
    expect(strange('x 0 10 9 10 0')).toBeGreaterThan(strange('x 0 2 2 1 0') + 1)
  })
  test('every weight names a feature, and idiom is their sum', () => {
    const voicing = voicingOf(frets('x 3 2 0 1 0'), chord('C'), DEFAULT_LIMITS)!
    expect(Number.isFinite(gripIdiom(voicing, chord('C'), STANDARD_GUITAR))).toBe(true)
    expect(Object.keys(IDIOM_WEIGHTS).length).toBeGreaterThan(100)
  })
})

describe('pairs of passages, the first preferred (common practice, no source)', () => {
  test.each(PAIRS.map((pair) => [pair.id, pair] as const))('%s', (_, { symbols, bass, better, worse }) => {
    const chords = symbols.map(chord)
    const limits = { ...DEFAULT_LIMITS, bass }
    const [texture] = usualTextures(chords, { bass })
    const cost = (grips: readonly string[]) =>
      lineOf(
        grips.map((grip, at) => voicingOf(frets(grip), itemAt(chords, at), limits)!),
        {
          chords,
          limits,
          weights: weightsOf({ weights: weightsFrom('smooth', {}, bass), texture: texture!, limits }),
        },
      ).cost
    expect(cost(better)).toBeLessThan(cost(worse))
  })
})
