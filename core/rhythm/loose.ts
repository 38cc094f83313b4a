import { scattered } from './scattered'

/**
 * What a hand that is as loose as can be asked for does at most: so many ms early or late, so much
 * of its strength more or less. By ear; common practice, no source.
 */
export const LOOSEST = { ms: 18, strength: 0.18 } as const

/** How a hit falls out of a hand that is not exact: ms late (below 0 early) and times as strong. */
export interface Struck {
  ms: number
  strength: number
}
const EXACT: Struck = { ms: 0, strength: 1 }

/**
 * A hit by a loose hand: always the same for the same seed and place.
 * @param loose 0 exact to 1
 * @param place its place among the hits, from 0
 */
export function looselyStruck(loose: number, seed: number, place: number): Struck {
  if (loose === 0) return EXACT
  /** From -1 to 1, seldom near the ends: two throws added. */
  const thrown = (which: number) => scattered(seed, place, which) + scattered(seed, place, which + 1) - 1
  return { ms: loose * LOOSEST.ms * thrown(10), strength: 1 + loose * LOOSEST.strength * thrown(12) }
}
