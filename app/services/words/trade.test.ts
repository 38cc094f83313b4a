import { readFileSync } from 'node:fs'
import { explainedAt, TRADE_WORDS, tradeWordsIn } from './trade'

test('every word has a row in the glossary', () => {
  const rows = readFileSync('docs/glossary.md', 'utf8')
  for (const word of TRADE_WORDS) expect(rows).toContain(`\n| ${word} |`)
})
test('a sentence in pieces: each word once, plurals and capitals too, and nothing is lost', () => {
  const said = 'Tritone substitution: the guide tones stay, as in a shell; two shells.'
  const pieces = tradeWordsIn(said)
  expect(pieces.map(({ text }) => text).join('')).toBe(said)
  expect(pieces.flatMap(({ word }) => word ?? [])).toEqual(['tritone substitution', 'guide tones', 'shell'])
  expect(explainedAt('line cliché')).toBe('/guide/glossary#line-clich')
  expect(tradeWordsIn('no such words')).toEqual([{ text: 'no such words', word: null }])
})
