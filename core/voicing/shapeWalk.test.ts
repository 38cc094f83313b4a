import fc from 'fast-check'
import { itemAt } from '../lists'
import { DEFAULT_HAND } from '../neck/hand'
import { soundAt, STANDARD_GUITAR, type Frets } from '../neck/instrument'
import { parseNote, pitchClass } from '../pitch/note'
import { parseScale, SCALE_KINDS, scaleOn } from '../pitch/scale'
import { must } from '../result'
import { rootOfGrip, walkByInversions, walkByRoots, walkByScale, type ShapeWalk } from './shapeWalk'

const walkOf = (written: string): ShapeWalk => ({
  frets: written.split(' ').map((fret) => (fret === 'x' ? null : Number(fret))),
  instrument: STANDARD_GUITAR,
  hand: DEFAULT_HAND,
  highest: 22,
})
const written = (frets: Frets) => frets.map((fret) => fret ?? 'x').join(' ')
const scale = (text: string) => must(parseScale(text))
const notes = (text: string) => text.split(' ').map((note) => must(parseNote(note)))
const soundsOf = (frets: Frets) =>
  frets.flatMap((fret, string) => (fret === null ? [] : [soundAt(STANDARD_GUITAR, string, fret)]))

describe('a shape walked through a scale', () => {
  // Common practice, no source: a drop 2 major seventh through its key, shells, and one down.
  test.each([
    ['x x 7 9 8 8', 'A dorian', 1, 'x x 9 11 10 10'],
    ['7 x 7 7 5 x', 'G major', -1, '5 x 5 5 3 x'],
    ['x x 5 5 4 5', 'C melodic minor', 2, 'x x 9 8 8 8'],
    ['3 x 4 4 x x', 'G major', 4, '10 x 10 11 x x'],
  ])('%s in %s, %i steps, is %s', (from, name, steps, to) => {
    const { steps: found } = walkByScale(walkOf(from), scale(name), steps)
    expect(found).toHaveLength(Math.abs(steps) + 1)
    expect(written(itemAt(found, Math.abs(steps)).frets)).toBe(to)
  })

  test('every voice goes to the next note of the scale, and back again', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...SCALE_KINDS),
        fc.integer({ min: 0, max: 6 }),
        fc.integer({ min: 1, max: 5 }),
        (kind, letter, steps) => {
          const through = scaleOn({ letter, alter: 0 }, kind)
          const sounds = new Set(through.notes.map(pitchClass))
          const [, start] = walkByScale(walkOf('x x 5 7 6 6'), through, 1).steps
          const up = walkByScale({ ...walkOf('x'), frets: start!.frets }, through, steps).steps
          for (const [at, step] of up.entries()) {
            expect(step.foreign).toEqual([])
            if (at === 0) continue
            const [before, now] = [soundsOf(itemAt(up, at - 1).frets), soundsOf(step.frets)]
            now.forEach((midi, voice) => {
              const from = itemAt(before, voice)
              expect(midi).toBeGreaterThan(from)
              for (let between = from + 1; between < midi; between += 1)
                expect(sounds.has(between % 12)).toBe(false)
            })
          }
          const last = itemAt(up, steps)
          const back = walkByScale({ ...walkOf('x'), frets: last.frets }, through, -steps).steps
          expect(written(itemAt(back, steps).frets)).toBe(written(start!.frets))
        },
      ),
    )
  })

  test('as many grips as the scale has notes where nothing is said', () => {
    expect(walkByScale(walkOf('x x 5 5 3 3'), scale('G minor pentatonic')).steps).toHaveLength(5)
  })

  test('a foreign note is marked, a string that rings stays, and the end of the strings is said', () => {
    const [first] = walkByScale(walkOf('x 3 2 3 x x'), scale('C major')).steps
    expect(first!.foreign).toEqual([3])
    const ringing = walkByScale(walkOf('x 0 2 2 2 x'), scale('A major'), 3, [1]).steps
    expect(ringing.map(({ frets }) => written(frets))).toEqual([
      'x 0 2 2 2 x',
      'x 0 4 4 3 x',
      'x 0 6 6 5 x',
      'x 0 7 7 7 x',
    ])
    const down = walkByScale(walkOf('x 3 2 0 1 0'), scale('C major'), -2)
    expect(down.steps).toHaveLength(1)
    expect(down.ends).toContain('open string 3')
  })

  test('what no hand holds, or lies beyond the neck, says why', () => {
    const far = walkByScale(walkOf('x x 17 19 18 18'), scale('C major'), 3).steps
    expect(itemAt(far, 3).playable).toBe(false)
    expect(itemAt(far, 3).why).toContain('the neck ends at fret 22')
    const [wide] = walkByScale(walkOf('1 x x x x 9'), scale('F major'), 0).steps
    expect(wide!.playable).toBe(false)
    expect(wide!.why).toMatch(/\w+/)
  })
})

describe('a shape on other roots', () => {
  test('keeps its intervals, at the nearest place of the neck', () => {
    const walk = walkOf('3 5 5 5 3 3')
    const { steps } = walkByRoots(walk, notes('G Bb C D F'), rootOfGrip(walk))
    expect(steps.map(({ names }) => names[0]!.chord.canonical)).toEqual([
      'Gsus4',
      'Bbsus4',
      'Csus4',
      'Dsus4',
      'Fsus4',
    ])
    const gaps = (frets: Frets) => soundsOf(frets).map((midi) => midi - itemAt(soundsOf(frets), 0))
    for (const { frets } of steps) expect(gaps(frets)).toEqual(gaps(walk.frets))
  })

  test('by fourths it stays on the neck', () => {
    const walk = walkOf('x 3 5 3 5 3')
    const { steps } = walkByRoots(walk, notes('C F Bb Eb Ab Db Gb B E A D G'), rootOfGrip(walk))
    expect(steps).toHaveLength(12)
    for (const { playable } of steps) expect(playable).toBe(true)
  })
})

describe('a shape through its inversions', () => {
  test('goes up its own strings, then along the other sets', () => {
    const { steps } = walkByInversions(walkOf('x x 3 3 3 3'))
    expect(steps.slice(0, 4).map(({ frets }) => written(frets))).toEqual([
      'x x 3 3 3 3',
      'x x 5 7 6 6',
      'x x 8 10 8 10',
      'x x 12 12 11 13',
    ])
    const sounds = (frets: Frets) => [...new Set(soundsOf(frets).map((midi) => midi % 12))].sort().join()
    for (const { frets } of steps) expect(sounds(frets)).toBe(sounds(itemAt(steps, 0).frets))
    expect(steps.some(({ frets }) => frets[0] !== null)).toBe(true)
  })
})
