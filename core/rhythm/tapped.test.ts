import fc from 'fast-check'
import { tapped } from './tapped'

const four = { beats: 4, unit: 4 }
test('taps come on the grid; bars alike become one, a tap just before the first beat is its own', () => {
  expect(tapped([-0.1, 1.56, 4.02, 5.4], four, 2)).toMatchObject({
    cycle: 4,
    hits: [
      { at: 0, stroke: 'down' },
      { at: 1.5, stroke: 'up' },
    ],
  })
  expect(tapped([0, 5], four, 2)).toMatchObject({ cycle: 8, hits: [{ at: 0 }, { at: 5 }] })
  expect(tapped([0.9, 2.1, 3.2], { beats: 6, unit: 8 }, 1)!.hits.map(({ at }) => at)).toEqual([1, 2, 3])
  expect(tapped([], four, 2)).toBeNull()
})
test('whatever is tapped is a figure: hits in order within the cycle, none twice', () =>
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: -0.3, max: 8.3, noNaN: true }), { minLength: 1, maxLength: 40 }),
      (taps) => {
        const { cycle, hits } = tapped(taps, four, 2)!
        const places = hits.map(({ at }) => at)
        expect(places).toEqual([...new Set(places)].sort((a, b) => a - b))
        expect(places.every((at) => at >= 0 && at < cycle && Number.isInteger(at * 2))).toBe(true)
      },
    ),
  ))
