import { lastOf } from '../lists'
import { WaySearch, type AskedFor, type Reharmonisation } from './waySearch'

export { REACHED, type AskedFor, type Reharmonisation } from './waySearch'

/**
 * Different whole-tune reharmonisations at a wanted distance, chosen together: the best path
 * through the lattice of changes, where a chord that is led to has to come, neighbours have their
 * price, and going far is worth as much as the wanted distance asks. Each further result pays for
 * what the ones before used. The same seed gives the same results; distance 0 is the plain chart.
 */
export function reharmonise(text: string, asked: AskedFor): Reharmonisation[] {
  const { count = 1, onProgress = () => true, onFound } = asked
  if (asked.distance <= 0) return [AS_IT_IS(text)]
  const search = new WaySearch(text, asked)
  const results: Reharmonisation[] = []
  for (let round = 0; round < count; round += 1) {
    if (!onProgress(round, count)) break
    const way = search.next(round)
    if (results.some((other) => other.text === way.text)) continue
    results.push(search.tell(way))
    onFound?.(lastOf(results))
  }
  return results
}

const AS_IT_IS = (text: string): Reharmonisation => ({
  text,
  distance: 0,
  reached: true,
  says: 'as it is',
  idea: 'as it is',
  farthest: null,
  faults: [],
  changes: [],
})
