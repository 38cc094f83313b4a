import { itemAt } from '../lists'
import { modulo, pitchClass, type Note } from './note'

/**
 * What a tone is to the root of its chord. A degree is a name, not only a sound: `#9` and `b3`
 * sound alike and mean different things, and the name decides the letter a tone is written with.
 * The order of this table is the order in which tones are listed.
 */
const DEGREE_TABLE = {
  //      letters above the root, semitones above the root
  '1': [0, 0],
  '2': [1, 2],
  b3: [2, 3],
  '3': [2, 4],
  '4': [3, 5],
  b5: [4, 6],
  '5': [4, 7],
  '#5': [4, 8],
  '6': [5, 9],
  bb7: [6, 9],
  b7: [6, 10],
  '7': [6, 11],
  b9: [1, 1],
  '9': [1, 2],
  '#9': [1, 3],
  '11': [3, 5],
  '#11': [3, 6],
  b13: [5, 8],
  '13': [5, 9],
} as const

export type Degree = keyof typeof DEGREE_TABLE

/**
 * Every degree in listing order. Object keys that look like integers would sort first, so the order
 * is spelled out.
 */
export const DEGREES: readonly Degree[] = [
  '1',
  '2',
  'b3',
  '3',
  '4',
  'b5',
  '5',
  '#5',
  '6',
  'bb7',
  'b7',
  '7',
  'b9',
  '9',
  '#9',
  '11',
  '#11',
  'b13',
  '13',
]

export const isDegree = (text: string): text is Degree => Object.hasOwn(DEGREE_TABLE, text)

/** Semitones of a degree above its root, 0 to 11. */
export const semitonesOf = (degree: Degree): number => DEGREE_TABLE[degree][1]

/**
 * The note a degree of `root` is written as: the b9 of A is Bb, the #9 of C is D#, the bb7 of C is
 * Bbb.
 */
export function spellDegree(root: Note, degree: Degree): Note {
  const [letters, semitones] = DEGREE_TABLE[degree]
  const natural: Note = { letter: modulo(root.letter + letters, 7), alter: 0 }
  const wanted = pitchClass(root) + semitones
  return { letter: natural.letter, alter: modulo(wanted - pitchClass(natural) + 6, 12) - 6 }
}

export const inDegreeOrder = (a: Degree, b: Degree): number => DEGREES.indexOf(a) - DEGREES.indexOf(b)

/** Names for a sound above a root when no chord says what it is: the commonest tension name. */
const LOOSE_NAMES: readonly Degree[] = ['1', 'b9', '9', 'b3', '3', '11', '#11', '5', 'b13', '13', 'b7', '7']

/** What `note` is to `root`, judged by letter where that gives a known degree, else by sound. */
export function degreeBetween(root: Note, note: Note): Degree {
  const semitones = modulo(pitchClass(note) - pitchClass(root), 12)
  const letters = modulo(note.letter - root.letter, 7)
  const loose = itemAt(LOOSE_NAMES, semitones)
  if (DEGREE_TABLE[loose][0] === letters) return loose
  return DEGREES.find((d) => DEGREE_TABLE[d][0] === letters && DEGREE_TABLE[d][1] === semitones) ?? loose
}
