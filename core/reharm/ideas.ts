import { firstOf, itemAt } from '../lists'
import { kindOf } from '../analysis/kind'
import type { Idiom } from '../chart/chart'
import { hasDegree } from '../chord/symbol'
import { modulo, pitchClass } from '../pitch/note'
import type { Change, Put } from './change'
import { tonesOutside } from './distance'
import type { Spot } from './spot'

/** What a way through a tune can be about. Common practice, no source. */
export interface Idea {
  /** Said of a way that carries it through. */
  name: string
  /** Styles it belongs to; all where none are named. */
  idioms?: readonly Idiom[]
  /** A change that is part of it. */
  carriedBy: (change: Change, spot: Spot) => boolean
}

const WITHOUT_MODAL: readonly Idiom[] = ['song', 'gospel', 'blues', 'minor blues', 'jazz', 'bossa', 'waltz']
const WITH_SUBSTITUTES: readonly Idiom[] = ['blues', 'minor blues', 'jazz', 'bossa', 'waltz']

const rootOf = ({ chord }: Put) => pitchClass(chord.root)
const isDominant = ({ chord }: Put) => hasDegree(chord, 'b7') && hasDegree(chord, '3')
const moves = (put: Put, spot: Spot) => rootOf(put) !== pitchClass(spot.chord.root)

/**
 * Half steps up from each chord of a change to what comes behind it; null behind the last of a
 * tune.
 */
const onward = (puts: readonly Put[], at: number, spot: Spot): number | null => {
  const next = puts[at + 1]?.chord ?? spot.next?.chord
  return next ? modulo(pitchClass(next.root) - rootOf(itemAt(puts, at)), 12) : null
}

/** The idea of a way that is drawn to nothing. */
export const NO_IDEA: Idea = {
  name: 'each chord what is usual at its place',
  carriedBy: () => false,
}

export const IDEAS: readonly Idea[] = [
  {
    name: 'a bass that goes by step',
    idioms: WITHOUT_MODAL,
    carriedBy: ({ puts }, spot) =>
      puts.some(
        ({ chord }) =>
          chord.bass !== null &&
          pitchClass(chord.bass) !== pitchClass(spot.chord.bass ?? spot.chord.root) &&
          chord.tones.some(({ note }) => pitchClass(note) === pitchClass(chord.bass!)),
      ) || isPassingDiminished(puts, spot),
  },
  {
    name: 'dressed cadences',
    idioms: WITHOUT_MODAL,
    carriedBy: (_, spot) =>
      spot.place === 'cadence' || (spot.rel === 7 && spot.rootRise === 5 && spot.kind !== 'minor'),
  },
  {
    name: 'a cycle of dominants',
    idioms: WITHOUT_MODAL,
    carriedBy: ({ puts }, spot) =>
      puts.some(
        (put, at) =>
          isDominant(put) &&
          (moves(put, spot) || !hasDegree(spot.chord, 'b7') || hasDegree(spot.chord, 'b3')) &&
          onward(puts, at, spot) === 5,
      ),
  },
  {
    name: 'a ii before its V',
    idioms: WITHOUT_MODAL,
    carriedBy: ({ puts }, spot) =>
      puts.some(
        (put, at) =>
          moves(put, spot) &&
          hasDegree(put.chord, 'b3') &&
          onward(puts, at, spot) === 5 &&
          (puts[at + 1] ? isDominant(itemAt(puts, at + 1)) : spot.next?.kind === 'dominant'),
      ),
  },
  {
    name: 'dominants that fall by half steps',
    idioms: WITH_SUBSTITUTES,
    carriedBy: ({ puts }, spot) =>
      puts.some((put, at) => isDominant(put) && moves(put, spot) && onward(puts, at, spot) === 11),
  },
  {
    name: 'borrowed from the parallel key',
    idioms: ['song', 'gospel', 'jazz', 'bossa', 'waltz'],
    carriedBy: ({ puts }, spot) =>
      spot.key.mode === 'major' &&
      puts.some(({ chord }) => {
        const step = modulo(pitchClass(chord.root) - pitchClass(spot.key.tonic), 12)
        return (
          tonesOutside(chord, spot.key) > 0 &&
          ((step === 5 && hasDegree(chord, 'b3')) || ([3, 8, 10].includes(step) && hasDegree(chord, '3')))
        )
      }),
  },
  {
    name: 'passing diminished chords',
    idioms: ['song', 'gospel', 'blues', 'jazz', 'bossa', 'waltz'],
    carriedBy: ({ puts }, spot) => isPassingDiminished(puts, spot),
  },
  {
    name: 'lines inside the chords',
    carriedBy: ({ puts }, spot) =>
      puts.length > 1 && puts.every((put) => !moves(put, spot) && put.chord.bass === spot.chord.bass),
  },
  {
    name: 'a bass that stands',
    carriedBy: ({ puts }, spot) =>
      puts.some(({ chord }) => {
        if (!chord.bass || chord.tones.some(({ note }) => pitchClass(note) === pitchClass(chord.bass!)))
          return false
        return pitchClass(chord.bass) === pitchClass(spot.chord.bass ?? spot.chord.root)
      }),
  },
  {
    name: 'chords of the key that stand for each other',
    idioms: ['song', 'gospel', 'modal'],
    carriedBy: ({ puts, intent }, spot) =>
      intent === 'swap' &&
      puts.length === 1 &&
      moves(firstOf(puts), spot) &&
      tonesOutside(firstOf(puts).chord, spot.key) === 0,
  },
]

function isPassingDiminished(puts: readonly Put[], spot: Spot): boolean {
  return puts.some(
    (put, at) =>
      kindOf(put.chord) === 'diminished' &&
      spot.kind !== 'diminished' &&
      [1, 11].includes(onward(puts, at, spot) ?? 0),
  )
}

/** The ideas of a style, and none. */
export const ideasOf = (idiom: Idiom): Idea[] => [
  NO_IDEA,
  ...IDEAS.filter(({ idioms }) => !idioms || idioms.includes(idiom)),
]
