import { itemAt } from '../lists'
import guitar from '@tombatossals/chords-db/lib/guitar.json'
import { parseChord } from '../chord/parseChord'
import type { ChordSymbol } from '../chord/symbol'
import { difficultyOf } from '../neck/difficulty'
import { easiestFingering, fingeringsOf } from '../neck/fingering'
import { DEFAULT_HAND, type Finger } from '../neck/hand'
import { reachMm, STANDARD_GUITAR } from '../neck/instrument'
import { must } from '../result'
import { voicingsOf } from './enumerate'
import { soundsLike } from './fits'
import { DEFAULT_LIMITS, type Limits } from './gripLimits'
import type { Press } from '../neck/press'

interface Shape {
  frets: number[]
  fingers: number[]
  barres: number[]
  baseFret: number
}
const entries = Object.values(
  guitar.chords as unknown as Record<string, { key: string; suffix: string; positions: Shape[] }[]>,
).flat()
const fretsOf = (shape: Shape) =>
  shape.frets.map((fret) => {
    if (fret < 0) return null
    if (fret === 0) return 0
    return fret + shape.baseFret - 1
  })
const SUFFIXES: Readonly<Record<string, string>> = { major: '', minor: 'm' }
const symbolOf = ({ key, suffix }: { key: string; suffix: string }) => key + (SUFFIXES[suffix] ?? suffix)

const HAND = { ...DEFAULT_HAND, thumb: true }
const LIMITS: Limits = { ...DEFAULT_LIMITS, frets: [0, 20], notes: [1, 6], bass: 'any', hand: HAND }
const shapes = entries.flatMap((entry) => {
  const chord = parseChord(symbolOf(entry))
  return chord.ok
    ? entry.positions.map((shape) => ({ chord: chord.value, frets: fretsOf(shape), shape }))
    : []
})

const spanMm = (frets: readonly (number | null)[]) => {
  const held = frets.filter((fret): fret is number => fret !== null && fret > 0)
  return held.length === 0 ? 0 : reachMm(Math.min(...held), Math.max(...held), STANDARD_GUITAR.scaleLengthMm)
}
/** A slash chord's own bass need not be a chord tone. */
const limitsFor = (chord: ChordSymbol): Limits => (chord.bass ? { ...LIMITS, bass: 'chord' } : LIMITS)

const onItsPlace = (limits: Limits, frets: readonly (number | null)[]): Limits => {
  const held = frets.filter((fret): fret is number => fret !== null && fret > 0)
  const strings = frets.flatMap((fret, string) => (fret === null ? [] : [string]))
  return {
    ...limits,
    strings,
    notes: [strings.length, strings.length],
    frets: held.length > 0 ? [Math.min(...held), Math.max(...held)] : [0, 1],
  }
}

describe('against an open dataset of fingered chord shapes (@tombatossals/chords-db 0.5.1)', () => {
  const within = shapes.filter(({ frets }) => spanMm(frets) <= HAND.reachMm)
  test('nearly all of its shapes lie within the reach of a usual hand', () =>
    expect(within.length / shapes.length).toBeGreaterThan(0.99))

  test('of those that hold their chord as we read it, at least 99 in 100 are in our enumeration', () => {
    const sounding = within.filter(({ chord, frets }) => soundsLike(frets, chord, limitsFor(chord)))
    // The others hold a foreign note or leave out a tone that the symbol names: counted below, and
    // listed in docs/checks.md. Asked on the shape's own strings and frets, the enumeration answers
    // quickly; what it finds there it finds on the whole neck.
    const missing = sounding.filter(
      ({ chord, frets }) =>
        !voicingsOf(chord, onItsPlace(limitsFor(chord), frets)).some(
          (one) => one.frets.join() === frets.join(),
        ),
    )
    expect(sounding.length / within.length).toBeGreaterThan(0.8)
    expect(1 - missing.length / sounding.length).toBeGreaterThanOrEqual(0.99)
    // What is missing cannot be held, by our fingering; nothing that can be held is left out.
    for (const { frets } of missing) expect(fingeringsOf(frets, STANDARD_GUITAR, HAND).playable).toBe(false)
  })

  test('at least 98 in 100 within reach are playable by our fingering', () => {
    const playable = within.filter(({ frets }) => fingeringsOf(frets, STANDARD_GUITAR, HAND).playable)
    expect(playable.length / within.length).toBeGreaterThanOrEqual(0.98)
  })

  test('our best finger numbers are those of the dataset, or easier by our own measure', () => {
    let [same, easier, harder] = [0, 0, 0]
    for (const { frets, shape } of within) {
      const ours = easiestFingering(frets, STANDARD_GUITAR, HAND)
      const presses = pressesOf(frets, shape.fingers)
      if (!ours || !presses) continue
      const theirs = Object.values(difficultyOf(presses, frets, spanMm(frets), STANDARD_GUITAR, HAND)).reduce(
        (sum, part) => sum + part,
        0,
      )
      const numbers = frets.map((fret, string) => {
        if (fret === null) return null
        if (fret === 0) return 0
        return itemAt(shape.fingers, string)
      })
      if (ours.fingers.join() === numbers.join()) same += 1
      else if (ours.difficulty <= theirs + 1e-9) easier += 1
      else harder += 1
    }
    expect(same + easier + harder).toBeGreaterThan(1500)
    // Measured: 1541 the same, 468 easier, 21 harder (where the dataset crosses fingers or lays one
    // across a lower note).
    expect(harder / (same + easier + harder)).toBeLessThanOrEqual(0.02)
    expect(same / (same + easier + harder)).toBeGreaterThanOrEqual(0.7)
  })
})

/**
 * The presses that finger numbers describe; null where they contradict themselves (one finger at
 * two frets, or a held string without a finger).
 */
function pressesOf(frets: readonly (number | null)[], fingers: readonly number[]): Press[] | null {
  const presses = new Map<number, { fret: number; strings: number[] }>()
  for (const [string, fret] of frets.entries()) {
    if (fret === null || fret === 0) continue
    const finger = fingers[string] ?? 0
    if (finger < 1 || finger > 4) return null
    const press = presses.get(finger)
    if (press && press.fret !== fret) return null
    presses.set(finger, { fret, strings: [...(press?.strings ?? []), string] })
  }
  // Fingers go up the neck in their order.
  const inOrder = [...presses].sort((a, b) => a[0] - b[0])
  if (inOrder.some(([, { fret }], at) => at > 0 && fret < itemAt(inOrder, at - 1)[1].fret)) return null
  return inOrder.map(([finger, { fret, strings }]) => ({ finger: finger as Finger, fret, strings }))
}

test('the reader of symbols knows all of the dataset but its own invention', () => {
  expect([
    ...new Set(entries.filter((entry) => !parseChord(symbolOf(entry)).ok).map(({ suffix }) => suffix)),
  ]).toEqual(['7sg'])
  expect(must(parseChord('C7')).canonical).toBe('C7')
})
