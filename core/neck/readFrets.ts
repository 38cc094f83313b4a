import { bad, good, type Result } from '../result'
import type { Frets } from './instrument'

/** The highest fret that can be written. */
export const MOST_FRET = 36

/**
 * Frets as players write them, lowest string first: `x 3 2 0 1 0`, `x32010`, `x-10-9-10-11-x`,
 * `(x)32010`. Without spaces each sign is one string.
 * @param strings how many strings the instrument has, at least 1
 */
export function readFrets(text: string, strings: number): Result<Frets> {
  const plain = text.trim().replace(/[()]/g, '')
  const accepted = `a fret or x for each of the ${strings} strings, lowest first: ${strings === 6 ? 'x 3 2 0 1 0 or x32010' : 'x 3 2 0 …'}`
  const refuse = (message: string) => bad({ code: 'bad-frets', message, accepted, text })
  const words = /[\s,\-–]/.test(plain) ? plain.split(/[\s,\-–]+/).filter(Boolean) : [...plain]
  const wrong = words.find((word) => !/^(x|m|\d{1,2})$/i.test(word))
  if (wrong !== undefined) return refuse(`“${wrong}” is no fret.`)
  if (words.length !== strings)
    return refuse(
      `That is ${words.length} ${words.length === 1 ? 'string' : 'strings'}; the instrument has ${strings}.`,
    )
  const frets = words.map((word) => (/^\d/.test(word) ? Number(word) : null))
  const high = frets.find((fret) => fret !== null && fret > MOST_FRET)
  return high === undefined ? good(frets) : refuse(`Fret ${high} is beyond any neck.`)
}
