import { itemAt } from '../lists'
import type { ChordSymbol } from '../chord/symbol'
import { degreeBetween } from '../pitch/degree'
import type { Key } from '../pitch/key'
import { modulo, pitchClass, type Note } from '../pitch/note'
import { kindOf } from './kind'

/**
 * The two schools: case shows quality (`ii7`), or capitals with the quality written out (`IIm7`).
 */
export type NumeralSchool = 'case' | 'capitals'

const ROMAN = ['I', 'II', 'III', 'IV', 'V', 'VI', 'VII'] as const
/**
 * The major scale above any tonic, in semitones: numerals are measured against it in major and
 * minor alike.
 */
const MAJOR = [0, 2, 4, 5, 7, 9, 11] as const

/**
 * The step of a key a note stands on, with its accidental against the major scale on the tonic:
 * `bVI`, `#IV`, `V`.
 */
export function stepName(note: Note, tonic: Note): string {
  const letters = modulo(note.letter - tonic.letter, 7)
  const alter = modulo(pitchClass(note) - pitchClass(tonic) - itemAt(MAJOR, letters) + 6, 12) - 6
  return (alter < 0 ? 'b'.repeat(-alter) : '#'.repeat(alter)) + itemAt(ROMAN, letters)
}

/**
 * The numeral of a chord in a key, with its quality and extensions. The step is the one it is read
 * by, however its root is spelled.
 */
export function numeralOf(chord: ChordSymbol, key: Key, school: NumeralSchool, rises?: boolean): string {
  return withQuality(usualStep(chord, key, rises), chord, school) + bassFigure(chord)
}

/**
 * The step a chord stands on by its usual name, however its root is spelled: the same sound is read
 * alike in every key.
 * @param rises whether it goes up a half step, which tells #II° from bIII°; where that is not known
 *   the spelling tells
 */
export function usualStep(chord: ChordSymbol, key: Key, rises?: boolean): string {
  const above = modulo(pitchClass(chord.root) - pitchClass(key.tonic), 12)
  const kind = kindOf(chord)
  if (kind === 'diminished' && above === 3)
    return (rises ?? stepName(chord.root, key.tonic).startsWith('#')) ? '#II' : 'bIII'
  return (
    (kind === 'diminished' || kind === 'half-diminished' ? RAISED[above] : undefined) ?? itemAt(STEPS, above)
  )
}

/** The numeral of a chord read as a step by its job. */
export const numeralAs = (step: string, chord: ChordSymbol, school: NumeralSchool): string =>
  withQuality(step, chord, school) + bassFigure(chord)

/** A bass other than the root is told by its degree: C/E is `I/3`. */
const bassFigure = (chord: ChordSymbol): string =>
  chord.bass ? `/${degreeBetween(chord.root, chord.bass)}` : ''

/** The numeral of a chord that belongs to another step: `V7/ii`, `bII7/V`. */
export const numeralOver = (
  step: string,
  chord: ChordSymbol,
  target: string,
  school: NumeralSchool,
): string => `${withQuality(step, chord, school)}/${target}`

/** `step` dressed with the chord's quality in either school. */
function withQuality(step: string, chord: ChordSymbol, school: NumeralSchool): string {
  if (school === 'capitals') return step + chord.suffix
  const small = step.replace(/[IV]+/, (numeral) => numeral.toLowerCase())
  const { suffix } = chord
  switch (kindOf(chord)) {
    case 'minor':
      return small + suffix.replace(/^m/, '')
    case 'half-diminished':
      return small + suffix.replace(/^m(\d+)b5/, 'ø$1')
    case 'diminished':
      return small + suffix.replace(/^dim/, '°')
    case 'augmented':
      return step + suffix.replace(/^aug/, '+')
    default:
      return step + suffix
  }
}

/**
 * Steps by their usual names, by semitones above the tonic; and where diminished and
 * half-diminished chords lead up.
 */
const STEPS = ['I', 'bII', 'II', 'bIII', 'III', 'IV', 'bV', 'V', 'bVI', 'VI', 'bVII', 'VII']
const RAISED: Readonly<Record<number, string>> = { 1: '#I', 6: '#IV', 8: '#V', 10: '#VI' }

/**
 * The numeral of a bare step of a key as a target: `ii` in major, `iv` in minor, by the triad that
 * stands there.
 */
export function targetName(root: Note, minor: boolean, tonic: Note): string {
  const step = itemAt(STEPS, modulo(pitchClass(root) - pitchClass(tonic), 12))
  return minor ? step.replace(/[IV]+/, (numeral) => numeral.toLowerCase()) : step
}
