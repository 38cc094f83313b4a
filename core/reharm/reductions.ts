import { reduceTo } from '../analysis/skeleton'
import { name, type Rule } from './rule'
import { fallsBy } from './spot'

/** f: less. */
export const REDUCTIONS: readonly Rule[] = [
  {
    id: 'f1',
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
      [2, 'to the seventh'],
      [3, 'to the triad'],
    ] as const
  ).map(([level, label]): Rule => ({
    id: `f${level}`,
    name: `reduced ${label}`,
    intent: 'simplify',
    mood: 'plainer',
    put: (spot) => {
      const chord = reduceTo(spot.chord, level)
      return { chords: [chord], why: `${chord.canonical} is ${name(spot)} reduced ${label}.` }
    },
  })),
]
