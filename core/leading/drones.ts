import { firstOf, itemAt } from '../lists'
import { availableTensions } from '../analysis/tensions'
import type { Role } from '../analysis/role'
import type { ChordSymbol } from '../chord/symbol'
import { stringNumber } from '../neck/instrument'
import { semitonesOf } from '../pitch/degree'
import { pitchClass, plainPitchName } from '../pitch/note'
import { coloursFor } from './colours'
import type { Constraint } from './constraints'
import type { LeadProblem } from './lineProblem'

/** A string that rings open, by index, or a pitch that is held. */
export type Drone = { string: number } | { midi: number }

/**
 * A place that a style may be played in: conditions on some of the chords, and what has to be said
 * of it.
 */
export interface StyleChoice {
  name: string
  constraints: readonly Constraint[]
  says: readonly string[]
  /** What each chord becomes there; itself alone where it is not said. */
  colours?: readonly (readonly ChordSymbol[])[]
}

/** Held notes lie where a melody would: G3 to E5. */
const HELD_NOTES = [55, 76] as const
/** Drones that are led at most: the open strings and some held notes. */
const DRONES_TRIED = 3

const capital = (text: string): string => firstOf(text).toUpperCase() + text.slice(1)

/** What a sound is to a chord in its role, as far as a drone goes. */
function droneOver(
  chord: ChordSymbol,
  role: Role | undefined,
  sound: number,
): 'chord tone' | 'free' | 'special' | 'avoid' {
  if (chord.tones.some(({ note }) => pitchClass(note) === sound)) return 'chord tone'
  if (!role) return 'avoid'
  const { free, special } = availableTensions(chord, role)
  const among = (degrees: readonly Parameters<typeof semitonesOf>[0][]) =>
    degrees.some((degree) => (pitchClass(chord.root) + semitonesOf(degree)) % 12 === sound)
  if (among(free)) return 'free'
  if (among(special)) return 'special'
  return 'avoid'
}

/**
 * The drones a tune can have: open strings and held notes that are a chord tone or a free tension
 * of the most chords. Over the others it rests: an avoid note is never held (common practice).
 */
export function drones(
  { chords, limits, constraints: given = [] }: LeadProblem,
  roles: readonly Role[],
  asked: Drone | null,
): StyleChoice[] {
  const { tuning, capo } = limits.instrument
  const all: Drone[] = asked
    ? [asked]
    : [
        ...tuning.map((_, string) => ({ string })),
        ...Array.from({ length: HELD_NOTES[1] - HELD_NOTES[0] + 1 }, (_, at) => ({
          midi: HELD_NOTES[0] + at,
        })),
      ]
  const judged = all.map((drone) => {
    const midi = 'string' in drone ? itemAt(tuning, drone.string) + capo : drone.midi
    const rests = chords.flatMap((chord, at) => {
      const heard = droneOver(chord, roles[at], midi % 12)
      return heard === 'avoid' || (!asked && heard === 'special') ? [at] : []
    })
    return { drone, midi, rests }
  })
  const fewest = Math.min(...judged.map(({ rests }) => rests.length))
  if (fewest === chords.length && !asked) return []
  const serving = judged.filter(({ rests }) => rests.length === fewest)
  // An open string that serves as well comes before a note that is held.
  const open = serving.filter(({ drone }) => 'string' in drone)
  const fitting = open.length > 0 ? open : serving
  const left = fitting.length - DRONES_TRIED
  return fitting.slice(0, DRONES_TRIED).map(({ drone, midi, rests }) => {
    const name =
      'string' in drone
        ? `string ${stringNumber(drone.string, tuning.length)} (${plainPitchName(midi)})`
        : plainPitchName(midi)
    const sounds = (at: number): Constraint =>
      'string' in drone
        ? { kind: 'open', string: drone.string, from: at, to: at }
        : { kind: 'sounds', midi: drone.midi, from: at, to: at }
    const names = [...new Set(rests.map((at) => itemAt(chords, at).canonical))]
    // A chord that takes the drone for a tension is called so.
    const colours = chords.map((one, at) => [
      one,
      ...coloursFor(one, roles[at])
        .slice(1)
        .filter((other) => {
          const added = other.tones.filter(
            ({ note }) => !one.tones.some((own) => pitchClass(own.note) === pitchClass(note)),
          )
          return added.length === 1 && pitchClass(firstOf(added).note) === midi % 12
        }),
    ])
    return {
      name,
      colours,
      constraints: chords.flatMap((_, at) =>
        rests.includes(at) ||
        given.some(
          (one) =>
            one.kind === 'silent' &&
            'string' in drone &&
            one.string === drone.string &&
            one.from <= at &&
            at <= one.to,
        )
          ? []
          : [sounds(at)],
      ),
      says: [
        `${capital(name)} is the drone${rests.length > 0 ? `; it rests over ${names.join(', ')}, where it would be a note to avoid` : ''}.`,
        ...(left > 0 ? [`${left} other held notes go with as many chords; ask for one to hear it.`] : []),
      ],
    }
  })
}
