import { itemAt } from '../lists'
import { parseSymbol } from '../chord/parseChord'
import type { Key } from '../pitch/key'
import { ChartDraft, type ImportedChart } from './chartDraft'
import { namesNotesBySyllables, readTextLine, SEPARATOR, SETTING, lineWordsOf } from './chartLines'
import { readSong } from './importChordPro'
import { isSignLine, isSymbolLine, readTab, tabAt } from './importTab'
import type { PastedFormat } from './names'
import { chordOfNumeral } from './importNumerals'
import { isSungLine } from './sungLine'

/** The longest content taken, in letters. */
export const LONGEST_IMPORT = 100_000

export interface ImportAsked {
  /** The key numerals are read in where the text names none. */
  key?: Key | null
}

/**
 * A chart text from what a player has: lines of chords with dashes, slashes, arrows, spaces or bar
 * lines, chords over lyrics, ChordPro, or numerals with a key. Nothing is dropped or guessed in
 * silence: what did not become a chord, and what was taken for something, is listed with its place.
 */
export function importChart(
  content: string,
  format: PastedFormat,
  { key = null }: ImportAsked = {},
): ImportedChart {
  const lines = content.split(/\r\n|\r|\n/)
  const draft = new ChartDraft((format === 'text' || format === 'tab') && namesNotesBySyllables(lines))
  if (format === 'numerals') draft.beginIn(key, lines)
  if (format === 'chordpro') readSong(lines, draft)
  else readText(lines, format === 'numerals', draft)
  return draft.finish()
}

/** Line by line; tablature in it with the symbols and signs that stand over it. */
function readText(lines: readonly string[], numerals: boolean, draft: ChartDraft): void {
  let above: number[] = []
  const asText = (at: number) => readTextLine(itemAt(lines, at), at + 1, numerals, draft)
  for (let at = 0; at < lines.length; at += 1) {
    const strings = numerals ? 0 : tabAt(lines, at)
    const line = itemAt(lines, at)
    if (strings > 0) {
      const symbols = above.findLast((one) => isSymbolLine(itemAt(lines, one)))
      const signs = above.findLast((one) => isSignLine(itemAt(lines, one)))
      above.filter((one) => one !== symbols && one !== signs).forEach(asText)
      readTab(
        {
          strings: lines.slice(at, at + strings),
          symbols: symbols === undefined ? null : itemAt(lines, symbols),
          signs: signs === undefined ? null : itemAt(lines, signs),
          line: at + 1,
        },
        draft,
      )
      at += strings - 1
      above = []
    } else if (!numerals && (isSignLine(line) || isSymbolLine(line))) {
      // Two lines at most stand above a tablature: of more the first are chords by themselves.
      if (above.length === 2) asText(above.shift()!)
      above.push(at)
    } else {
      above.forEach(asText)
      above = []
      asText(at)
    }
  }
  above.forEach(asText)
}

/**
 * Chords in brackets over words, or directives in braces, are ChordPro; steps of a key are
 * numerals; anything else is chords.
 */
export function guessFormat(content: string): PastedFormat {
  const lines = content.split(/\r\n|\r|\n/)
  if (lines.some((_, at) => tabAt(lines, at) > 0)) return 'tab'
  if (lines.some((line) => /^\s*\{\s*[A-Za-z_]+\s*(?::.*)?\}\s*$/.test(line))) return 'chordpro'
  const sung = lines.filter(isSungLine).length
  // A line in brackets among others is read as what it is in any case.
  if (sung > 0 && sung * 2 >= lines.filter((line) => isSymbolLine(line)).length) return 'chordpro'
  const words = lines
    .filter((line) => !SETTING.test(line))
    .flatMap((line) =>
      lineWordsOf(line.replace(/[|:[\]]/g, ' ')).filter((word) => !SEPARATOR.test(word.text)),
    )
  const C: Key = { tonic: { letter: 0, alter: 0 }, mode: 'major' }
  const [numerals, chords] = [
    words.filter(({ text }) => chordOfNumeral(text, C).ok).length,
    words.filter(({ text }) => parseSymbol(text).ok).length,
  ]
  return numerals > chords && numerals * 2 > words.length ? 'numerals' : 'text'
}
