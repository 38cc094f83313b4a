import { hasDegree, type ChordSymbol } from '../chord/symbol'

/** The basic quality of a chord, which decides what it can do. */
export type Kind =
  'major' | 'dominant' | 'minor' | 'half-diminished' | 'diminished' | 'augmented' | 'suspended' | 'power'

export function kindOf(chord: ChordSymbol): Kind {
  const has = (...degrees: Parameters<typeof hasDegree>[1][]) => hasDegree(chord, ...degrees)
  if (has('b3')) {
    if (!has('b5') || has('5')) return 'minor'
    return has('b7') ? 'half-diminished' : 'diminished'
  }
  if (has('b7') && (has('3') || has('4', '2', '11'))) return 'dominant'
  if (has('3')) return has('#5') && !has('7') ? 'augmented' : 'major'
  if (has('4', '2')) return 'suspended'
  return 'power'
}
