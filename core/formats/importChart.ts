import { parseChart } from '../chart/parse'
import { parseSymbol } from '../chord/parse'
import { parseKey, type Key } from '../pitch/key'
import { chordOfNumeral } from './numerals'

/** Something in what was brought in that did not become part of the chart. Line and column from 1. */
export interface ImportWarning {
  line: number
  column: number
  text: string
  message: string
}

export interface ImportedChart {
  text: string
  warnings: ImportWarning[]
}

/** What players have on paper and in files. */
export const IMPORT_FORMATS = ['text', 'chordpro', 'numerals'] as const
export type ImportFormat = (typeof IMPORT_FORMATS)[number]

/** The longest content taken, in letters. */
export const LONGEST_IMPORT = 200_000

/**
 * A chart text from what a player has: lines of chords with dashes, spaces or bar lines, chords over lyrics, ChordPro, or
 * numerals with a key. Nothing is dropped in silence: what did not become a chord is listed with its place.
 */
export function importChart(content: string, format: ImportFormat): ImportedChart {
  const draft = new Draft()
  const lines = content.split(/\r\n|\r|\n/)
  if (format === 'chordpro') lines.forEach((line, at) => readChordPro(line, at + 1, draft))
  else lines.forEach((line, at) => readTextLine(line, at + 1, format === 'numerals', draft))
  return draft.finish()
}

/** The chart text as it comes together. */
class Draft {
  private readonly head: string[] = []
  private readonly body: string[] = []
  private section = ''
  private barless: { line: number; text: string } | null = null
  readonly warnings: ImportWarning[] = []
  key: Key | null = null

  warn(line: number, column: number, text: string, message: string): void {
    this.warnings.push({ line, column, text, message })
  }

  set(name: string, value: string, line: number): void {
    const setting = `${name}: ${value.trim()}`
    const problem = parseChart(setting).problems[0]
    if (problem) return this.warn(line, 1, value.trim(), `${problem.message} Accepted: ${problem.accepted}.`)
    if (name === 'key') { const key = parseKey(value); if (key.ok) this.key = key.value }
    this.head.push(setting)
  }

  open(section: string): void {
    const name = section.trim().slice(0, 24).trim()
    this.section = name === '' ? '' : `[${name}] `
  }

  bars(text: string): void {
    this.body.push(this.section + text)
    this.section = ''
  }

  /** Chords without bar lines: each becomes a bar, which is said once. */
  chords(symbols: readonly string[], line: number, text: string): void {
    if (symbols.length === 0) return
    this.barless ??= { line, text }
    this.bars(`| ${symbols.join(' | ')} |`)
  }

  finish(): ImportedChart {
    if (this.barless) this.warn(this.barless.line, 1, this.barless.text, 'There are no bar lines here: each chord became a bar.')
    this.warnings.sort((a, b) => a.line - b.line || a.column - b.column)
    return { text: [...this.head, ...this.body].join('\n'), warnings: this.warnings }
  }
}

const SETTINGS: Readonly<Record<string, string>> = { title: 'title', t: 'title', key: 'key', tempo: 'tempo', bpm: 'tempo', time: 'meter', meter: 'meter', metre: 'meter' }
const SETTING = /^\s*([A-Za-z]+)\s*:\s*(.+)$/
/** A heading of a part: `[Verse 2]`, `Chorus:`, `A:`. */
const HEADING = /^\s*(?:\[([^\]|]+)\]|((?:Intro|Verse|Chorus|Bridge|Refrain|Outro|Coda|Interlude|Ending|[A-H])(?:\s*\d+)?)\s*:)\s*(.*)$/i
/** Signs that stand between chords without meaning anything themselves. */
const SEPARATOR = /^(?:-|–|—|,|→|>|·|;)$/
const MARKS = /^(?:[.%/]|N\.?C\.?)$/i

interface Word { text: string; column: number }
const wordsOf = (line: string, offset = 0): Word[] =>
  [...line.matchAll(/(?:\([^)]*\)|[^\s(])+|\(/g)].map((match) => ({ text: match[0], column: match.index + 1 + offset }))

function readTextLine(line: string, number: number, numerals: boolean, draft: Draft): void {
  if (line.trim() === '') return
  const heading = HEADING.exec(line)
  const setting = heading ? null : SETTING.exec(line)
  const known = setting && SETTINGS[setting[1]!.toLowerCase()]
  if (known) return draft.set(known, setting[2]!, number)
  if (heading) draft.open(heading[1] ?? heading[2]!)
  const rest = heading ? heading[3]! : line
  const offset = line.length - rest.length
  if (rest.trim() === '') return

  if (rest.includes('|')) return readBars(rest, number, offset, numerals, draft)
  const words = wordsOf(rest, offset).filter((word) => !SEPARATOR.test(word.text))
  const chords = words.map((word) => readWord(word.text, numerals, draft))
  const read = chords.filter((one) => one !== null)
  // A line is a line of chords when most of it is; otherwise it is words under or between chords.
  if (read.length * 2 <= words.length) return draft.warn(number, offset + 1, rest.trim(), 'This line has no chords and was left out.')
  words.forEach((word, at) => {
    if (chords[at] === null) draft.warn(number, word.column, word.text, `"${word.text}" is no ${numerals ? 'numeral' : 'chord'} and was left out.`)
  })
  draft.chords(read, number, rest.trim())
}

/** A word as a chord symbol or a mark of the chart text, or null. */
function readWord(word: string, numerals: boolean, draft: Draft): string | null {
  if (MARKS.test(word)) return word
  if (numerals) {
    const chord = chordOfNumeral(word, draft.key ?? { tonic: { letter: 0, alter: 0 }, mode: 'major' })
    return chord.ok ? chord.value : null
  }
  return parseSymbol(word).ok ? word : null
}

/** A bar line with its repeat dots, how often it is played, and an ending behind it: kept as they are, for the chart text has them too. */
const BARLINE = /(?::\|{1,2}(?!:)(?:\s?x\d{1,2}(?=[\s|]|$))?|:?\|{1,2}\]?:?)(?:\s*\d(?:[,-]\d)*\.(?!\d))?/g
const FORM_WORDS = /(?:Segno|To Coda|Coda|Fine|D\.[CS]\.(?: al (?:Fine|Coda))?)(?=\s|$)/gi

function readBars(line: string, number: number, offset: number, numerals: boolean, draft: Draft): void {
  let out = ''
  let read = 0
  let last = 0
  const take = (piece: string, at: number) => {
    const marks = [...piece.matchAll(FORM_WORDS)]
    // The words go, their letters stay as blanks, so that columns stay true.
    const chords = marks.reduce((text, mark) => text.slice(0, mark.index) + ' '.repeat(mark[0].length) + text.slice(mark.index + mark[0].length), piece)
    const words = wordsOf(chords, at).filter((word) => !SEPARATOR.test(word.text))
    const symbols = words.flatMap((word) => {
      const chord = readWord(word.text, numerals, draft)
      if (chord === null) draft.warn(number, word.column, word.text, `"${word.text}" is no ${numerals ? 'numeral' : 'chord'} and was left out.`)
      return chord === null ? [] : [chord]
    })
    // A bar whose chords could not be read stays, silent: the bars behind it keep their places.
    const bar = symbols.length > 0 ? symbols.join(' ') : words.length > 0 ? 'N.C.' : ''
    if (bar === '') return
    read += 1
    const [before, behind] = [marks.filter((mark) => /^(?:segno|coda)$/i.test(mark[0])), marks.filter((mark) => !/^(?:segno|coda)$/i.test(mark[0]))]
    out += `${out === '' ? '|' : ''} ${[...before.map((mark) => mark[0]), bar, ...behind.map((mark) => mark[0])].join(' ')} `
  }
  for (const sign of line.matchAll(BARLINE)) {
    take(line.slice(last, sign.index), offset + last)
    const opens = /:$/.test(sign[0]) || /\d\.$/.test(sign[0])
    // Bar lines with nothing between them stay two.
    if (out !== '' && !out.endsWith(' ')) out += ' '
    if (out !== '' || opens) out += sign[0].replace(/\s+(?=x)/, '').replace(/\s+/g, ' ').replace(/\|\|/, '|')
    else out = '|'
    last = sign.index + sign[0].length
  }
  take(line.slice(last), offset + last)
  if (read > 0) draft.bars(/\|(?:\s?x\d+)?\s*$/.test(out) ? out.trim() : `${out.trimEnd()} |`)
}

const DIRECTIVE = /^\s*\{\s*([A-Za-z_]+)\s*(?::\s*(.*?))?\s*\}\s*$/
const PART = /^(?:start_of_|so)(chorus|verse|bridge|grid|c|v|b|g)$/
const PART_NAMES: Readonly<Record<string, string>> = { chorus: 'Chorus', c: 'Chorus', verse: 'Verse', v: 'Verse', bridge: 'Bridge', b: 'Bridge' }

/** ChordPro (the open format of songs with chords in brackets): directives, `[C]` over words, and grids with bar lines. */
function readChordPro(line: string, number: number, draft: Draft): void {
  if (line.trim() === '' || /^\s*#/.test(line)) return
  const directive = DIRECTIVE.exec(line)
  if (directive) {
    const name = directive[1]!.toLowerCase()
    const part = PART.exec(name)
    if (SETTINGS[name] && directive[2]) draft.set(SETTINGS[name], directive[2], number)
    else if (part && PART_NAMES[part[1]!]) draft.open(directive[2] || PART_NAMES[part[1]!]!)
    else if (!part && !/^(?:end_of_|eo)/.test(name)) draft.warn(number, 1, line.trim(), `The directive "${name}" has no place in a chart and was left out.`)
    return
  }
  if (line.includes('|')) return readBars(line, number, 0, false, draft)
  const chords: string[] = []
  for (const match of line.matchAll(/\[([^\]]*)\]/g)) {
    const symbol = match[1]!.replace(/^\*/, '').trim()
    if (parseSymbol(symbol).ok) chords.push(symbol)
    else if (symbol !== '') draft.warn(number, match.index + 1, match[0], `"${symbol}" is no chord and was left out.`)
  }
  if (chords.length === 0 && !line.includes('[')) draft.warn(number, 1, line.trim(), 'This line has no chords and was left out.')
  draft.chords(chords, number, line.trim())
}
