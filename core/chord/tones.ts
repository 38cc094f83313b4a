import { inDegreeOrder, type Degree } from '../pitch/degree'
import type { Descriptor } from './descriptor'
import type { Need } from './symbol'

/** Degrees of a chord with how badly each is needed, before they are spelled on a root. */
export type DegreeNeeds = Map<Degree, Need>

/**
 * Turns what a symbol says into degrees.
 *
 * The rules (theory of chord symbols; common practice where no other source is named):
 * - 9 implies 7; 11 implies 7 and 9; 13 implies 7 and 9 but never the 11.
 * - A natural 11 over a major third is avoided, so an 11 chord without "m" drops its third.
 * - 6 and 6/9 have no seventh. `alt` is every altered fifth and ninth, of which a grip chooses.
 * - b5 and #5 replace the fifth; #11 leaves it possible; b13 drops it. An altered tension replaces
 *   the natural one.
 */
export function degreesOf(d: Descriptor): DegreeNeeds {
  const needs: DegreeNeeds = new Map([['1', 'root']])
  const named = (...degrees: Degree[]) => degrees.forEach((degree) => needs.set(degree, 'named'))
  const free = (...degrees: Degree[]) => degrees.forEach((degree) => needs.set(degree, 'free'))

  if (d.alt) {
    named('3', 'b7')
    needs.set('b5', 'one-fifth').set('#5', 'one-fifth').set('b9', 'one-ninth').set('#9', 'one-ninth')
    return withoutOmitted(needs, d)
  }

  const minorThird = d.quality === 'minor' || d.quality === 'diminished' || d.quality === 'half-diminished'
  // With the eleventh raised nothing clashes with the third, and the chord is a ninth with #11.
  const eleventhRaised = d.alterations.includes('#11')
  const elevenWithoutThird = d.number === '11' && !minorThird && !eleventhRaised
  if (d.suspensions.length > 0) named(...d.suspensions)
  else if (d.number !== '5' && !elevenWithoutThird) named(minorThird ? 'b3' : '3')

  if (d.quality === 'diminished' || d.quality === 'half-diminished') named('b5')
  else if (d.quality === 'augmented') named('#5')
  else if (d.number === '5') named('5')
  else free('5')

  if (d.number === '6' || d.number === '6/9') named('6')
  const minorSeventh = d.quality === 'diminished' ? 'bb7' : 'b7'
  if (['7', '9', '11', '13'].includes(d.number) || d.quality === 'half-diminished')
    named(d.majorSeventh ? '7' : minorSeventh)
  if (d.number === '9' || d.number === '6/9') named('9')
  if (d.number === '11') {
    named('9')
    if (!eleventhRaised) named('11')
  }
  if (d.number === '13') named('9', '13')

  named(...d.adds)
  for (const degree of d.alterations) alter(needs, degree)
  // A 9 beside sus2 (or an 11 beside sus4) is the same sound twice: the suspension keeps its name.
  if (needs.has('2')) needs.delete('9')
  if (needs.has('4')) needs.delete('11')
  // However it was written, a 9 under a 13, or under an 11 without a major third, is only implied:
  // C9(13) is C13.
  const seventh = needs.has('7') || needs.has('b7') || needs.has('bb7')
  const implied = seventh && (needs.has('13') || (needs.has('11') && !needs.has('3')))
  if (needs.has('9')) needs.set('9', implied ? 'free' : 'named')
  return withoutOmitted(needs, d)
}

/** Which natural tone an alteration takes the place of. */
const REPLACES: Partial<Record<Degree, Degree>> = {
  b5: '5',
  '#5': '5',
  b9: '9',
  '#9': '9',
  '#11': '11',
  b13: '13',
}

function alter(needs: DegreeNeeds, degree: Degree): void {
  const natural = REPLACES[degree]!
  if (needs.get(natural) !== undefined) needs.delete(natural)
  if (degree === 'b13' && needs.get('5') === 'free') needs.delete('5')
  needs.set(degree, 'named')
}

function withoutOmitted(needs: DegreeNeeds, d: Descriptor): DegreeNeeds {
  const gone: Degree[] = d.omits.flatMap((omit): Degree[] => {
    if (omit === '1') return ['1']
    if (omit === '3') return ['b3', '3']
    return ['b5', '5', '#5']
  })
  gone.forEach((degree) => needs.delete(degree))
  return new Map([...needs].sort(([a], [b]) => inDegreeOrder(a, b)))
}
