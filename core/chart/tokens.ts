/** A piece of chart text with its place (line and column from 1). */
export interface Token {
  kind: 'setting' | 'section' | 'barline' | 'unsupported' | 'cell'
  text: string
  line: number
  column: number
  /** Lower-case name of a setting. */
  name?: string
}

const SETTING = /^(\s*)([A-Za-z]{2,})\s*:\s?(.*)$/
/** Bar lines of any weight; dots make a repeat sign, which this reader names rather than misreads. */
const BARLINE = /^(?:\|:|:\|\|?:?|:\|)|^\|{1,2}\]?/
const SECTION = /^\[([^\]|]{1,24})\]/
/** A chord symbol runs to the next space or bar line; spaces inside its brackets belong to it. */
const CELL = /^(?:\([^)|\n]*\)|[^\s|([])+|^[([]/

const METRE_WORDS: Record<string, string> = { metre: 'meter', time: 'meter', bpm: 'tempo' }

/** Splits chart text into settings, section marks, bar lines and the cells between them. A line end closes a bar. */
export function* readTokens(text: string): Generator<Token> {
  let line = 0
  for (const content of text.split(/\r\n|\r|\n/)) {
    line += 1
    const setting = SETTING.exec(content)
    if (setting) {
      const name = setting[2]!.toLowerCase()
      yield { kind: 'setting', name: METRE_WORDS[name] ?? name, text: setting[3]!, line, column: content.length - setting[3]!.length + 1 }
      continue
    }
    yield* readMusicLine(content, line)
    yield { kind: 'barline', text: '\n', line, column: content.length + 1 }
  }
}

function* readMusicLine(content: string, line: number): Generator<Token> {
  let at = 0
  while (at < content.length) {
    const rest = content.slice(at)
    const column = at + 1
    const space = /^\s+/.exec(rest)
    if (space) { at += space[0].length; continue }
    const barline = BARLINE.exec(rest)
    if (barline) {
      yield { kind: barline[0].includes(':') ? 'unsupported' : 'barline', text: barline[0], line, column }
      at += barline[0].length
      continue
    }
    const section = SECTION.exec(rest)
    if (section) {
      yield { kind: 'section', text: section[1]!.trim(), line, column }
      at += section[0].length
      continue
    }
    const cell = CELL.exec(rest)!
    yield { kind: 'cell', text: cell[0], line, column }
    at += cell[0].length
  }
}
