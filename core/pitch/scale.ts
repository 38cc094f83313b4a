import { itemAt } from '../lists'
import { bad, good, type Result } from '../result'
import type { Key } from './key'
import { modulo, noteName, parseNote, pitchClass, type Note } from './note'

/** A scale on a root, as a player names it: D dorian, A harmonic minor. */
export interface Scale {
  root: Note
  name: ScaleKind
  /** Its notes from the root up, spelled one letter a step where it has seven. */
  notes: readonly Note[]
}

/**
 * Scales that a grip can be walked through: steps from the root, and other words for the same. As
 * in the textbooks of theory (from memory); held against an open scale dictionary by the tests.
 */
// prettier-ignore
const SCALE_TABLE = {
  // The major scale and its modes.
  'major':              ['1 2 3 4 5 6 7', 'ionian maj dur'],
  'dorian':             ['1 2 b3 4 5 6 b7', ''],
  'phrygian':           ['1 b2 b3 4 5 b6 b7', ''],
  'lydian':             ['1 2 3 #4 5 6 7', ''],
  'mixolydian':         ['1 2 3 4 5 6 b7', 'dominant'],
  'minor':              ['1 2 b3 4 5 b6 b7', 'aeolian natural_minor min moll m'],
  'locrian':            ['1 b2 b3 4 b5 b6 b7', ''],
  // The melodic minor and its modes.
  'melodic minor':      ['1 2 b3 4 5 6 7', 'jazz_minor'],
  'dorian b2':          ['1 b2 b3 4 5 6 b7', 'phrygian_#6'],
  'lydian augmented':   ['1 2 3 #4 #5 6 7', ''],
  'lydian dominant':    ['1 2 3 #4 5 6 b7', 'lydian_b7'],
  'mixolydian b6':      ['1 2 3 4 5 b6 b7', 'mixolydian_b13 melodic_major'],
  'locrian #2':         ['1 2 b3 4 b5 b6 b7', 'locrian_natural_2 locrian_natural_9 locrian_#9'],
  'altered':            ['1 b2 b3 b4 b5 b6 b7', 'super_locrian'],
  // The harmonic scales and the mode of V.
  'harmonic minor':     ['1 2 b3 4 5 b6 7', ''],
  'phrygian dominant':  ['1 b2 3 4 5 b6 b7', 'mixolydian_b9_b13'],
  'harmonic major':     ['1 2 3 4 5 b6 7', ''],
  // Five, six and eight notes.
  'major pentatonic':   ['1 2 3 5 6', 'pentatonic'],
  'minor pentatonic':   ['1 b3 4 5 b7', ''],
  'blues':              ['1 b3 4 b5 5 b7', 'minor_blues'],
  'whole tone':         ['1 2 3 #4 #5 b7', 'whole-tone'],
  'diminished':         ['1 2 b3 4 b5 b6 6 7', 'whole-half_diminished whole_half_diminished whole-half'],
  'half-whole diminished': ['1 b2 b3 3 #4 5 6 b7', 'half_whole_diminished half-whole dominant_diminished'],
  'chromatic':          ['1 b2 2 b3 3 4 b5 5 b6 6 b7 7', ''],
} as const satisfies Readonly<Record<string, readonly [steps: string, otherWords: string]>>

export type ScaleKind = keyof typeof SCALE_TABLE
export const SCALE_KINDS = Object.keys(SCALE_TABLE) as ScaleKind[]

const OTHER_WORDS = new Map<string, ScaleKind>(
  SCALE_KINDS.flatMap((kind) =>
    [kind, ...SCALE_TABLE[kind][1].split(' ').filter(Boolean)].map(
      (word) => [word.replaceAll('_', ' '), kind] as const,
    ),
  ),
)

const NATURAL_STEPS = [0, 2, 4, 5, 7, 9, 11] as const

/** The note that a step such as `b6` or `#4` is above a root: a letter for each number. */
function noteOnStep(root: Note, step: string): Note {
  const number = Number(step.replace(/[b#]/g, '')) - 1
  const raised = step.startsWith('b') ? -1 : Number(step.startsWith('#'))
  const letter = modulo(root.letter + number, 7)
  const sound = pitchClass(root) + itemAt(NATURAL_STEPS, number) + raised
  return { letter, alter: modulo(sound - pitchClass({ letter, alter: 0 }) + 6, 12) - 6 }
}

/** A scale of the table on a root. */
export const scaleOn = (root: Note, name: ScaleKind): Scale => ({
  root,
  name,
  notes: SCALE_TABLE[name][0].split(' ').map((step) => noteOnStep(root, step)),
})

export const scaleOfKey = ({ tonic, mode }: Key): Scale => scaleOn(tonic, mode)

/** `D dorian`. */
export const scaleName = ({ root, name }: Scale): string => `${noteName(root)} ${name}`

/**
 * Reads a root and a name: `D dorian`, `G minor pentatonic`, `Bb Lydian`; a root alone is its major
 * scale, `Dm` its natural minor.
 */
export function parseScale(text: string): Result<Scale> {
  const match = /^([A-G](?:bb|##|[b#♭♯])?)\s*(.*)$/u.exec(text.trim())
  const root = match && parseNote(itemAt(match, 1))
  const words = (match?.[2] ?? '').toLowerCase().replaceAll('♮', 'natural ').replace(/\s+/g, ' ').trim()
  const kind = OTHER_WORDS.get(words.replace(/ (scale|mode)$/, '') || 'major')
  if (!root?.ok || !kind)
    return bad({
      code: 'bad-scale',
      message: `"${text}" is not a scale.`,
      accepted: `a root and a name, such as D dorian: ${SCALE_KINDS.join(', ')}`,
      text,
    })
  return good(scaleOn(root.value, kind))
}

/** The key whose notes a scale has, where it is a mode of a major scale; to spell and name by. */
export function keyOfScale({ root, name, notes }: Scale): Key | null {
  if (name === 'major' || name === 'minor') return { tonic: root, mode: name }
  const mode = MODES.indexOf(name)
  return mode < 0 ? null : { tonic: itemAt(notes, (7 - mode) % 7), mode: 'major' }
}
const MODES: readonly ScaleKind[] = [
  'major',
  'dorian',
  'phrygian',
  'lydian',
  'mixolydian',
  'minor',
  'locrian',
]
