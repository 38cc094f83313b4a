import { offDial } from './howFar'
import { between, lattice, type Arc } from './lattice'
import { HALVINGS, HIGHEST_REWARD, pathAt, waysOf } from './paths'
import type { AskedFor } from './reharmonise'
import type { Spot } from './spot'
import { DEFAULT_TASTE } from './taste'
import { knownTune } from './tuneRead'

/**
 * The lattice of a tune: what can begin at each slot, what lies between neighbours, and what weight
 * is worth at a wanted distance.
 */
export interface Lattice {
  arcs: readonly (readonly Arc[])[]
  spots: readonly (Spot | null)[]
  /** The most the rules could change. */
  most: number
  between: (a: Arc, b: Arc) => number
  /** What a unit of weight is worth, in points, so that the best path goes the wanted distance. */
  reward: (distance: number) => number
}

/** For searches that choose chords together with something else. */
export function latticeOf(
  text: string,
  {
    taste = DEFAULT_TASTE,
    liking = {},
    melody = [],
    keep = new Set<number>(),
    guards = {},
    distance = 0.5,
  }: Pick<AskedFor, 'taste' | 'liking' | 'melody' | 'keep' | 'guards'> & { distance?: number },
): Lattice {
  const { chart, analysis, spots } = knownTune(text)
  const { arcs, most } = lattice(
    { chart, analysis, spots },
    {
      taste,
      liking,
      melody,
      keep,
      guards,
      allowed: () => true,
      distance,
    },
  )
  const prices = arcs.map((list) => list.map((arc) => arc.price))
  const ways = waysOf(arcs, taste)
  return {
    arcs,
    spots,
    most,
    between: (a, b) => between(a, b, taste),
    reward: (distance) => {
      let [low, high] = [0, HIGHEST_REWARD]
      for (let step = 0; step < HALVINGS; step += 1) {
        const reward = (low + high) / 2
        if (pathAt(ways, prices, reward).weight < offDial(distance) * most) low = reward
        else high = reward
      }
      return high
    },
  }
}
