import { availableTensions, whyTension } from '../analysis/tensions'
import type { Role } from '../analysis/role'
import { parseChord } from '../chord/parseChord'
import type { ChordSymbol } from '../chord/symbol'
import { itemAt } from '../lists'
import { soundAt, stringNumber } from '../neck/instrument'
import { semitonesOf, type Degree } from '../pitch/degree'
import { noteName, pitchClass, plainPitchName } from '../pitch/note'
import { isPlayedByPlayers } from '../voicing/gripIdiom'
import type { Limits } from '../voicing/gripLimits'
import { namesOf } from '../voicing/possibleNames'
import { ToneNames, type SoundingGrip, type Voicing } from '../voicing/voicing'
import { coloursFor } from './colours'
import { neighbours } from './gripForms'
import { weightsOf } from './lineProblem'
import { constrained, type Constraint } from './constraints'
import { bestPaths } from './search'
import type { Layer } from './searchStage'
import { weightsFrom } from './weights'

/** What an open string is to a chord in its place. */
type HeardAs = 'chord tone' | 'free' | 'special' | 'avoid'

/**
 * What taking an open string costs a chord: nothing where it has the tone, more the further the
 * tone lies from what the chord's job allows. Common practice, no source.
 */
const PRICE: Readonly<Record<HeardAs, number>> = { 'chord tone': 0, free: 1, special: 2, avoid: 4 }
/** What a chord costs that no hand holds with the string open. */
const NO_GRIP = 10

/** One chord under strings that ring on. */
export interface UnderRinging {
  index: number
  chord: ChordSymbol
  /** What each ringing string is to the chord, in the order of the strings. */
  degrees: Degree[]
  heard: HeardAs
  /** The chord with those tones: itself where it has them. */
  becomes: ChordSymbol
  cost: number
  /** A grip in which they ring; none where no hand holds one. */
  grip: Voicing | null
  says: string
}

/** One or two open strings that ring through a stretch. */
export interface Ringing {
  /** By index from the lowest. */
  strings: readonly number[]
  cost: number
  chords: UnderRinging[]
}

/**
 * What each open string, or each pair of them, would be to the chords of a stretch, what each would
 * become, and the grip that is easiest there; the least change first.
 * @param sizes how many strings ring together
 * @param onProgress returning false stops it: then null
 */
export function ringingStrings(
  chords: readonly ChordSymbol[],
  roles: readonly (Role | undefined)[],
  limits: Limits,
  sizes: 1 | 2,
  only: number | null = null,
  onProgress: (done: number, of: number) => boolean = () => true,
): Ringing[] | null {
  const all = limits.instrument.tuning.map((_, string) => string)
  const sets =
    sizes === 1
      ? all.map((string) => [string])
      : all.flatMap((low) => all.filter((high) => high > low).map((high) => [low, high]))
  const asked = sets.filter((set) => only === null || set.includes(only))
  const found: Ringing[] = []
  for (const strings of asked) {
    if (!onProgress(found.length, asked.length)) return null
    found.push(ringing(strings, chords, roles, limits))
  }
  return found.sort((a, b) => a.cost - b.cost || itemAt(b.strings, 0) - itemAt(a.strings, 0))
}

function ringing(
  strings: readonly number[],
  chords: readonly ChordSymbol[],
  roles: readonly (Role | undefined)[],
  limits: Limits,
): Ringing {
  const becomes = chords.map((chord, at) =>
    strings.reduce(
      (now, string) => takingTone(now, roles[at], soundAt(limits.instrument, string, 0) % 12),
      chord,
    ),
  )
  const grips = gripsWith(becomes, strings, limits)
  const under = chords.map((chord, index) => ({
    index,
    ...underRinging(chord, roles[index], itemAt(becomes, index), itemAt(grips, index), strings, limits),
  }))
  return { strings, cost: under.reduce((sum, { cost }) => sum + cost, 0), chords: under }
}

function underRinging(
  chord: ChordSymbol,
  role: Role | undefined,
  becomes: ChordSymbol,
  grip: Voicing | null,
  strings: readonly number[],
  limits: Limits,
): Omit<UnderRinging, 'index'> {
  const open = strings.map((string) => soundAt(limits.instrument, string, 0))
  const tones = open.map((midi) => heardOver(chord, role, midi % 12))
  const worst = tones.reduce<HeardAs>(
    (far, { heard }) => (PRICE[heard] > PRICE[far] ? heard : far),
    'chord tone',
  )
  const inner = tones.reduce((sum, { heard }) => sum + PRICE[heard], 0)
  const words = strings.map((_, at) => {
    const { heard, degree } = itemAt(tones, at)
    const name = plainPitchName(itemAt(open, at))
    if (heard === 'chord tone') return `${name} is the ${degree} of ${chord.canonical}.`
    const why = role ? ` ${whyTension(chord, role, degree)}` : ''
    return heard === 'avoid'
      ? `${name} is a tone to avoid over ${chord.canonical}: heard as its ${degree}, or the chord as a suspension.${why}`
      : `${name} makes it ${becomes.canonical}.${why}`
  })
  return {
    chord,
    degrees: tones.map(({ degree }, at) => degreeIn(becomes, itemAt(open, at) % 12) ?? degree),
    heard: worst,
    becomes,
    cost: inner + (grip ? 0 : NO_GRIP),
    grip,
    says: [...words, ...(grip ? [] : [`No hand holds it with ${stringNames(strings, limits)} open.`])].join(
      ' ',
    ),
  }
}

const stringNames = (strings: readonly number[], { instrument }: Limits): string =>
  strings.map((string) => `string ${stringNumber(string, instrument.tuning.length)}`).join(' and ')

/** What a sound is to a chord in its role, and by what name. */
function heardOver(
  chord: ChordSymbol,
  role: Role | undefined,
  sound: number,
): { heard: HeardAs; degree: Degree } {
  const own = chord.tones.find(({ note }) => pitchClass(note) === sound)
  if (own) return { heard: 'chord tone', degree: own.degree }
  const loose = new ToneNames(chord).of(sound)[0]
  if (!role) return { heard: 'avoid', degree: loose }
  const { free, special } = availableTensions(chord, role)
  const among = (degrees: readonly Degree[]) =>
    degrees.find((degree) => (pitchClass(chord.root) + semitonesOf(degree)) % 12 === sound)
  const [isFree, isSpecial] = [among(free), among(special)]
  if (isFree) return { heard: 'free', degree: isFree }
  return isSpecial ? { heard: 'special', degree: isSpecial } : { heard: 'avoid', degree: loose }
}

/** A chord with one more sound, by the plainest name that keeps all it has; the bass stays. */
function takingTone(chord: ChordSymbol, role: Role | undefined, sound: number): ChordSymbol {
  if (chord.tones.some(({ note }) => pitchClass(note) === sound)) return chord
  // The 4 of a dominant takes the place of its third.
  if (heardOver(chord, role, sound).degree === '4') {
    const suspended = parseChord(`${noteName(chord.root)}${chord.suffix}sus4`)
    if (suspended.ok && degreeIn(suspended.value, sound)) return overBass(suspended.value, chord)
  }
  const own = soundsOf(chord, false)
  const needed = soundsOf(chord, true)
  const isThat = (other: ChordSymbol) =>
    soundsOf(other, true).has(sound) &&
    [...needed].every((one) => soundsOf(other, false).has(one)) &&
    [...soundsOf(other, true)].every((one) => one === sound || own.has(one))
  const coloured = coloursFor(chord, role)
    .filter(isThat)
    .sort((a, b) => a.suffix.length - b.suffix.length)
  const root = 36 + pitchClass(chord.root)
  const midis = [
    root,
    ...[...own].map((one) => root + ((one - pitchClass(chord.root) + 12) % 12)),
    72 + sound,
  ]
  const named = namesOf(midis, { over: chord.root }).filter(({ outside }) => outside === 0)
  const added = parseChord(`${noteName(chord.root)}${chord.suffix}(add${new ToneNames(chord).of(sound)[0]})`)
  const found =
    coloured[0] ?? named.find((name) => isThat(name.chord))?.chord ?? (added.ok ? added.value : chord)
  return overBass(found, chord)
}

/** A chord over the written bass of the one it comes from. */
function overBass(found: ChordSymbol, { bass }: ChordSymbol): ChordSymbol {
  if (!bass || found.bass) return found
  const over = parseChord(`${found.canonical}/${noteName(bass)}`)
  return over.ok ? over.value : found
}

const degreeIn = ({ tones }: ChordSymbol, sound: number): Degree | undefined =>
  tones.find(({ note }) => pitchClass(note) === sound)?.degree

/** The sounds of a chord, or only those that it cannot do without. */
const soundsOf = ({ tones }: ChordSymbol, needed: boolean): Set<number> =>
  new Set(tones.filter(({ need }) => !needed || need !== 'free').map(({ note }) => pitchClass(note)))

/**
 * A line of grips in which the strings ring under every chord that a hand can hold them with; null
 * where it cannot. A string below the bass is a pedal: the bass rule then gives way.
 */
function gripsWith(
  chords: readonly ChordSymbol[],
  strings: readonly number[],
  limits: Limits,
): (Voicing | null)[] {
  const known = new Map<string, readonly Voicing[]>()
  const held = chords.map((chord) => {
    const found = known.get(chord.canonical) ?? gripsOpenAt(chord, strings, limits)
    known.set(chord.canonical, found)
    return found
  })
  const taken = held.flatMap((one, at) => (one.length > 0 ? [at] : []))
  const layers = taken.map((at): Layer => ({
    chord: itemAt(chords, at),
    voicings: itemAt(held, at),
    only: `ringing ${strings.join()}`,
  }))
  const weights = weightsOf({ weights: weightsFrom('smooth', {}, limits.bass), texture: 'open', limits })
  const [path] = bestPaths(layers, weights, limits.instrument, 1) ?? []
  return chords.map((_, at) => {
    const place = taken.indexOf(at)
    return place < 0 ? null : itemAt(itemAt(held, at), itemAt(path!.indexes, place))
  })
}

/** Grips of a chord with these strings open. */
function gripsOpenAt(chord: ChordSymbol, strings: readonly number[], limits: Limits): readonly Voicing[] {
  const asked = strings.map((string): Constraint => ({ kind: 'open', string, from: 0, to: 0 }))
  const isFull = (grip: SoundingGrip) => grip.strings.length >= FULL && neighbours(grip)
  const isTaken = (grip: SoundingGrip) => isFull(grip) && isPlayedByPlayers(grip, chord, limits.instrument)
  const low = { ...limits, frets: [limits.frets[0], limits.instrument.capo + OPEN_POSITION] as const }
  for (const bass of [limits.bass, 'any'] as const)
    for (const [within, accept] of [
      [low, isTaken],
      [low, isFull],
      [limits, isTaken],
      [limits, isFull],
      [limits, undefined],
    ] as const) {
      const found = constrained(chord, { ...within, bass, open: true }, asked, accept)
      if (found.length > 0) return found
    }
  return []
}
/** Frets above the nut, or the capo, within which open strings sound with what is stopped. */
const OPEN_POSITION = 5
/** Notes of a grip in which strings are to ring. */
const FULL = 4
