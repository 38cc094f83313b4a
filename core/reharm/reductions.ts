import { reduceTo } from '../analysis/skeleton'
import { name, type Rule } from './rule'
import { fallsBy } from './spot'

/** f: less. */
export const REDUCTIONS: readonly Rule[] = [
  {
    id: 'without-ii',
    family: 'f1',
    school: 'functional',
    name: 'without the related ii',
    intent: 'simplify',
    mood: 'plainer',
    span: 2,
    put: (spot) => {
      const five = spot.next
      if (
        !five ||
        (spot.kind !== 'minor' && spot.kind !== 'half-diminished') ||
        five.kind !== 'dominant' ||
        fallsBy(spot) !== 7
      )
        return null
      return {
        chords: [five.chord],
        why: `${name(five)} takes the time of its ii, ${name(spot)}: it sounds the same scale.`,
      }
    },
  },
  ...(
    [
      ['f2', 'reduced-to-seventh', 2, 'to the seventh'],
      ['f3', 'reduced-to-triad', 3, 'to the triad'],
    ] as const
  ).map(([family, id, level, label]): Rule => ({
    id,
    family,
    school: 'functional',
    name: `reduced ${label}`,
    intent: 'simplify',
    mood: 'plainer',
    put: (spot) => {
      const chord = reduceTo(spot.chord, level)
      return { chords: [chord], why: `${chord.canonical} is ${name(spot)} reduced ${label}.` }
    },
  })),
]
