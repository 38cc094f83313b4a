import { itemAt } from '../lists'
import { parseChord } from '../chord/parseChord'
import { parseKey, scaleNotes, signatureOf, type Key, type Mode } from '../pitch/key'
import { noteName } from '../pitch/note'
import { chordOfNumeral } from './importNumerals'
import { all, attribute, childrenOf, find, numberIn, textIn, textOf, type XmlNode } from './xmlNodes'

/** Keys and chord symbols as MusicXML says them. */

const KEYS = [
  'C',
  'G',
  'D',
  'A',
  'E',
  'B',
  'F#',
  'C#',
  'F',
  'Bb',
  'Eb',
  'Ab',
  'Db',
  'Gb',
  'Cb',
  'Am',
  'Em',
  'Bm',
  'F#m',
  'C#m',
  'G#m',
  'D#m',
  'A#m',
  'Dm',
  'Gm',
  'Cm',
  'Fm',
  'Bbm',
  'Ebm',
  'Abm',
]
export const keyIn = (inside: readonly XmlNode[]): Key | null =>
  keyOfFifths(numberIn(inside, 'fifths'), textIn(inside, 'mode') === 'minor' ? 'minor' : 'major')

function keyOfFifths(fifths: number | null, mode: Mode): Key | null {
  for (const name of KEYS) {
    const key = parseKey(name)
    if (key.ok && key.value.mode === mode && signatureOf(key.value) === fifths) return key.value
  }
  return null
}

/** Kinds of MusicXML as suffixes of chord symbols. */
// prettier-ignore
const SUFFIXES: Readonly<Record<string, string>> = {
  major: '', minor: 'm', augmented: 'aug', diminished: 'dim', dominant: '7', 'major-seventh': 'maj7', 'minor-seventh': 'm7', 'diminished-seventh': 'dim7', 'augmented-seventh': '7#5',
  'half-diminished': 'm7b5', 'major-minor': 'm(maj7)', 'major-sixth': '6', 'minor-sixth': 'm6', 'dominant-ninth': '9', 'major-ninth': 'maj9', 'minor-ninth': 'm9', 'dominant-11th': '11',
  'major-11th': 'maj11', 'minor-11th': 'm11', 'dominant-13th': '13', 'major-13th': 'maj13', 'minor-13th': 'm13', 'suspended-second': 'sus2', 'suspended-fourth': 'sus4', power: '5',
}

/**
 * Kinds that name a chord by its place in a key, as the root they give sounds (MusicXML 4.0,
 * `kind-value`).
 */
const BY_PLACE: Readonly<Record<string, { suffix: string; said: string }>> = {
  Neapolitan: { suffix: '', said: 'a Neapolitan chord was read as the major triad' },
  Italian: { suffix: '7no5', said: 'an Italian sixth was read as a seventh chord without its fifth' },
  French: { suffix: '7b5', said: 'a French sixth was read as a seventh chord with a lowered fifth' },
  German: { suffix: '7', said: 'a German sixth was read as a seventh chord' },
  Tristan: { suffix: 'm7b5', said: 'a Tristan chord was read as a half-diminished chord' },
  pedal: { suffix: '5', said: 'a pedal point was read as its root and fifth' },
}

/**
 * The root of a harmony that gives a step of a key in place of one: `numeral`, or `function` as
 * scores of the version before have it.
 */
function rootByPlace(inside: readonly XmlNode[], key: Key): string | null {
  const numeral = childrenOf(find(inside, 'numeral') ?? {})
  const home = numeralKey(numeral) ?? key
  const step = numberIn(numeral, 'numeral-root')
  if (step !== null && step >= 1 && step <= 7) {
    const note = itemAt(scaleNotes(home), step - 1)
    return noteName({ ...note, alter: note.alter + Math.round(numberIn(numeral, 'numeral-alter') ?? 0) })
  }
  const read = chordOfNumeral(textIn(inside, 'function').trim(), key)
  const chord = read.ok ? parseChord(read.value) : null
  return chord?.ok ? noteName(chord.value.root) : null
}

function numeralKey(numeral: readonly XmlNode[]): Key | null {
  const given = childrenOf(find(numeral, 'numeral-key') ?? {})
  const fifths = numberIn(given, 'numeral-fifths')
  return fifths === null
    ? null
    : keyOfFifths(fifths, /minor/.test(textIn(given, 'numeral-mode')) ? 'minor' : 'major')
}

/**
 * The chord symbol of a harmony: as its text says where that holds its degrees, else by its kind
 * and degrees. @param say told what was taken for something else
 */
export function chordIn(inside: readonly XmlNode[], key: Key, say: (what: string) => void): string | null {
  const note = (name: 'root' | 'bass'): string | null => {
    const children = childrenOf(find(inside, name) ?? {})
    const step = textIn(children, `${name}-step`)
    const alter = Math.round(numberIn(children, `${name}-alter`) ?? 0)
    return /^[A-G]$/.test(step)
      ? step + (alter < 0 ? 'b'.repeat(Math.min(2, -alter)) : '#'.repeat(Math.min(2, alter)))
      : null
  }
  const kind = find(inside, 'kind')
  if (textOf(kind) === 'none') return 'N.C.'
  const root = note('root') ?? rootByPlace(inside, key)
  if (!root) {
    say('a chord symbol without a root was left out')
    return null
  }
  const place = BY_PLACE[textOf(kind)]
  if (place) say(place.said)
  const bass = note('bass')
  const onBass = bass && bass !== root ? `/${bass}` : ''
  const degrees = all(inside, 'degree').map((one) => {
    const children = childrenOf(one)
    const alter = Math.round(numberIn(children, 'degree-alter') ?? 0)
    return { value: numberIn(children, 'degree-value') ?? 0, alter, type: textIn(children, 'degree-type') }
  })
  const said = attribute(kind, 'text')
  if (said !== null) {
    const whole = parseChord(`${root}${said}`)
    const has = ({ value, alter }: (typeof degrees)[number]) =>
      whole.ok &&
      whole.value.tones.some(
        ({ degree }) =>
          Number(degree.replace(/\D/g, '')) % 7 === value % 7 &&
          (alter === 0 || degree.startsWith(alter < 0 ? 'b' : '#') || value === 7),
      )
    if (whole.ok && degrees.every((degree) => degree.type === 'subtract' || has(degree)))
      return whole.value.bass ? `${root}${said}` : `${root}${said}${onBass}`
  }
  // A seventh over a suspended chord is a part of its name; it counts from a dominant chord.
  const suspended = textOf(kind).startsWith('suspended')
  const seventh = suspended ? degrees.find(({ value, type }) => value === 7 && type === 'add') : undefined
  const seventhNamed = seventh && seventh.alter > 0 ? 'maj7' : '7'
  const base = `${root}${seventh ? seventhNamed : ''}${place?.suffix ?? SUFFIXES[textOf(kind)] ?? ''}`
  const signed = ({ value, alter }: (typeof degrees)[number]) => `${accidentalOf(alter)}${value}`
  const inBrackets = degrees
    .filter((one) => one.type !== 'subtract' && one.value > 0 && one !== seventh)
    .map((degree) => (degree.alter === 0 && !/7|9|11|13/.test(base) ? `add${degree.value}` : signed(degree)))
  const without = degrees.filter(({ type }) => type === 'subtract').map(({ value }) => `no${value}`)
  const bracketed = inBrackets.length > 0 ? `(${inBrackets.join(',')})` : ''
  const added = inBrackets.some((one) => one.startsWith('add')) ? inBrackets.join('') : bracketed
  const full = `${base}${added}${without.join('')}${onBass}`
  // A symbol the grammar does not have goes on as it is, and is told with its bar.
  return full
}

function accidentalOf(alter: number): string {
  if (alter < 0) return 'b'
  return alter > 0 ? '#' : ''
}
