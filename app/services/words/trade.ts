import { itemAt } from '../../../core/lists'

/**
 * Words of the trade that reasons and names use, as they stand in the glossary; longer ones before
 * those that are part of them.
 */
export const TRADE_WORDS: readonly string[] = [
  'tritone substitution',
  'secondary dominant',
  'passing diminished',
  'borrowed chord',
  'upper structure',
  'voice leading',
  'chord melody',
  'guide tones',
  'line cliché',
  'slash chord',
  'chord tone',
  'related ii',
  'turnaround',
  'inversion',
  'backdoor',
  'rootless',
  'tension',
  'comping',
  'cluster',
  'planing',
  'quartal',
  'drop 2',
  'drop 3',
  'pedal',
  'shell',
]

/** Where a word is explained. */
export const explainedAt = (word: string): string =>
  `/guide/glossary#${word.replace(/[^a-z0-9 ]/g, '').replaceAll(' ', '-')}`

/** A sentence in pieces: plain text, and words of the trade, each the first time it comes. */
export function tradeWordsIn(text: string): { text: string; word: string | null }[] {
  const known = new RegExp(`\\b(${TRADE_WORDS.join('|')})(?=s?\\b)`, 'gi')
  const said = new Set<string>()
  const pieces: { text: string; word: string | null }[] = []
  let from = 0
  for (const match of text.matchAll(known)) {
    const word = itemAt(match, 1).toLowerCase()
    if (said.has(word)) continue
    said.add(word)
    if (match.index > from) pieces.push({ text: text.slice(from, match.index), word: null })
    pieces.push({ text: itemAt(match, 1), word })
    from = match.index + itemAt(match, 1).length
  }
  if (from < text.length) pieces.push({ text: text.slice(from), word: null })
  return pieces
}
