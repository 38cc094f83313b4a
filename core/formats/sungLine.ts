import { itemAt } from '../lists'
import { parseSymbol } from '../chord/parseChord'
import type { ChartDraft } from './chartDraft'

const IN_BRACKETS = /\[([^\]|]{1,20})\]/g

/**
 * Chords in brackets over or inside words, as ChordPro has them: several, or one right before a
 * word. `[A]` alone is a heading.
 */
export function isSungLine(line: string): boolean {
  const chords = [...line.matchAll(IN_BRACKETS)].filter(
    (match) => parseSymbol(itemAt(match, 1).replace(/^\*/, '').trim()).ok,
  )
  return chords.length > 1 || chords.some((one) => /^\w/.test(line.slice(one.index + one[0].length)))
}

/** Chords in brackets over words: each chord becomes a bar, with the words up to the next. */
export function readSungLine(line: string, number: number, draft: ChartDraft): void {
  const chords: string[] = []
  const words: string[] = []
  let from = 0
  const say = (text: string) => {
    const at = Math.max(0, chords.length - 1)
    words[at] = (words[at] ?? '') + text
  }
  for (const match of line.matchAll(/\[([^\]]{0,60})\]/g)) {
    const before = line.slice(from, match.index)
    from = match.index + match[0].length
    const symbol = itemAt(match, 1).replace(/^\*/, '').trim()
    const isChord = parseSymbol(symbol).ok
    // A chord inside a word parts its syllables.
    const parts = isChord && /\p{L}$/u.test(before) && /^\p{L}/u.test(line.slice(from))
    say(parts ? `${before}-` : before)
    if (isChord) chords.push(symbol)
    else if (symbol !== '')
      draft.warn(number, match.index + 1, match[0], `"${symbol}" is no chord and was left out.`)
  }
  say(line.slice(from))
  draft.chords(chords, number, line.trim())
  const sung = words.map(
    (text, at) => text.trim() === '' || draft.sing(text, chords.length > 0 ? at : Infinity),
  )
  if (chords.length === 0 && !line.includes('[') && sung.includes(false))
    draft.warn(number, 1, line.trim(), 'These words stand before the first chord and were left out.')
}
