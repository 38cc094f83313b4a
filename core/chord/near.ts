import { firstOf, itemAt } from '../lists'
import { parseSymbol } from './parseChord'

/** Endings that players write most, as they are spelled here. Common practice, no source. */
const USUAL = [
  '',
  'm',
  '7',
  'maj7',
  'm7',
  '6',
  'm6',
  '9',
  'maj9',
  'm9',
  '11',
  'm11',
  '13',
  'maj13',
  'm13',
  '6/9',
  'm7b5',
  'dim',
  'dim7',
  'aug',
  '5',
  'sus2',
  'sus4',
  '7sus4',
  '9sus4',
  '13sus4',
  'add9',
  'm(add9)',
  '7b9',
  '7#9',
  '7b5',
  '7#5',
  '7#11',
  '7b13',
  '7alt',
  '13b9',
  'maj7#11',
  'maj7#5',
  'm(maj7)',
  'm(maj9)',
  'aug7',
]
/** Syllables that name notes in other tongues, from C. */
export const SYLLABLES: Readonly<Record<string, string>> = {
  do: 'C',
  ut: 'C',
  re: 'D',
  ré: 'D',
  mi: 'E',
  fa: 'F',
  sol: 'G',
  so: 'G',
  la: 'A',
  si: 'B',
  ti: 'B',
}
/** Changes of a letter an ending may need to be offered. */
const MOST_CHANGES = 3
const OFFERED = 3

const capital = (text: string): string => (text === '' ? '' : firstOf(text).toUpperCase() + text.slice(1))

/**
 * A symbol with small roots as it is meant: `gsus` is Gsus, `am7/g` is Am7/G. The text itself where
 * it can be read, or where capitals do not help.
 */
export function withCapitals(text: string): string {
  if (!/^[a-g]/.test(text) || parseSymbol(text).ok) return text
  const read = [
    capital(text),
    capital(text).replace(/\/([a-g])/, (_, bass: string) => `/${bass.toUpperCase()}`),
  ].find((one) => parseSymbol(one).ok)
  return read ?? text
}

/**
 * Notes as they are named in Dutch and German: `Bes7` and `Es` are Bb7 and Eb, `Fis` is F#; the
 * bass too.
 */
export const inEnglish = (symbol: string): string =>
  symbol.replace(
    /(^|\/)([A-H])(is|es|s)(?![a-z]*us)/g,
    (whole, before: string, letter: string, ending: string) => {
      if (ending === 's' && letter !== 'A' && letter !== 'E') return whole
      return `${before}${letter === 'H' ? 'B' : letter}${ending === 'is' ? '#' : 'b'}`
    },
  )

/**
 * Chord symbols that a word which cannot be read may have been meant as, the nearest first; at most
 * three.
 */
export function nearSymbols(text: string): string[] {
  if (text.length > 20) return []
  const found: { symbol: string; changes: number }[] = []
  const offer = (symbol: string, changes: number) => {
    if (symbol !== text && parseSymbol(symbol).ok && !found.some((one) => one.symbol === symbol))
      found.push({ symbol, changes })
  }
  offer(withCapitals(text), 0)
  offer(inEnglish(text), 0)
  const syllable = /^(do|ut|r[eé]|mi|fa|sol?|la|si|ti)(.*)$/i.exec(text)
  if (syllable) offer(SYLLABLES[itemAt(syllable, 1).toLowerCase()]! + itemAt(syllable, 2), 0)
  if (/^[Hh]/.test(text)) {
    offer(`B${text.slice(1)}`, 0)
    offer(`Bb${text.slice(1)}`, 1)
  }
  // Signs that were doubled or slipped in before the root.
  const inside = text.search(/[A-G]/)
  if (inside > 0) offer(text.slice(inside), inside)
  const root = /^[A-Ga-g](?:bb|##|b|#|x)?/.exec(text)
  if (root) {
    const [ending, bass = ''] = text.slice(root[0].length).split(/(?=\/[A-Ga-g][b#]?$)/)
    for (const usual of USUAL) {
      const changes = distance(ending!.toLowerCase(), usual.toLowerCase())
      if (changes <= Math.min(MOST_CHANGES, Math.max(1, ending!.length - 1)))
        offer(
          capital(root[0]) + usual + bass.toUpperCase().replace(/B$/, (flat, at) => (at > 1 ? 'b' : flat)),
          changes + 0.5,
        )
    }
    // What can be read from the beginning on.
    for (let end = text.length - 1; end > root[0].length; end -= 1)
      offer(capital(text.slice(0, end)), text.length - end + 0.25)
  }
  return found
    .sort((a, b) => a.changes - b.changes)
    .slice(0, OFFERED)
    .map(({ symbol }) => symbol)
}

/** Letters put in, taken out or changed on the way from one word to another (Levenshtein 1966). */
function distance(from: string, to: string): number {
  let row = Array.from({ length: to.length + 1 }, (_, at) => at)
  for (let at = 1; at <= from.length; at += 1) {
    const next = [at]
    for (let other = 1; other <= to.length; other += 1)
      next.push(
        Math.min(
          itemAt(row, other) + 1,
          itemAt(next, other - 1) + 1,
          itemAt(row, other - 1) + (from[at - 1] === to[other - 1] ? 0 : 1),
        ),
      )
    row = next
  }
  return itemAt(row, to.length)
}
