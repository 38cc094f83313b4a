import { itemAt } from '../../lists'
import { analyse } from '../../analysis/analyse'
import { FUNCTIONS } from '../../analysis/chordReading'
import { parseChart } from '../../chart/parseChart'
import { keyName } from '../../pitch/key'
import { choicesOf, drawnBelow, shuffled, type Asks } from './question'

/** What a chord does where it stands: its job, or its numeral. */
export const chordJob: Asks = ({ chords, voicings, key, seed }) => {
  if (chords.length === 0) return null
  const text = `key: ${keyName(key)}\n| ${chords.map(({ canonical }) => canonical).join(' | ')} |`
  const chart = parseChart(text)
  const [byCase, capitals] = [analyse(chart, 'case'), analyse(chart, 'capitals')]
  const at = drawnBelow(seed, chords.length, 7)
  const reading = byCase.readings[at]
  if (!reading) return null
  const chord = itemAt(chords, at)
  const accepts = [
    ...new Set([
      reading.function,
      reading.roman,
      itemAt(capitals.readings, at).roman,
      ...reading.alternatives.map(({ roman }) => roman),
    ]),
  ]
  return {
    kind: 'function',
    item: `${chord.canonical} in ${keyName(key)}`,
    ask: `What does ${chord.canonical} do ${placeOf(
      chords.map(({ canonical }) => canonical),
      at,
    )}in ${keyName(key)}?`,
    accepts,
    choices: choicesOf(reading.function, shuffled(FUNCTIONS, seed + 1), seed),
    by: 'choice',
    explain: `${reading.roman}, ${reading.function}: ${reading.reason}`,
    shows: voicings[at] ? [voicings[at]] : [],
    answers: [],
    moves: [],
    sounds: voicings[at] ? [voicings[at].midis] : [],
  }
}

/** A chord by its neighbours. */
const placeOf = (symbols: readonly string[], at: number): string => {
  const [before, after] = [symbols[at - 1], symbols[at + 1]]
  if (before && after) return `between ${before} and ${after} `
  if (before) return `after ${before} `
  return after ? `before ${after} ` : ''
}
