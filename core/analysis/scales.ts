import { entryOf } from '../lists'
import type { ChordSymbol } from '../chord/symbol'
import { semitonesOf, spellDegree, type Degree } from '../pitch/degree'
import { noteName, type Note } from '../pitch/note'
import type { Role } from './role'

/** A scale heard over a chord, from the chord's root. */
export interface ChordScale {
  name: string
  degrees: readonly Degree[]
  notes: readonly Note[]
}

const row = (degrees: string, says: string) => ({ degrees: degrees.split(' ') as Degree[], says })

/**
 * Scales by name, each with what a player knows it by. Names and steps as in the chord-scale
 * literature (Nettles & Graf; from memory).
 */
export const SCALES = {
  Ionian: row('1 9 3 11 5 13 7', 'the major scale itself'),
  Dorian: row('1 9 b3 11 5 13 b7', 'the major scale from its second step'),
  Phrygian: row('1 b9 b3 11 5 b13 b7', 'the major scale from its third step'),
  Lydian: row('1 9 3 #11 5 13 7', 'the major scale from its fourth step'),
  Mixolydian: row('1 9 3 11 5 13 b7', 'the major scale from its fifth step'),
  Aeolian: row('1 9 b3 11 5 b13 b7', 'the major scale from its sixth step, the natural minor'),
  Locrian: row('1 b9 b3 11 b5 b13 b7', 'the major scale from its seventh step'),
  'melodic minor': row('1 9 b3 11 5 13 7', 'minor with the raised sixth and seventh'),
  'harmonic minor': row('1 9 b3 11 5 b13 7', 'minor with the raised seventh'),
  'Lydian augmented': row('1 9 3 #11 #5 13 7', 'the melodic minor from its third step'),
  'Ionian augmented': row('1 9 3 11 #5 13 7', 'the harmonic minor from its third step'),
  'Lydian dominant': row('1 9 3 #11 5 13 b7', 'the melodic minor from its fourth step'),
  'Mixolydian b13': row('1 9 3 11 5 b13 b7', 'the melodic minor from its fifth step'),
  'Locrian ♮9': row('1 9 b3 11 b5 b13 b7', 'the melodic minor from its sixth step'),
  altered: row('1 b9 #9 3 #11 b13 b7', 'the melodic minor from its seventh step'),
  'Mixolydian b9 b13': row('1 b9 3 11 5 b13 b7', 'the harmonic minor from its fifth step'),
  'half-whole diminished': row('1 b9 #9 3 #11 5 13 b7', 'half steps and whole steps in turn'),
  'whole-half diminished': row('1 9 b3 11 b5 b13 bb7 7', 'whole steps and half steps in turn'),
  'whole tone': row('1 9 3 #11 b13 b7', 'whole steps only'),
} as const
export type ScaleName = keyof typeof SCALES

/**
 * For each role the scales that are tried, the usual one first: the first that holds all tones of
 * the chord is it.
 */
// prettier-ignore
const BY_ROLE: Readonly<Record<Role, readonly ScaleName[]>> = {
  'I major': ['Ionian', 'Lydian', 'Ionian augmented', 'Lydian augmented'],
  'IV major': ['Lydian', 'Ionian', 'Lydian augmented'],
  'borrowed major': ['Lydian', 'Ionian', 'Lydian augmented', 'Ionian augmented'],
  'relative major': ['Ionian', 'Lydian', 'Ionian augmented', 'Lydian augmented'],
  'ii minor': ['Dorian', 'melodic minor', 'Aeolian', 'Phrygian'],
  'iii minor': ['Phrygian', 'Dorian', 'Aeolian', 'melodic minor'],
  'vi minor': ['Aeolian', 'Dorian', 'melodic minor'],
  'iv minor': ['Dorian', 'melodic minor', 'Aeolian'],
  'tonic minor': ['melodic minor', 'Dorian', 'Aeolian', 'harmonic minor'],
  'half-diminished': ['Locrian', 'Locrian ♮9'],
  diminished: ['whole-half diminished'],
  'dominant to major': ['Mixolydian', 'Lydian dominant', 'half-whole diminished', 'Mixolydian b13', 'Mixolydian b9 b13', 'altered', 'whole tone'],
  'dominant to minor': ['Mixolydian b9 b13', 'altered', 'half-whole diminished', 'Mixolydian b13', 'Mixolydian', 'whole tone', 'Lydian dominant'],
  'dominant at rest': ['Lydian dominant', 'Mixolydian', 'half-whole diminished', 'altered', 'whole tone', 'Mixolydian b13', 'Mixolydian b9 b13'],
  'home dominant at rest': ['Mixolydian', 'Lydian dominant', 'half-whole diminished', 'Mixolydian b13', 'Mixolydian b9 b13', 'altered', 'whole tone'],
  'blues I into IV': ['Mixolydian', 'Lydian dominant', 'half-whole diminished', 'Mixolydian b9 b13', 'altered', 'whole tone', 'Mixolydian b13'],
  augmented: ['whole tone', 'Lydian augmented', 'Ionian augmented', 'altered'],
  suspended: ['Mixolydian', 'Dorian', 'Ionian', 'Aeolian', 'Phrygian'],
  'Mixolydian tonic': ['Mixolydian', 'Lydian dominant'],
  power: ['Mixolydian', 'Ionian', 'Aeolian'],
}

/** Sounds above the root as bits. */
const bitsOf = (degrees: readonly Degree[]) =>
  degrees.reduce((bits, degree) => bits | (1 << semitonesOf(degree)), 0)
const BITS = new Map((Object.keys(SCALES) as ScaleName[]).map((name) => [name, bitsOf(SCALES[name].degrees)]))

/**
 * The usual scale of a chord in its role, or null where none of the usual ones holds all its tones.
 */
export function chordScale(chord: ChordSymbol, role: Role): ChordScale | null {
  const wanted = bitsOf(chord.tones.map((tone) => tone.degree))
  const name = BY_ROLE[role].find((one) => (wanted & ~entryOf(BITS, one)) === 0)
  if (!name) return null
  const { degrees } = SCALES[name]
  // A tone the chord has by another name (#9 for b3, #5 for b13) keeps the chord's name and letter.
  const named = degrees.map(
    (degree) =>
      chord.tones.find((tone) => semitonesOf(tone.degree) === semitonesOf(degree))?.degree ?? degree,
  )
  return { name, degrees: named, notes: named.map((degree) => spellDegree(chord.root, degree)) }
}

export function whyScale(chord: ChordSymbol, role: Role, scale: ChordScale | null): string {
  if (!scale)
    return `No usual scale for ${role === 'power' ? 'an open fifth' : `this job (${role})`} holds all tones of ${chord.canonical}: its own tones are the safe ones.`
  const usual = BY_ROLE[role][0]
  const says = SCALES[scale.name as ScaleName].says
  const from = noteName(chord.root)
  return scale.name === usual
    ? `${from} ${scale.name}, ${says}: the usual scale for this job (${role}), and it holds every tone of ${chord.canonical}.`
    : `${from} ${scale.name}, ${says}: the first of the usual scales for this job (${role}) that holds every tone of ${chord.canonical}; ${usual} does not.`
}
