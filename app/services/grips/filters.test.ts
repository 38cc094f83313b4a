import { chord } from '../../../core/chord/parseChord'
import { voicingsOf } from '../../../core/voicing/enumerate'
import { limitsFor, wholeNeck } from '../../../core/player/playerLimits'
import { DEFAULT_PLAYER, instrumentSettings } from '../../../core/player/playerSettings'
import { degreesLowToHigh, NO_FILTER, passesFilter, stringSetOf, topOf } from './GripFilters'

const grips = voicingsOf(chord('Cmaj7'), wholeNeck(DEFAULT_PLAYER))

test('each field of the filter keeps exactly the grips that have it', () => {
  const keeps = (filter: Partial<typeof NO_FILTER>) =>
    grips.filter((one) => passesFilter(one, { ...NO_FILTER, ...filter }))
  expect(keeps({})).toHaveLength(grips.length)
  for (const one of keeps({ family: 'drop 2' })) expect(one.families).toContain('drop 2')
  for (const one of keeps({ top: '7' })) expect(topOf(one)).toBe('7')
  for (const one of keeps({ strings: '5432' })) expect(stringSetOf(one)).toBe('5432')
  for (const one of keeps({ effort: '2.5' })) expect(one.fingering.difficulty).toBeLessThanOrEqual(2.5)
  for (const one of keeps({ shape: 'movable' })) expect(one.frets).not.toContain(0)
  const wanted = keeps({ degrees: ' 1 5  7 3 ' })
  expect(wanted.length).toBeGreaterThan(1)
  for (const one of wanted) expect(degreesLowToHigh(one)).toBe('1 5 7 3')
  expect(keeps({ shape: 'movable' }).length + keeps({ shape: 'open' }).length).toBe(grips.length)
})

test('the limits of a tune follow the player: hand, strings, scale, and no higher than the hand gets', () => {
  const body = {
    ...DEFAULT_PLAYER,
    hand: { ...DEFAULT_PLAYER.hand, reachMm: 70 },
    instrument: { ...DEFAULT_PLAYER.instrument, cutaway: 9 },
  }
  const limits = limitsFor(body, 2, 'chord')
  expect([limits.frets, limits.hand.reachMm, limits.instrument.capo]).toEqual([[0, 9], 70, 2])
  for (const one of voicingsOf(chord('Dm7'), limits)) expect(one.fingering.reachMm).toBeLessThanOrEqual(70)
})

test('an instrument needs 4 to 8 strings that are pitches, and a highest fret that it has', () => {
  const message = (changed: object) =>
    instrumentSettings.safeParse({ ...DEFAULT_PLAYER.instrument, ...changed }).error?.issues[0]?.message
  expect(message({})).toBeUndefined()
  expect(message({ tuning: ['E2', 'A2', 'D3'] })).toBe('4 to 8 strings')
  expect(message({ tuning: ['E2', 'A2', 'D3', 'H3'] })).toBe('a pitch such as E2')
  expect(message({ cutaway: 30, frets: 20 })).toBe('a highest fret that the neck has')
})
