import fc from 'fast-check'
import { chord } from '../chord/parseChord'
import { voicingsOf } from '../voicing/enumerate'
import { limitsFor, wholeNeck } from './playerLimits'
import { SCHOOL_NAMES } from '../reharm/schools'
import { LEANINGS } from '../reharm/taste'
import {
  bothChanges,
  changedBy,
  DEFAULT_PLAYER,
  differences,
  playerChange,
  FIRST_STEPS,
  playerSettings,
  type PlayerSettings,
} from './playerSettings'

const share = fc.integer({ min: 0, max: 20 }).map((twentieth) => twentieth / 20)
/** Settings that differ from the usual ones in any of the things a player sets. */
const settings: fc.Arbitrary<PlayerSettings> = fc
  .record({
    taste: fc.record({
      far: share,
      busy: share,
      bassSteps: share,
      schools: fc.record(
        Object.fromEntries(SCHOOL_NAMES.map((school) => [school, fc.constantFrom(...LEANINGS)])),
      ),
    }),
    reachMm: fc.integer({ min: 80, max: 140 }),
    depth: fc.integer({ min: 1, max: 3 }),
    leftHanded: fc.boolean(),
    firstSteps: fc.constantFrom(...FIRST_STEPS),
  })
  .map(({ taste, reachMm, depth, leftHanded, firstSteps }) =>
    playerSettings.parse({
      ...DEFAULT_PLAYER,
      taste,
      depth,
      leftHanded,
      firstSteps,
      hand: { ...DEFAULT_PLAYER.hand, reachMm },
    }),
  )

describe('a change is what one state has that another has not', () => {
  test('put on the first it gives the second, and it is a change that can be sent', () =>
    fc.assert(
      fc.property(settings, settings, (before, after) => {
        const change = differences(before, after)
        expect(changedBy(before, change)).toEqual(after)
        expect(playerChange.parse(JSON.parse(JSON.stringify(change)))).toEqual(change)
      }),
    ))
  test('nothing, between a state and itself', () =>
    fc.assert(fc.property(settings, (state) => expect(differences(state, state)).toEqual({}))))
  test('two changes as one do what one after the other does', () =>
    fc.assert(
      fc.property(settings, settings, settings, settings, (start, first, second, other) => {
        const [one, two] = [differences(start, first), differences(second, other)]
        expect(changedBy(start, bothChanges(one, two))).toEqual(changedBy(changedBy(start, one), two))
      }),
    ))
  test('what two tabs set in different fields stays of both', () => {
    const left = differences(DEFAULT_PLAYER, { ...DEFAULT_PLAYER, leftHanded: true })
    const deep = differences(DEFAULT_PLAYER, { ...DEFAULT_PLAYER, depth: 3 })
    expect(changedBy(changedBy(DEFAULT_PLAYER, left), deep)).toMatchObject({ leftHanded: true, depth: 3 })
  })
})

describe('styles of the player', () => {
  const style = (name: string, outer: number) => ({
    name,
    weights: { ...DEFAULT_PLAYER.styles[0]?.weights, outer },
  })
  const withStyles = (...styles: ReturnType<typeof style>[]) =>
    ({ ...DEFAULT_PLAYER, styles }) as unknown as PlayerSettings
  const [a, b] = [withStyles(style('Still', 1)), withStyles(style('Still', 2), style('Wide', 3))]
  test('one is kept, replaced under its name, or gone', () => {
    expect(differences(a, b).styles?.kept.map(({ name }) => name)).toEqual(['Still', 'Wide'])
    expect(changedBy(a, differences(a, b)).styles).toEqual(b.styles)
    expect(differences(b, a).styles?.gone).toEqual(['Wide'])
    expect(changedBy(b, differences(b, a)).styles).toEqual(a.styles)
  })
  test('a style that was taken away and kept again is there', () => {
    const gone = differences(a, withStyles())
    const back = differences(withStyles(), a)
    expect(changedBy(a, bothChanges(gone, back)).styles).toEqual(a.styles)
    expect(changedBy(a, bothChanges(back, gone)).styles).toEqual([])
  })
})

describe('what a setting can be', () => {
  test.each([
    [{ depth: 0 }, false],
    [{ depth: 3 }, true],
    [{ leftHanded: 'yes' }, false],
    [{ taste: { far: 1 } }, true],
    [{ taste: { far: 1.01 } }, false],
    [{ hand: { reachMm: 100 } }, true],
    [{ hand: { reachMm: -1 } }, false],
    [{ strings: 6 }, false],
  ])('%j: %s', (change, taken) => expect(playerChange.safeParse(change).success).toBe(taken))
})

test('grips lie below the cutaway, counted from the nut, whatever the neck has beyond it', () => {
  const body = { ...DEFAULT_PLAYER, instrument: { ...DEFAULT_PLAYER.instrument, frets: 22, cutaway: 9 } }
  expect(limitsFor(body, 0, 'chord').frets).toEqual([0, 9])
  expect(limitsFor(body, 5, 'chord').frets).toEqual([0, 9])
  expect(wholeNeck(body).frets).toEqual([0, 9])
  const frets = voicingsOf(chord('Cmaj7'), limitsFor(body, 0, 'chord')).flatMap((voicing) =>
    voicing.frets.filter((fret) => fret !== null),
  )
  expect(Math.max(...frets)).toBe(9)
})
