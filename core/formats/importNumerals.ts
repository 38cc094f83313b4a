import { itemAt } from '../lists'
import { kindOf } from '../analysis/kind'
import { parseChord } from '../chord/parseChord'
import { scaleNotes, type Key } from '../pitch/key'
import { noteName, plainAccidentals, type Note } from '../pitch/note'
import { bad, good, type Result } from '../result'

const ROMAN = ['I', 'II', 'III', 'IV', 'V', 'VI', 'VII']
const ROMAN_NUMERAL = /^([b#]?)(VII|VI|IV|V|III|II|I|vii|vi|iv|v|iii|ii|i)(?![ivIV])(.*)$/
const NUMBER = /^([b#]?)([1-7])(.*)$/
const HELP = 'a numeral such as ii7, V7/ii, bVII or IIm7, or a number such as 1, 6-, 57'

/**
 * The chord a Roman numeral (either school) or a Nashville number stands for in a key. Numerals
 * count on the major scale of the tonic (bVI in A minor is F); in a minor key a plain III, VI or
 * VII with a major chord is the one of the natural minor, as players write it.
 */
export function chordOfNumeral(text: string, key: Key): Result<string> {
  const numeral = plainAccidentals(text.trim()).replace(/[º˚]/g, '°').replace(/[Øϕ]/g, 'ø')
  const unread = (message: string) => bad({ code: 'bad-numeral', message, accepted: HELP, at: 0, text })
  const slash = numeral.lastIndexOf('/')
  const target = slash > 0 ? numeral.slice(slash + 1) : ''
  if (slash > 0 && target !== '9') {
    // After a slash stands a step to be approached (V7/ii) or, on Nashville numbers, a bass (1/3).
    const number = NUMBER.exec(numeral.slice(0, slash))
    if (number && /^[b#]?[1-7]$/.test(target)) {
      const upper = chordOfNumeral(numeral.slice(0, slash), key)
      return upper.ok
        ? good(
            `${upper.value}/${noteName(stepOf(target.replace(/\d/, ''), Number(target.replace(/\D/g, '')), key, false))}`,
          )
        : upper
    }
    const goal = ROMAN_NUMERAL.exec(target)
    if (!goal) return unread(`"${target}" after the slash is not a step of the key.`)
    const tonic = stepOf(
      itemAt(goal, 1),
      ROMAN.indexOf(itemAt(goal, 2).toUpperCase()) + 1,
      key,
      goal[2] === itemAt(goal, 2).toUpperCase(),
    )
    return chordOfNumeral(numeral.slice(0, slash), { tonic, mode: 'major' })
  }
  const roman = ROMAN_NUMERAL.exec(numeral)
  const number = roman ? null : NUMBER.exec(numeral)
  const found = roman ?? number
  if (!found) return unread(`"${text}" is not a numeral.`)
  const [, accidental, step, suffix] = found as unknown as [string, string, string, string]
  const small = roman !== null && step === step.toLowerCase()
  const body = small ? minorSuffix(suffix) : suffix
  const degree = roman ? ROMAN.indexOf(step.toUpperCase()) + 1 : Number(step)
  const plain = parseChord(`C${body}`)
  if (!plain.ok) return unread(`"${suffix}" behind the numeral could not be read.`)
  const major = kindOf(plain.value) === 'major'
  const chord = parseChord(`${noteName(stepOf(accidental, degree, key, major))}${body}`)
  return chord.ok ? good(chord.value.canonical) : unread(`"${text}" could not be read.`)
}

/** What a small numeral's suffix means: `ii7` is m7, `vii°7` and `viiø7` say their own quality. */
const minorSuffix = (suffix: string): string => {
  if (/^(°|o|dim|ø|h|m(?!aj)|-)/.test(suffix)) return suffix
  if (/^(maj|Δ|M)/.test(suffix)) return `m(${suffix.replace(/^Δ7?/, 'maj7')})`
  return `m${suffix}`
}

const ALTERS: Readonly<Record<string, number>> = { b: -1, '#': 1 }
const NATURAL_MINOR_STEPS = [3, 6, 7]

function stepOf(accidental: string, step: number, key: Key, major: boolean): Note {
  const scale =
    key.mode === 'minor' && major && accidental === '' && NATURAL_MINOR_STEPS.includes(step)
      ? scaleNotes(key)
      : scaleNotes({ tonic: key.tonic, mode: 'major' })
  const note = itemAt(scale, step - 1)
  return { letter: note.letter, alter: note.alter + (ALTERS[accidental] ?? 0) }
}
