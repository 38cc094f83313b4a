import { itemAt } from '../lists'
import fc from 'fast-check'
import { between, type Arc } from './lattice'
import { bestPath, pathAt, waysOf, weightOfPath } from './paths'
import { DEFAULT_TASTE } from './taste'

/** What the search knows of an arc; what it stands for does not matter here. */
const arcAt = (index: number, most: number) =>
  fc
    .record({
      span: fc.integer({ min: 1, max: most }),
      weight: fc.double({ min: 0, max: 4, noNaN: true }),
      price: fc.double({ min: 0, max: 4, noNaN: true }),
      // Few roots, so that what has to come can come.
      firstRoot: fc.integer({ min: 0, max: 2 }),
      firstBass: fc.integer({ min: -1, max: 11 }),
      lastBass: fc.integer({ min: -1, max: 11 }),
      landsOn: fc.option(fc.integer({ min: 0, max: 2 })),
      goesOn: fc.boolean(),
      swaps: fc.boolean(),
      change: fc.constantFrom(null, {} as NonNullable<Arc['change']>),
    })
    .map((one): Arc => ({ ...one, index, key: '', puts: [] }))

const lattice = fc.integer({ min: 1, max: 4 }).chain((slots) =>
  fc.tuple(
    ...Array.from({ length: slots }, (_, at) =>
      fc
        .array(arcAt(at, Math.min(2, slots - at)), { maxLength: 4 })
        // Every slot can stay as it is.
        .map((more): Arc[] => [{ ...PLAIN, index: at }, ...more]),
    ),
  ),
)
const PLAIN: Arc = {
  change: null,
  index: 0,
  span: 1,
  key: '',
  weight: 0,
  price: 0,
  firstRoot: 0,
  firstBass: 0,
  lastBass: 0,
  landsOn: null,
  swaps: false,
  goesOn: true,
  puts: [],
}

/** Every path, one after the other. */
function* pathsFrom(
  arcs: readonly (readonly Arc[])[],
  at = 0,
  before: readonly Arc[] = [],
): Generator<readonly Arc[]> {
  if (at === arcs.length) yield before
  for (const arc of arcs[at] ?? []) yield* pathsFrom(arcs, at + arc.span, [...before, arc])
}
const costOf = (path: readonly Arc[], reward: number) =>
  path.reduce((sum, arc, at) => {
    const step = at === 0 ? 0 : between(itemAt(path, at - 1), arc, DEFAULT_TASTE)
    return sum + arc.price - reward * arc.weight + step
  }, 0)

describe('the search for changes, against every path there is', () => {
  test('finds the cheapest at any price of weight', () => {
    fc.assert(
      fc.property(lattice, fc.double({ min: 0, max: 8, noNaN: true }), (arcs, reward) => {
        const prices = arcs.map((list) => list.map(({ price }) => price))
        const found = pathAt(waysOf(arcs, DEFAULT_TASTE), prices, reward)
        const least = Math.min(...[...pathsFrom(arcs)].map((path) => costOf(path, reward)))
        expect(costOf(found.arcs, reward)).toBeCloseTo(least, 9)
        expect(found.weight).toBeCloseTo(weightOfPath(found.arcs), 9)
      }),
      { numRuns: 4000 },
    )
  })
  test('goes no further from the goal than the plain chart and the farthest path; what is banned is not in it', () => {
    fc.assert(
      fc.property(lattice, fc.double({ min: 0, max: 1, noNaN: true }), (arcs, share) => {
        const ways = waysOf(arcs, DEFAULT_TASTE)
        const banned = arcs.flat().filter(({ change }, order) => change && order % 3 === 0)
        const extra = (arc: Arc) => (banned.includes(arc) ? Infinity : 0)
        const most = weightOfPath(bestPath(ways, Infinity, extra))
        const goal = share * most
        const path = bestPath(ways, goal, extra)
        expect(Math.abs(weightOfPath(path) - goal)).toBeLessThanOrEqual(Math.max(goal, most - goal) + 1e-9)
        expect(path.filter((arc) => banned.includes(arc))).toEqual([])
      }),
      { numRuns: 200 },
    )
  })
})
