import { parseChart } from '../chart/parse'
import { withCapitals } from '../chord/near'
import { parseSymbol } from '../chord/parse'
import { keyName, parseKey, type Key } from '../pitch/key'
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

/** The chart text as it comes together. */
class ChartDraft {
  private readonly head: string[] = []
  private readonly body: string[] = []
  private section = ''
  private barless: { line: number; text: string } | null = null
  readonly warnings: ImportWarning[] = []
  key: Key | null = null

  /** @param syllables notes are called Do, Re, Mi */
  constructor(readonly syllables = false) {}

  /** The key of numerals that name none: as asked, else A minor where the home chord is written small, else C major; which is said. */
  beginIn(asked: Key | null, lines: readonly string[]): void {
    const written = lines.some((line) => /^\s*key\s*:/i.test(line))
    if (written) return
    const minor = lines.some((line) => /(?:^|[\s|–—-])i(?:[\s|–—-]|$)/.test(line))
    this.key = asked ?? { tonic: { letter: minor ? 5 : 0, alter: 0 }, mode: minor ? 'minor' : 'major' }
    if (asked) this.head.push(`key: ${keyName(asked)}`)
    else
      this.warn(
        1,
        1,
        '',
        `No key is given: read in ${minor ? 'A minor, since the home chord is written small' : 'C major'}. Choose another above, or write key: Bb in the first line.`,
      )
  }

  /** Beats in a bar, as the head says. */
  get beats(): number {
    const now = [...this.head, ...this.body].findLast((line) => line.startsWith('meter:'))
    return Number(/^meter: (\d+)/.exec(now ?? '')?.[1] ?? 4)
  }

  warn(line: number, column: number, text: string, message: string): void {
    this.warnings.push({ line, column, text, message })
  }

  private said = new Set<string>()
  /** What was taken for something else than its letters say, once each. */
  saysOf({ text, column }: Word, read: string, line: number): void {
    const word = bare(text)
    const once = (what: string, message: string) => {
      if (!this.said.has(what)) {
        this.said.add(what)
        this.warn(line, column, text, message)
      }
    }
    if (this.syllables) once('syllables', 'Do, Re, Mi … were read as C, D, E …')
    else if (/^H/.test(word) && /^B/.test(read)) once('H', '"H" was read as B, and "B" as B, not as B flat.')
    else if (/^Do(?:[^a-z]|$)/.test(word))
      once('Do', `"${word}" was read as D diminished, not as the note Do (C).`)
  }

  set(name: string, value: string, line: number): void {
    const setting = `${name}: ${value.trim()}`
    const problem = parseChart(setting).problems[0]
    if (problem) return this.warn(line, 1, value.trim(), `${problem.message} Accepted: ${problem.accepted}.`)
    if (name === 'key') {
      const key = parseKey(value)
      if (key.ok) this.key = key.value
    }
    // Key and metre may change on the way; everything else is of the whole tune.
    const onTheWay = this.body.length > 0 && (name === 'key' || name === 'meter')
    ;(onTheWay ? this.body : this.head).push(setting)
  }

  private comes: string[] = []
  /** A sign of the form: Segno and Coda stand before the next bar, the others behind the last. */
  mark(word: string): void {
    if (/^(?:segno|coda)$/i.test(word)) this.comes.push(word)
    else {
      const at = this.body.findLastIndex((line) => line.includes('|'))
      if (at >= 0) this.body[at] = this.body[at]!.replace(/\s*(:?\|(?:x\d+)?)\s*$/, ` ${word} $1`)
    }
  }

  open(section: string): void {
    const name = section.trim().slice(0, 24).trim()
    this.section = name === '' ? '' : `[${name}] `
  }

  bars(text: string): void {
    const marked =
      this.comes.length === 0 ? text : text.replace(/^(\|:?\d?[\d,-]*\.?)\s*/, `$1 ${this.comes.join(' ')} `)
    this.body.push(this.section + marked)
    this.section = ''
    this.comes = []
  }

  /** Chords without bar lines: each becomes a bar, which is said once. */
  chords(symbols: readonly string[], line: number, text: string, times = 1): void {
    if (symbols.length === 0) return
    this.barless ??= { line, text }
    this.bars(repeated(`| ${symbols.join(' | ')} |`, times))
  }

  finish(): ImportedChart {
    if (this.barless)
      this.warn(
        this.barless.line,
        1,
        this.barless.text,
        'There are no bar lines here: each chord became a bar.',
      )
    const made = parseChart([...this.head, ...this.body].join('\n'))
    for (const { line, text, message, accepted } of made.problems)
      this.warn(1, 1, text, `In line ${line} of the chart it makes: ${message} Accepted: ${accepted}.`)
    this.warnings.sort((a, b) => a.line - b.line || a.column - b.column)
    return { text: [...this.head, ...this.body].join('\n'), warnings: this.warnings }
  }
}

const SETTINGS: Readonly<Record<string, string>> = {
  title: 'title',
  t: 'title',
  key: 'key',
  tempo: 'tempo',
  bpm: 'tempo',
  time: 'meter',
  meter: 'meter',
  metre: 'meter',
  capo: 'capo',
}
const SETTING = /^\s*([A-Za-z]+)\s*:\s*(.+)$/
/** A heading of a part: `[Verse 2]`, `Chorus:`, `A:`. */
const HEADING =
  /^\s*(?:\[([^\]|]+)\]|((?:Intro|Verse|Chorus|Bridge|Refrain|Outro|Coda|Interlude|Ending|[A-H])(?:\s*\d+)?)\s*:)\s*(.*)$/i
/** Signs that stand between chords without meaning anything themselves. */
const SEPARATOR = /^(?:[-–—,→>·;…*+~=]|\.{2,}|-+>|=+>|\/\/)+$/
/** A line, or a bar of it, played so often: behind the chords. */
const SO_OFTEN = /^[([]?(?:[x×]\s?(\d{1,2})|(\d{1,2})\s?[x×])[)\]]?\.?$/i
const MOST_TIMES = 16

/** Bars played so often, with repeat signs where they have none of their own. */
function repeated(bars: string, times: number): string {
  if (times < 2 || /:/.test(bars)) return bars
  return `${bars.replace(/^\|/, '|:').replace(/\s*\|$/, ' :|')}${times === 2 ? '' : `x${times}`}`
}

/** A word without what is written around a chord: brackets, stars, quotes, and the comma or dots behind it. */
function bare(word: string): string {
  let text = word.replace(/^["'“”„*<]+|["'“”*>]+$/g, '').replace(/(?:…|\.{2,}|[,;:!?*])+$/, '')
  for (const [open, close] of [
    ['(', ')'],
    ['[', ']'],
    ['{', '}'],
  ] as const) {
    const [opens, closes] = [text.startsWith(open), text.endsWith(close)]
    if (opens && closes) text = text.slice(1, -1)
    else if (opens && !text.includes(close)) text = text.slice(1)
    else if (closes && !text.includes(open)) text = text.slice(0, -1)
  }
  return text
}

const SYLLABLE = /^(Do|Ut|R[eé]|Mi|Fa|Sol|La|Si)(?![a-z]*[n-z][a-z]*$)(.*)$/i
const SYLLABLE_NOTES: Readonly<Record<string, string>> = {
  do: 'C',
  ut: 'C',
  re: 'D',
  ré: 'D',
  mi: 'E',
  fa: 'F',
  sol: 'G',
  la: 'A',
  si: 'B',
}
const asLetters = (word: string): string | null => {
  const syllable = SYLLABLE.exec(word)
  if (!syllable) return null
  const [suffix, bass] = syllable[2]!.split('/')
  const low =
    bass === undefined
      ? ''
      : `/${SYLLABLE_NOTES[bass.toLowerCase().replace(/[#b]$/, '')] ?? bass}${/[#b]$/.exec(bass)?.[0] ?? ''}`
  const symbol = `${SYLLABLE_NOTES[syllable[1]!.toLowerCase()]!}${suffix}${low}`
  return parseSymbol(symbol).ok ? symbol : null
}

/** The chords are called Do, Re, Mi: some word can be nothing else, and most of a line are such names. */
function namesNotesBySyllables(lines: readonly string[]): boolean {
  return lines.some((line) => {
    const words = wordsOf(line.replace(/[|]/g, ' '))
      .map(({ text }) => bare(text))
      .filter((text) => text !== '' && !SEPARATOR.test(text))
    const named = words.filter((word) => asLetters(word) !== null)
    return (
      named.length * 2 > words.length && named.some((word) => /^[A-Z]/.test(word) && !parseSymbol(word).ok)
    )
  })
}
const MARKS = /^(?:[.%/]|N\.?C\.?)$/i

interface Word {
  text: string
  column: number
}
const wordsOf = (line: string, offset = 0): Word[] =>
  [...line.matchAll(/(?:\([^)]{0,60}\)|[^\s(])+|\(/g)].map((match) => ({
    text: match[0],
    column: match.index + 1 + offset,
  }))

function readTextLine(line: string, number: number, numerals: boolean, draft: ChartDraft): void {
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
  const words = piecesOf(
    wordsOf(rest, offset).filter((word) => !SEPARATOR.test(word.text)),
    numerals,
  )
  const [times, body] = timesAtEnd(words)
  const signs = body.filter((word) => !isSlash(word.text))
  const chords = signs.map((word) => readWord(word, numerals, draft))
  const read = chords.filter((one) => one !== null)
  // A line is a line of chords when most of it is; otherwise it is words under or between chords.
  if (read.length * 2 <= signs.length) {
    const capitals = signs.map(({ text }) => withCapitals(bare(text)))
    if (!numerals && signs.length > 1 && capitals.every((text) => parseSymbol(text).ok)) {
      draft.warn(number, offset + 1, rest.trim(), 'Small letters were read as capitals; minor is written m.')
      return draft.chords(capitals, number, rest.trim(), times)
    }
    const steps = words.filter(
      ({ text }) => chordOfNumeral(bare(text), { tonic: { letter: 0, alter: 0 }, mode: 'major' }).ok,
    ).length
    if (!numerals && steps * 2 > words.length)
      return draft.warn(
        number,
        offset + 1,
        rest.trim(),
        'This line has no chords and was left out. It looks like steps of a key: choose Numerals above.',
      )
    return draft.warn(
      number,
      offset + 1,
      rest.trim(),
      /\[[A-G][^\]]*\]/.test(rest) && !numerals
        ? 'This line has no chords outside brackets and was left out. Chords in brackets are ChordPro: choose it above.'
        : 'This line has no chords and was left out.',
    )
  }
  signs.forEach((word, at) => {
    if (chords[at] === null)
      draft.warn(
        number,
        word.column,
        word.text,
        `"${word.text}" is no ${numerals ? 'numeral' : 'chord'} and was left out.`,
      )
    else draft.saysOf(word, chords[at]!, number)
  })
  const bars = heldBars(body, signs, chords, draft.beats)
  if (bars) return draft.bars(repeated(`| ${bars.join(' | ')} |`, times))
  draft.chords(read, number, rest.trim(), times)
}

const isSlash = (text: string): boolean => text === '/'

/** "x2" behind a line, and what stands before it. */
function timesAtEnd(words: readonly Word[]): [number, readonly Word[]] {
  const found = SO_OFTEN.exec(words.at(-1)?.text ?? '')
  const times = Number(found?.[1] ?? found?.[2] ?? 1)
  return found && times >= 1 && times <= MOST_TIMES ? [times, words.slice(0, -1)] : [1, words]
}

/** Bars where slashes count the beats each chord is held ("C / / / G / / /"); null where they only stand between chords. */
function heldBars(
  words: readonly Word[],
  signs: readonly Word[],
  chords: readonly (string | null)[],
  beats: number,
): string[] | null {
  const counts = words.some(
    (word, at) => isSlash(word.text) && (at + 1 === words.length || isSlash(words[at + 1]!.text)),
  )
  if (!counts || words.length % beats !== 0 || isSlash(words[0]!.text)) return null
  const beat = (word: Word) => (isSlash(word.text) ? '.' : (chords[signs.indexOf(word)] ?? 'N.C.'))
  return Array.from({ length: words.length / beats }, (_, bar) =>
    words
      .slice(bar * beats, (bar + 1) * beats)
      .map(beat)
      .join(' '),
  )
}

/** Words that are several chords with signs between them, in pieces: "Am-F-C", "Em/C/G/D", "C->F". */
function piecesOf(words: readonly Word[], numerals: boolean): Word[] {
  if (numerals) return [...words]
  return words.flatMap((word): Word[] => {
    if (parseSymbol(bare(word.text)).ok && (word.text.match(/\//g) ?? []).length < 2) return [word]
    for (const sign of [/->|=>|→|–|—|,|;|…|\.{2,}/, /-/, /\//]) {
      const parts = word.text.split(sign).filter((part) => part !== '')
      if (parts.length < 2 || !parts.every((part) => parseSymbol(bare(part)).ok)) continue
      let at = 0
      return parts.map((text) => {
        const found = word.text.indexOf(text, at)
        at = found + text.length
        return { text, column: word.column + found }
      })
    }
    return [word]
  })
}

/** A word as a chord symbol or a mark of the chart text, or null. */
function readWord(word: Word, numerals: boolean, draft: ChartDraft): string | null {
  const { text } = word
  if (MARKS.test(text)) return text
  // Parts of a beat, as the chart text has them.
  if (/^[^_]*(?:_[^_]*)+$/.test(text) && /[^_]/.test(text)) {
    const parts = text
      .split('_')
      .map((part) => (part === '' ? '' : readWord({ ...word, text: part }, numerals, draft)))
    return parts.includes(null) ? null : parts.join('_')
  }
  if (numerals) {
    const chord = chordOfNumeral(bare(text), draft.key ?? { tonic: { letter: 0, alter: 0 }, mode: 'major' })
    return chord.ok ? chord.value : null
  }
  if (draft.syllables) {
    const letters = asLetters(bare(text))
    if (letters) return letters
  }
  for (const symbol of [bare(text), text, bare(text).replace(/^H/, 'B')])
    if (parseSymbol(symbol).ok) return symbol
  return null
}

/** A bar line with its repeat dots, how often it is played, and an ending behind it: kept as they are, for the chart text has them too. */
const BARLINE = /(?::\|{1,2}(?!:)(?:\s?x\d{1,2}(?=[\s|]|$))?|:?\|{1,2}\]?:?)(?:\s*\d(?:[,-]\d)*\.(?!\d))?/g
const FORM_WORDS = /(?:Segno|To Coda|Coda|Fine|D\.[CS]\.(?: al (?:Fine|Coda))?)(?=\s|$)/gi

function readBars(line: string, number: number, offset: number, numerals: boolean, draft: ChartDraft): void {
  let out = ''
  let read = 0
  let times = 1
  let last = 0
  const take = (piece: string, at: number) => {
    const marks = [...piece.matchAll(FORM_WORDS)]
    // The words go, their letters stay as blanks, so that columns stay true.
    const chords = marks.reduce(
      (text, mark) =>
        text.slice(0, mark.index) + ' '.repeat(mark[0].length) + text.slice(mark.index + mark[0].length),
      piece,
    )
    const all = piecesOf(
      wordsOf(chords, at).filter((word) => !SEPARATOR.test(word.text)),
      numerals,
    )
    // "x2" behind the last bar says how often the line is played and is no bar.
    if (all.length === 1 && SO_OFTEN.test(all[0]!.text) && read > 0) {
      times = timesAtEnd(all)[0]
      if (times > 1) return
    }
    // Slashes count beats where there is one sign for each; otherwise they only stand between the chords.
    const words =
      all.length === draft.beats
        ? all
        : all.filter(
            (word, place) =>
              !(
                isSlash(word.text) &&
                place > 0 &&
                place < all.length - 1 &&
                !isSlash(all[place - 1]!.text) &&
                !isSlash(all[place + 1]!.text)
              ),
          )
    const countsBeats = words.some(({ text }) => text === '.' || text.includes('_'))
    const symbols = words.flatMap((word) => {
      const chord = readWord(word, numerals, draft)
      if (chord === null)
        draft.warn(
          number,
          word.column,
          word.text,
          `"${word.text}" is no ${numerals ? 'numeral' : 'chord'} and was left out.`,
        )
      else draft.saysOf(word, chord, number)
      if (chord !== null) return [chord]
      // Where words are beats, one that cannot be read is a beat of silence: those behind it keep their places.
      return countsBeats ? ['N.C.'] : []
    })
    // A bar whose chords could not be read stays, silent: the bars behind it keep their places.
    const bar = symbols.length > 0 ? symbols.join(' ') : words.length > 0 ? 'N.C.' : ''
    if (bar === '') return
    read += 1
    const [before, behind] = [
      marks.filter((mark) => /^(?:segno|coda)$/i.test(mark[0])),
      marks.filter((mark) => !/^(?:segno|coda)$/i.test(mark[0])),
    ]
    out += `${out === '' ? '|' : ''} ${[...before.map((mark) => mark[0]), bar, ...behind.map((mark) => mark[0])].join(' ')} `
  }
  for (const sign of line.matchAll(BARLINE)) {
    take(line.slice(last, sign.index), offset + last)
    const opens = /:$/.test(sign[0]) || /\d\.$/.test(sign[0])
    // Bar lines with nothing between them stay two.
    if (out !== '' && !out.endsWith(' ')) out += ' '
    if (out !== '' || opens)
      out += sign[0]
        .replace(/\s+(?=x)/, '')
        .replace(/\s+/g, ' ')
        .replace(/\|\|/, '|')
    else out = '|'
    last = sign.index + sign[0].length
  }
  take(line.slice(last), offset + last)
  if (read > 0)
    draft.bars(repeated(/\|(?:\s?x\d+)?\s*$/.test(out) ? out.trim() : `${out.trimEnd()} |`, times))
}

const DIRECTIVE = /^\s*\{\s*([A-Za-z_]+)\s*(?:[:\s]\s*(.*?))?\s*\}\s*$/
/** The name of a part: `label="A"`, or what stands behind the colon. */
const LABEL = /^label\s*=\s*"([^"]*)"$/
const PART = /^(?:start_of_|so)(chorus|verse|bridge|grid|c|v|b|g)$/
const PART_NAMES: Readonly<Record<string, string>> = {
  chorus: 'Chorus',
  c: 'Chorus',
  verse: 'Verse',
  v: 'Verse',
  bridge: 'Bridge',
  b: 'Bridge',
}

/** A label as it is given to a part; null where there is none. */
const labelOf = (value: string | undefined): string | null => LABEL.exec(value ?? '')?.[1] || null

/** Parts of a song that are written in another notation: what they hold is left out, and said. */
const ELSEWHERE = /^(?:start_of_|so)(tab|t|abc|ly|svg|textblock)$/
const ELSEWHERE_NAMES: Readonly<Record<string, string>> = {
  tab: 'Tablature',
  t: 'Tablature',
  abc: 'ABC notation',
  ly: 'LilyPond notation',
  svg: 'A picture',
  textblock: 'A block of text',
}
const COMMENT = /^(?:comment|c|comment_italic|ci|comment_box|cb|highlight)$/
const MARK = /^(?:Segno|To Coda|Coda|Fine|D\.[CS]\.(?: al (?:Fine|Coda))?)$/i

/** ChordPro (the open format of songs with chords in brackets), line by line; blocks of other notations are passed over. */
function readSong(lines: readonly string[], draft: ChartDraft): void {
  let elsewhere = false
  lines.forEach((line, at) => {
    const name = DIRECTIVE.exec(line)?.[1]?.toLowerCase() ?? ''
    const other = ELSEWHERE.exec(name)
    if (other) {
      elsewhere = true
      draft.warn(
        at + 1,
        1,
        line.trim(),
        `${ELSEWHERE_NAMES[other[1]!]} has no place in a chart and was left out.`,
      )
    } else if (elsewhere) elsewhere = !/^(?:end_of_|eo)/.test(name)
    else readChordPro(line, at + 1, draft)
  })
}

/** A line of a grid in the signs of a chart text: `|1` begins an ending, `~` parts a beat, and a `.` in it is held. */
const gridInChartText = (line: string): string =>
  line.replace(/(\|:?)(\d(?:[,-]\d)*)>?(?=\s)/g, '$1$2.').replace(/[^\s|]*~[^\s|]*/g, (cell) =>
    cell
      .split('~')
      .map((part) => (part === '.' ? '' : part))
      .join('_'),
  )

/** ChordPro (the open format of songs with chords in brackets): directives, `[C]` over words, and grids with bar lines. */
function readChordPro(line: string, number: number, draft: ChartDraft): void {
  if (line.trim() === '' || /^\s*#/.test(line)) return
  const directive = DIRECTIVE.exec(line)
  if (directive) {
    const name = directive[1]!.toLowerCase()
    const part = PART.exec(name)
    const setting = name === 'x_pickup' ? 'pickup' : SETTINGS[name]
    if (setting && directive[2]) draft.set(setting, directive[2], number)
    else if (COMMENT.test(name) && MARK.test(directive[2] ?? '')) draft.mark(directive[2]!)
    else if (COMMENT.test(name))
      draft.warn(number, 1, line.trim(), 'A chart has no comments: this one was left out.')
    else if (part && labelOf(directive[2])) draft.open(labelOf(directive[2])!)
    else if (part && PART_NAMES[part[1]!]) draft.open(directive[2] || PART_NAMES[part[1]!]!)
    else if (!part && !/^(?:end_of_|eo)/.test(name))
      draft.warn(number, 1, line.trim(), `The directive "${name}" has no place in a chart and was left out.`)
    return
  }
  if (line.includes('|')) return readBars(gridInChartText(line), number, 0, false, draft)
  const chords: string[] = []
  for (const match of line.matchAll(/\[([^\]]{0,60})\]/g)) {
    const symbol = match[1]!.replace(/^\*/, '').trim()
    if (parseSymbol(symbol).ok) chords.push(symbol)
    else if (symbol !== '')
      draft.warn(number, match.index + 1, match[0], `"${symbol}" is no chord and was left out.`)
  }
  if (chords.length === 0 && !line.includes('['))
    draft.warn(number, 1, line.trim(), 'This line has no chords and was left out.')
  draft.chords(chords, number, line.trim())
}
