import { itemAt } from '../lists'
import { parseSymbol } from '../chord/parseChord'
import { MARKS, type ChartMark } from './chart'
import { remarkOf } from './remark'

/** A piece of chart text with its place (line and column from 1). */
export type Token = { text: string; line: number; column: number } & (
  | { kind: 'setting'; /** Lower-case name. */ name: string }
  | { kind: 'section' }
  | {
      kind: 'barline'
      opens: boolean
      /** Times the passage is played in all, 0 for a plain line. */ played: number
    }
  | { kind: 'ending'; passes: number[] }
  | { kind: 'mark'; mark: ChartMark }
  | { kind: 'remark'; remark: string }
  | { kind: 'cell' }
)

const SETTING = /^(\s*)([A-Za-z]{2,})\s*:(?!\|)\s?(.*)$/
/**
 * Bar lines of any weight; dots make a repeat sign, `x3` behind it says how often the passage is
 * played.
 */
const BARLINE = /^(:?)(?:\|{1,2}\]?)(:?)|^::/
const TIMES = /^\s{0,3}\(?(?:x\s?(\d{1,2})|(\d{1,2})\s?x)\)?(?=[\s|]|$)/i
/** An ending stands where a bar begins: `1.`, `1,2.`, `1-3.` */
const ENDING = /^(\d(?:\s?[,-]\s?\d)*)\.(?!\d)/
/**
 * Names and brackets longer than this are not looked for: reading takes time in proportion to the
 * text, whatever stands in it.
 */
const SECTION = /^\[\s{0,40}([^\]|\s][^\]|]{0,200})\]/
const MARK = /^(?:segno|𝄋|to\s+(?:coda|𝄌)|coda|𝄌|fine|d\.\s?[cs]\.(?:\s+al\s+(?:fine|coda))?)(?=[\s|]|$)/iu
/**
 * Words for the players stand before the chords of a bar, in quotes. A chord in quotes is a chord.
 */
const REMARK = /^"([^"|]{1,200})"(?=[\s|]|$)/
/** A chord symbol runs to the next space or bar line; spaces inside its brackets belong to it. */
const CELL = /^(?:\([^)|\n]{0,60}\)|:(?!\|)|[^\s|([:])+|^[([][^\s|([]*/

const METRE_WORDS: Record<string, string> = { metre: 'meter', time: 'meter', bpm: 'tempo' }

/**
 * Splits chart text into settings, section marks, bar lines, endings, marks and the cells between
 * them. A line end closes a bar.
 */
export function* readTokens(text: string): Generator<Token> {
  let line = 0
  for (const content of text.split(/\r\n|\r|\n/)) {
    line += 1
    const setting = SETTING.exec(content)
    if (setting) {
      const name = itemAt(setting, 2).toLowerCase()
      yield {
        kind: 'setting',
        name: METRE_WORDS[name] ?? name,
        text: itemAt(setting, 3),
        line,
        column: content.length - itemAt(setting, 3).length + 1,
      }
      continue
    }
    yield* readMusicLine(content, line)
    yield { kind: 'barline', text: '\n', opens: false, played: 0, line, column: content.length + 1 }
  }
}

function* readMusicLine(content: string, line: number): Generator<Token> {
  let at = 0
  /** No sign of the bar has come yet. */
  let fresh = true
  while (at < content.length) {
    const rest = content.slice(at)
    const place = { line, column: at + 1 }
    const space = /^\s+/.exec(rest)
    if (space) {
      at += space[0].length
      continue
    }
    const barline = BARLINE.exec(rest)
    if (barline) {
      const closes = barline[1] === ':' || barline[0] === '::'
      const opens = barline[2] === ':' || barline[0] === '::'
      const times = closes && !opens ? TIMES.exec(rest.slice(barline[0].length)) : null
      const length = barline[0].length + (times?.[0].length ?? 0)
      yield {
        kind: 'barline',
        text: rest.slice(0, length),
        opens,
        played: closes ? Number(times?.[1] ?? times?.[2] ?? 2) : 0,
        ...place,
      }
      at += length
      fresh = true
      continue
    }
    const ending = fresh ? ENDING.exec(rest) : null
    if (ending) {
      yield { kind: 'ending', text: ending[0], passes: passesOf(itemAt(ending, 1)), ...place }
      at += ending[0].length
      continue
    }
    const quoted = fresh ? REMARK.exec(rest) : null
    const remark = quoted && remarkOf(itemAt(quoted, 1))
    if (remark && !parseSymbol(remark).ok) {
      yield { kind: 'remark', text: quoted[0], remark, ...place }
      at += quoted[0].length
      continue
    }
    const section = SECTION.exec(rest)
    if (section) {
      yield { kind: 'section', text: itemAt(section, 1).trim(), ...place }
      at += section[0].length
      fresh = true
      continue
    }
    const mark = MARK.exec(rest)
    if (mark) {
      yield { kind: 'mark', text: mark[0], mark: markNamed(mark[0]), ...place }
      at += mark[0].length
      continue
    }
    const cell = CELL.exec(rest)!
    yield { kind: 'cell', text: cell[0], ...place }
    at += cell[0].length
    fresh = false
  }
}

/** `1`, `1,2`, `1-3` as the passes meant. */
function passesOf(text: string): number[] {
  const passes = text
    .replace(/\s/g, '')
    .split(',')
    .flatMap((part) => {
      const [from, to = from] = part.split('-').map(Number) as [number, number?]
      return Array.from({ length: Math.max(0, to - from + 1) }, (_, at) => from + at)
    })
  return [...new Set(passes)].sort((a, b) => a - b)
}

function markNamed(text: string): ChartMark {
  const plain = text
    .toLowerCase()
    .replace('𝄋', 'segno')
    .replace('𝄌', 'coda')
    .replace(/\s+/g, ' ')
    .replace(/^d\. ?/, 'd.')
  return MARKS.find((mark) => mark.toLowerCase() === plain)!
}
