import fc from 'fast-check'
import { chord } from '../chord/parseChord'
import { DEFAULT_HAND } from '../neck/hand'
import { fretMm, STANDARD_GUITAR } from '../neck/instrument'
import { midi } from '../pitch/note'
import { voicingOf } from '../voicing/voicing'
import {
  fingersAnew,
  gripMeasures,
  handPlace,
  handTravelMm,
  motionMeasures,
  outlineMeasures,
  tendenciesOf,
  tensionsOf,
  voiceMeasures,
} from './measures'

const pitches = (text: string) => text.split(' ').map(midi)
const grip = (frets: string, symbol: string) =>
  voicingOf(
    frets.split(' ').map((fret) => (fret === 'x' ? null : Number(fret))),
    chord(symbol),
    { instrument: STANDARD_GUITAR, hand: DEFAULT_HAND },
  )!
const place = (frets: string, symbol: string) => handPlace(grip(frets, symbol), STANDARD_GUITAR)
const step = (from: string, to: string, symbols = 'C F') => {
  const [a, b] = symbols.split(' ').map((symbol) => chord(symbol)) as [
    ReturnType<typeof chord>,
    ReturnType<typeof chord>,
  ]
  return voiceMeasures(pitches(from), pitches(to), tendenciesOf(a, b), tensionsOf(a))
}
const voices = fc
  .uniqueArray(fc.integer({ min: 40, max: 76 }), { minLength: 1, maxLength: 6 })
  .map((list) => [...list].sort((a, b) => a - b))

describe('what tones want (common practice, no source: the leading note rises, the seventh and the altered tensions fall)', () => {
  test('where the root falls a fifth or a half step, and nowhere else', () => {
    const wants = (from: string, to: string) =>
      tendenciesOf(chord(from), chord(to)).flatMap((moves, sound) => (moves ? [[sound, ...moves]] : []))
    expect(wants('G7', 'C')).toEqual([
      [5, -1, -2, 0],
      [11, 1, 0, -1],
    ])
    expect(wants('Db7', 'C')).toEqual([
      [5, 1, 0, -1],
      [11, -1, -2, 0],
    ])
    expect(wants('G7', 'F')).toEqual([])
    // Without a seventh the third is no leading note; a minor seventh falls all the same.
    expect(wants('G', 'C')).toEqual([])
    expect(wants('Dm7', 'G7')).toEqual([[0, -1, -2, 0]])
    expect(wants('G7b9', 'C')).toContainEqual([8, -1, -2])
  })
  test('kept in the cadence everybody plays; broken where the leading note falls by a leap', () => {
    expect(step('F3 B3 G4', 'E3 C4 G4', 'G7 C').tendency).toBe(0)
    expect(step('F3 B3', 'E3 G3', 'G7 C').tendency).toBeGreaterThan(0)
  })
})

describe('what voices do in a step', () => {
  test('parallel fifths and octaves are counted, fifths that stay are not', () => {
    expect(step('C3 G3', 'D3 A3').parallels).toBe(1)
    expect(step('C3 C4', 'D3 D4').parallels).toBe(1)
    // Two fifths and octaves over the bass; the fourth above them is none.
    expect(step('C3 G3 C4', 'D3 A3 D4').parallels).toBe(2)
    expect(step('C3 G3', 'C3 G3').parallels).toBe(0)
    expect(step('C3 E3', 'D3 F#3').parallels).toBe(0)
  })
  test('a common tone that is not held is counted once, however often it sounds', () => {
    expect(step('C3 E3 G3', 'C3 F3 A3').held).toBe(0)
    expect(step('E3 G3 C4', 'F3 A3 C5').held).toBe(1)
    expect(step('C3 E3 C4', 'F3 A3 C5').held).toBe(1)
  })
  test('only inner voices leap, and only by more than a major third', () => {
    expect(step('C3 E3 C5', 'C3 G#3 C5').leaps).toBe(0)
    expect(step('C3 E3 C5', 'C3 B3 C5').leaps).toBe(3)
    expect(step('C3 C5', 'C4 C4').leaps).toBe(0)
  })
  test('the outline: bass and top beyond a whole step, both the same way, voices come and gone', () => {
    expect(outlineMeasures(pitches('C3 E4'), pitches('D3 D4'))).toEqual({
      bass: 0,
      top: 0,
      outer: 0,
      voices: 0,
    })
    expect(outlineMeasures(pitches('C3 E4'), pitches('F3 G3 A4'))).toEqual({
      bass: 3,
      top: 3,
      outer: 1,
      voices: 1,
    })
  })
  test('standing still costs nothing; a step there is as far as the step back', () => {
    fc.assert(
      fc.property(voices, voices, (a, b) => {
        const still = voiceMeasures(a, a, [], 0)
        expect(Object.values(still)).toEqual([0, 0, 0, 0, 0])
        expect(motionMeasures(a, a)).toEqual({ motion: 0, upper: 0 })
        expect(motionMeasures(a, b)).toEqual(motionMeasures(b, a))
        const { bass, top, voices: count } = outlineMeasures(a, b)
        expect(outlineMeasures(b, a)).toMatchObject({ bass, top, voices: count })
        expect(voiceMeasures(a, b, [], 0).held).toBe(voiceMeasures(b, a, [], 0).held)
      }),
    )
  })
})

describe('where the hand is', () => {
  test('the index finger lies where it would, one fret for each finger below the lowest that is down', () => {
    const at = (frets: string, symbol: string) => place(frets, symbol).mm
    expect(at('x 3 5 4 5 x', 'Cmaj7')).toBeCloseTo(fretMm(3, STANDARD_GUITAR.scaleLengthMm))
    // Fingers 1, 3 and 2 hold the second and third fret: the index lies on the second.
    expect(at('x x 0 2 3 2', 'D')).toBeCloseTo(fretMm(2, STANDARD_GUITAR.scaleLengthMm))
    expect(place('x x 0 0 0 x', 'G').mm).toBeNull()
  })
  test('it travels as far as the index finger; to or from open strings alone it does not', () => {
    const [third, fifth, open] = [
      place('x 3 5 4 5 x', 'Cmaj7'),
      place('x 5 7 6 7 x', 'Dmaj7'),
      place('x x 0 0 0 x', 'G'),
    ]
    const scale = STANDARD_GUITAR.scaleLengthMm
    expect(handTravelMm(third, fifth)).toBeCloseTo(fretMm(5, scale) - fretMm(3, scale))
    expect(handTravelMm(third, open)).toBe(0)
    expect(handTravelMm(fifth, third)).toBe(handTravelMm(third, fifth))
  })
  test('fingers that stay are free, those that slide count half, new ones count whole', () => {
    const [third, fifth] = [place('x 3 5 4 5 x', 'Cmaj7'), place('x 5 7 6 7 x', 'Dmaj7')]
    expect(fingersAnew(third, third)).toBe(0)
    expect(fingersAnew(third, fifth)).toBe(third.fret.filter((fret) => fret > 0).length / 2)
    expect(fingersAnew(place('x x 0 0 0 x', 'G'), third)).toBe(third.fret.filter((fret) => fret > 0).length)
  })
})

describe('one grip by itself', () => {
  const of = (frets: string, symbol: string) =>
    gripMeasures(grip(frets, symbol), chord(symbol), STANDARD_GUITAR)
  test('a chord without tensions is plain, one with a ninth is not', () => {
    expect(of('x 3 2 0 1 0', 'C').plain).toBe(1)
    expect(of('x 3 2 3 3 x', 'C9').plain).toBe(0)
  })
  test('tones that are missing cost, the fifth does not; a root that sounds three times is said', () => {
    expect(of('x 3 2 3 x x', 'C7').fullness).toBe(0)
    expect(of('x 3 x 3 1 x', 'C7').fullness).toBeGreaterThan(0)
    expect(of('x 3 2 3 x x', 'C7').tripled).toBe(0)
    expect(of('8 x 10 x 8 8', 'C').tripled).toBe(1)
  })
  test('open strings cost where the hand is up the neck, and nothing in open position', () => {
    expect(of('x 3 2 0 1 0', 'C').open).toBe(0)
    expect(of('x 7 9 9 9 0', 'E').open).toBeGreaterThan(0)
  })
  test('above a bass player there is room from D3 up', () => {
    expect(of('x x 5 5 5 3', 'Am7').room).toBe(0)
    expect(of('3 x 3 4 x x', 'G7').room).toBe(midi('D3') - midi('G2'))
  })
})
