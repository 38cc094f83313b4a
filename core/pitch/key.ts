import { firstOf, itemAt } from '../lists'
import { bad, good, type Result } from '../result'
import { modulo, noteName, parseNote, pitchClass, type Note } from './note'

export type Mode = 'major' | 'minor'

export interface Key {
  tonic: Note
  mode: Mode
}

/** `C` for C major, `Am` for A minor. */
export const keyName = (key: Key): string => noteName(key.tonic) + (key.mode === 'minor' ? 'm' : '')

/** Position of a major key on the circle of fifths (sharps positive) by letter: F C G D A E B. */
const FIFTHS_OF_LETTER = [0, 2, 4, -1, 1, 3, 5] as const

/**
 * Signature of a key: sharps positive, flats negative. A minor key has the signature of its
 * relative major.
 */
export const signatureOf = (key: Key): number =>
  itemAt(FIFTHS_OF_LETTER, key.tonic.letter) + 7 * key.tonic.alter - (key.mode === 'minor' ? 3 : 0)

/**
 * Reads `C`, `Bb major`, `F#m`, `A minor`. Keys up to seven sharps or flats.
 */
export function parseKey(text: string): Result<Key> {
  const help = 'a key of up to seven sharps or flats: C, Bb, F#m, A minor'
  const inEnglish = germanKey(text.trim())
  if (inEnglish !== null) return parseKey(inEnglish)
  const match = /^([A-G][b#♭♯]{0,2})\s*(major|maj|minor|min|m|-)?$/i.exec(text.trim())
  const tonic = match && parseNote(firstOf(itemAt(match, 1)).toUpperCase() + itemAt(match, 1).slice(1))
  if (!match || !tonic || !tonic.ok)
    return bad({ code: 'bad-key', message: `"${text}" is not a key.`, accepted: help, text })
  const word = match[2] ?? ''
  const mode: Mode = word === 'm' || word === '-' || /^min/i.test(word) ? 'minor' : 'major'
  const key: Key = { tonic: tonic.value, mode }
  if (Math.abs(signatureOf(key)) > 7)
    return bad({
      code: 'bad-key',
      message: `${keyName(key)} would need ${Math.abs(signatureOf(key))} ${signatureOf(key) > 0 ? 'sharps' : 'flats'}.`,
      accepted: help,
      text,
    })
  return good(key)
}

/**
 * `h-moll`, `Es-Dur`, `Fis`, `Hm` as `B minor`, `Eb major`, ...: H is B, and before Dur and Moll B
 * is B flat; null where a key is not written so.
 */
function germanKey(text: string): string | null {
  const read = /^([A-H])(is|es|s)?[\s-]*(dur|moll|m)?$/i.exec(text)
  if (!read) return null
  const [, letter, sign, mode = ''] = read as unknown as [string, string, string | undefined, string?]
  const isGerman = sign !== undefined || /^(dur|moll)$/i.test(mode) || (/^h$/i.test(letter) && mode !== '')
  if (!isGerman || (sign?.toLowerCase() === 's' && !/^[ae]$/i.test(letter))) return null
  const flat = /^b$/i.test(letter) && sign === undefined && mode.toLowerCase() !== 'm'
  const name = /^h$/i.test(letter) ? 'B' : letter.toUpperCase()
  const altered = { is: '#', es: 'b', s: 'b' }[sign?.toLowerCase() ?? ''] ?? ''
  return `${name}${flat ? 'b' : altered}${/^m/i.test(mode) ? ' minor' : ' major'}`
}

/**
 * Semitones above the tonic. The minor scale is the natural one; its raised 6th and 7th are named
 * where they are used.
 */
export const scaleSteps = (mode: Mode): readonly number[] =>
  mode === 'major' ? [0, 2, 4, 5, 7, 9, 11] : [0, 2, 3, 5, 7, 8, 10]

/** The seven notes of a key, from the tonic. */
export const scaleNotes = (key: Key): Note[] =>
  scaleSteps(key.mode).map((semitones, step) => {
    const letter = modulo(key.tonic.letter + step, 7)
    const natural = pitchClass({ letter, alter: 0 })
    return { letter, alter: modulo(pitchClass(key.tonic) + semitones - natural + 6, 12) - 6 }
  })

/** Sounds of a key as a set of pitch classes. */
export const scaleSounds = (key: Key): Set<number> => new Set(scaleNotes(key).map(pitchClass))
