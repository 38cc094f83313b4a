import { firstOf, itemAt, lastOf } from '../lists'
import { fingeringsOf } from '../neck/fingering'
import type { Hand } from '../neck/hand'
import { fretFor, soundAt, stringNumber, type Frets, type Instrument } from '../neck/instrument'
import type { Key } from '../pitch/key'
import { modulo, pitchAt, pitchClass, pitchName, plainSpelling, type Note } from '../pitch/note'
import { keyOfScale, type Scale } from '../pitch/scale'
import { namesOf, type PossibleName } from './possibleNames'

/** Ways to lead a grip: through a scale, along roots, through its inversions. */
export const WALK_WAYS = ['scale', 'shape', 'inversions'] as const

/** A grip that is led along: what it is led on, and how it is named. */
export interface ShapeWalk {
  frets: Frets
  instrument: Instrument
  hand: Hand
  /** The highest fret of the neck. */
  highest: number
  /** Flats or sharps, and which of two names is likelier. */
  key?: Key | null
  /** A root that every step is named over. */
  over?: Note | null
}

/** One grip of a walk. */
export interface WalkStep {
  frets: Frets
  /** What sounds, string by string from the lowest, in scientific pitch. */
  notes: string[]
  /** The likeliest names first. */
  names: PossibleName[]
  /** Whether this hand holds it on this neck. */
  playable: boolean
  /** Why not. */
  why?: string
  /** Strings, by number, that sound a note outside the scale. */
  foreign: number[]
}

/** Steps of a walk, the first of which is the grip it began with, and why it ends early. */
export interface Walk {
  steps: WalkStep[]
  ends: string | null
}

/** Names a step is shown with. */
const MOST_NAMES = 4

const walkKey = ({ key = null }: ShapeWalk, scale?: Scale): Key | null =>
  key ?? (scale ? keyOfScale(scale) : null)

/** A grip as a step, with what it is called and whether it can be held. */
function stepOf(walk: ShapeWalk, frets: Frets, scale?: Scale): WalkStep {
  const { instrument, hand, over = null, highest } = walk
  const key = walkKey(walk, scale)
  const sounding = frets.flatMap((fret, string) =>
    fret === null ? [] : [{ string, midi: soundAt(instrument, string, fret) }],
  )
  const midis = sounding.map(({ midi }) => midi)
  const names = namesOf(midis, { ...(key ? { key } : {}), ...(over ? { over } : {}) }).slice(0, MOST_NAMES)
  const spelled = (midi: number): Note =>
    scale?.notes.find((note) => pitchClass(note) === midi % 12) ??
    names[0]?.chord.tones.find(({ note }) => pitchClass(note) === midi % 12)?.note ??
    plainSpelling(midi % 12)
  const beyond = frets.find((fret) => fret !== null && fret > highest)
  const held = beyond === undefined ? fingeringsOf(frets, instrument, hand) : null
  const why =
    held?.playable === false ? held.why : `It would need fret ${beyond}; the neck ends at fret ${highest}.`
  return {
    frets,
    notes: midis.map((midi) => pitchName(pitchAt(midi, spelled(midi)))),
    names,
    playable: held?.playable === true,
    ...(held?.playable === true ? {} : { why }),
    foreign: scale
      ? sounding
          .filter(({ midi }) => !scale.notes.some((note) => pitchClass(note) === midi % 12))
          .map(({ string }) => stringNumber(string, frets.length))
      : [],
  }
}

/**
 * Every voice of a grip goes to the next note of a scale on its own string, so often.
 * @param steps how often, down where it is below 0; one grip for each note of the scale where it is
 *   not said
 * @param ringing strings, by index, that ring on as they are
 */
export function walkByScale(
  walk: ShapeWalk,
  scale: Scale,
  steps: number = scale.notes.length - 1,
  ringing: readonly number[] = [],
): Walk {
  const sounds = new Set(scale.notes.map(pitchClass))
  const down = steps < 0
  const found = [stepOf(walk, walk.frets, scale)]
  let ends: string | null = null
  while (found.length <= Math.abs(steps) && ends === null) {
    const { frets: next, below } = oneStepOn(lastOf(found).frets, walk.instrument, { sounds, down, ringing })
    if (below !== null)
      ends = `The next grip down would need a note below open string ${stringNumber(below, walk.frets.length)}.`
    if (next.some((fret) => fret !== null && fret > walk.highest + OCTAVE))
      ends ??= `The next grip up would lie beyond the neck.`
    if (ends === null) found.push(stepOf(walk, next, scale))
  }
  return { steps: found, ends }
}
const OCTAVE = 12

/** Where a scale step leads: its sounds, up or down, and strings that stay as they are. */
interface ScaleWay {
  sounds: ReadonlySet<number>
  down: boolean
  ringing?: readonly number[]
}

/**
 * Every voice of a grip goes to the next note of a scale on its own string.
 * @returns the frets, and a string, by index, whose open note the way goes below
 */
export function oneStepOn(
  frets: Frets,
  instrument: Instrument,
  { sounds, down, ringing = [] }: ScaleWay,
): { frets: Frets; below: number | null } {
  let below: number | null = null
  const next = frets.map((fret, string) => {
    if (fret === null || ringing.includes(string)) return fret
    const there = fretFor(instrument, string, scaleStepFrom(soundAt(instrument, string, fret), sounds, down))
    if (there === null) below ??= string
    return there
  })
  return { frets: next, below }
}

/** The next sound of a scale above or below a note. */
function scaleStepFrom(midi: number, sounds: ReadonlySet<number>, down: boolean): number {
  const way = down ? -1 : 1
  let next = midi + way
  while (!sounds.has(modulo(next, 12))) next += way
  return next
}

/**
 * The same shape on other roots, each at the nearest place on the neck; an open string becomes a
 * stopped one where the shape moves.
 * @param root what the shape's root is, where its name is not to say it
 */
export function walkByRoots(walk: ShapeWalk, roots: readonly Note[], root: Note): Walk {
  const first = stepOf(walk, walk.frets)
  const stopped = stoppedFrets(walk.frets, walk.instrument)
  const [low, high] = [Math.min(...stopped), Math.max(...stopped)]
  const { capo } = walk.instrument
  let at = 0
  const steps = [first]
  const rest = pitchClass(firstOf(roots)) === pitchClass(root) ? roots.slice(1) : roots
  for (const to of rest) {
    const up = modulo(pitchClass(to) - pitchClass(root), 12)
    // Places an octave apart, those on the neck first, then the nearest; upwards of two as near.
    const places = [up - 24, up - 12, up, up + 12, up + 24].filter((by) => low + by >= capo)
    const price = (by: number) => (high + by > walk.highest ? OFF_THE_NECK : 0) + Math.abs(by - at)
    const by = places.reduce((best, one) => (price(one) <= price(best) ? one : best))
    at = by
    const frets = walk.frets.map((fret) => {
      if (fret === null) return null
      const moved = (fret === 0 ? capo : fret) + by
      return moved === capo ? 0 : moved
    })
    steps.push(stepOf({ ...walk, over: walk.over ?? to }, frets))
  }
  return { steps, ends: null }
}
const OFF_THE_NECK = 100

const stoppedFrets = (frets: Frets, { capo }: Instrument): number[] =>
  frets.flatMap((fret) => (fret === null ? [] : [fret === 0 ? capo : fret]))

/** The root a grip's likeliest name has. */
export function rootOfGrip(walk: ShapeWalk): Note {
  const [name] = stepOf(walk, walk.frets).names
  return name?.chord.root ?? plainSpelling(Math.min(...stoppedFrets(walk.frets, walk.instrument)))
}

/**
 * The inversions of a grip on its own strings, going up and then on from below, and after them the
 * same on each other set of strings of the same pattern. Every voice goes to the grip's next sound.
 */
export function walkByInversions(walk: ShapeWalk, steps?: number): Walk {
  const sounds = [...new Set(soundsOf(walk.frets, walk.instrument).map((midi) => midi % 12))]
  const own: Scale = {
    root: plainSpelling(firstOf(sounds)),
    name: 'chromatic',
    notes: sounds.map((sound) => plainSpelling(sound)),
  }
  const along = (frets: Frets, by: number) =>
    walkByScale({ ...walk, frets }, own, by).steps.map((step) => stepOf(walk, step.frets))
  if (steps !== undefined) return { steps: along(walk.frets, steps), ends: null }
  const fits = ({ frets }: WalkStep) => frets.every((fret) => fret === null || fret <= walk.highest)
  const round = (frets: Frets): WalkStep[] => {
    const up = along(frets, sounds.length - 1).filter(fits)
    const down = along(frets, up.length - sounds.length).slice(1)
    return [...up, ...down]
  }
  return {
    steps: [
      ...round(walk.frets),
      ...otherStringSets(walk.frets, walk.instrument).flatMap((frets) =>
        round(frets).sort((a, b) => Math.min(...heldFrets(a.frets)) - Math.min(...heldFrets(b.frets))),
      ),
    ],
    ends: null,
  }
}

const heldFrets = (frets: Frets): number[] => frets.flatMap((fret) => (fret === null ? [] : [fret]))
const soundsOf = (frets: Frets, instrument: Instrument): number[] =>
  frets.flatMap((fret, string) => (fret === null ? [] : [soundAt(instrument, string, fret)]))

/** The same notes, or those an octave off, on every other set of strings of the same pattern. */
function otherStringSets(frets: Frets, instrument: Instrument): Frets[] {
  const used = frets.flatMap((fret, string) => (fret === null ? [] : [string]))
  const sets: Frets[] = []
  for (let by = -firstOf(used); by + lastOf(used) < frets.length; by += 1) {
    if (by === 0) continue
    for (const octave of [0, by < 0 ? -OCTAVE : OCTAVE]) {
      const moved: (number | null)[] = frets.map(() => null)
      for (const string of used)
        moved[string + by] = fretFor(
          instrument,
          string + by,
          soundAt(instrument, string, itemAt(frets, string)!) + octave,
        )
      if (used.every((string) => moved[string + by] !== null) && Math.max(...heldFrets(moved)) <= OCTAVE) {
        sets.push(moved)
        break
      }
    }
  }
  return sets
}
