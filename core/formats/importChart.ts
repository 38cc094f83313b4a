import { parseSymbol } from '../chord/parse'
import type { Key } from '../pitch/key'
import { ChartDraft, type ImportedChart } from './chartDraft'
import { namesNotesBySyllables, readTextLine, SEPARATOR, SETTING, wordsOf } from './chartLines'
import { readSong } from './importChordPro'
import { chordOfNumeral } from './numerals'

/** What players have on paper and in files. */
export const IMPORT_FORMATS = ['text', 'chordpro', 'numerals'] as const
export type ImportFormat = (typeof IMPORT_FORMATS)[number]

/** The longest content taken, in letters. */
export const LONGEST_IMPORT = 100_000

export interface ImportAsked {
  /** The key numerals are read in where the text names none. */
  key?: Key | null
}

/**
 * A chart text from what a player has: lines of chords with dashes, slashes, arrows, spaces or bar lines, chords over lyrics, ChordPro, or
 * numerals with a key. Nothing is dropped or guessed in silence: what did not become a chord, and what was taken for something, is listed with its place.
 */
export function importChart(
  content: string,
  format: ImportFormat,
  { key = null }: ImportAsked = {},
): ImportedChart {
  const lines = content.split(/\r\n|\r|\n/)
  const draft = new ChartDraft(format === 'text' && namesNotesBySyllables(lines))
  if (format === 'numerals') draft.beginIn(key, lines)
  if (format === 'chordpro') readSong(lines, draft)
  else lines.forEach((line, at) => readTextLine(line, at + 1, format === 'numerals', draft))
  return draft.finish()
}

/** Chords in brackets over words, or directives in braces, are ChordPro; steps of a key are numerals; anything else is chords. */
export function guessFormat(content: string): ImportFormat {
  const lines = content.split(/\r\n|\r|\n/)
  const inBrackets = (line: string) =>
    [...line.matchAll(/\[([^\]|]{1,20})\]/g)].filter(
      (match) => parseSymbol(match[1]!.replace(/^\*/, '').trim()).ok,
    )
  if (lines.some((line) => /^\s*\{\s*[A-Za-z_]+\s*(?::.*)?\}\s*$/.test(line))) return 'chordpro'
  if (
    lines.some((line) => {
      const chords = inBrackets(line)
      return chords.length > 1 || chords.some((one) => /^\w/.test(line.slice(one.index + one[0].length)))
    })
  )
    return 'chordpro'
  const words = lines
    .filter((line) => !SETTING.test(line))
    .flatMap((line) => wordsOf(line.replace(/[|:[\]]/g, ' ')).filter((word) => !SEPARATOR.test(word.text)))
  const C: Key = { tonic: { letter: 0, alter: 0 }, mode: 'major' }
  const [numerals, chords] = [
    words.filter(({ text }) => chordOfNumeral(text, C).ok).length,
    words.filter(({ text }) => parseSymbol(text).ok).length,
  ]
  return numerals > chords && numerals * 2 > words.length ? 'numerals' : 'text'
}
