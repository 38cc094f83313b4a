import { itemAt } from '../lists'
import { slotKey, type Bar, type Chart } from '../chart/chart'
import { parseChart } from '../chart/parseChart'
import { printRemark, remarkOf } from '../chart/remark'
import { inEnglish } from '../chord/near'
import { parseSymbol } from '../chord/parseChord'
import { lyricsInOrder, lyricAt, type Lyric } from '../melody/lyrics'
import { keyName, parseKey, type Key } from '../pitch/key'

/**
 * Something in what was brought in that did not become part of the chart. Line and column from 1.
 */
export interface ImportWarning {
  line: number
  column: number
  text: string
  message: string
}

export interface ImportedChart {
  text: string
  /** Words that stood over or under the chords. */
  lyrics: Lyric[]
  /**
   * Grips the file draws, by chord: frets from the lowest string, as they sound with the tune's
   * capo.
   */
  grips: { symbol: string; frets: (number | null)[] }[]
  warnings: ImportWarning[]
}

/**
 * Where a chord of the draft stands: a line of it, a bar of that line, a sign of that bar, each
 * from 0.
 */
interface Anchor {
  line: number
  bar: number
  sign: number
}
/** A chord of a line of bars with its column in what was brought in, from 1. */
export interface ChordOver {
  column: number
  bar: number
  sign: number
}

export interface DraftWord {
  text: string
  column: number
}

const OPENS = '"\'“”„*<'
const CLOSES = '"\'“”*>'
const STOPS = '…,;:!?*'

/** Letter by letter: a search by pattern takes the square of a long word. */
function withoutQuotes(word: string): string {
  let [from, to] = [0, word.length]
  while (from < to && OPENS.includes(itemAt(word, from))) from += 1
  while (to > from && CLOSES.includes(itemAt(word, to - 1))) to -= 1
  return word.slice(from, to)
}

/**
 * Without the signs at its end, and the dots where there are several: one dot belongs to the word.
 */
function withoutStops(word: string): string {
  let to = word.length
  for (;;) {
    if (to > 0 && STOPS.includes(itemAt(word, to - 1))) to -= 1
    else if (to > 1 && word[to - 1] === '.' && word[to - 2] === '.')
      while (to > 0 && word[to - 1] === '.') to -= 1
    else return word.slice(0, to)
  }
}

/**
 * A word without what is written around a chord: brackets, stars, quotes, and the comma or dots
 * behind it.
 */
export function bare(word: string): string {
  let text = withoutStops(withoutQuotes(word))
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

/** Bars played so often, with repeat signs where they have none of their own. */
export function repeated(bars: string, times: number): string {
  if (times < 2 || /:/.test(bars)) return bars
  return `${bars.replace(/^\|/, '|:').replace(/\s*\|$/, ' :|')}${times === 2 ? '' : `x${times}`}`
}

/** The chart text as it comes together. */
export class ChartDraft {
  private readonly head: string[] = []
  private readonly body: string[] = []
  private section = ''
  private barless: { line: number; text: string } | null = null
  readonly warnings: ImportWarning[] = []
  key: Key | null = null

  /** @param syllables notes are called Do, Re, Mi */
  constructor(readonly syllables = false) {}

  /**
   * The key of numerals that name none: as asked, else A minor where the home chord is written
   * small, else C major; which is said.
   */
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

  /** Beats in a bar, and the fret the capo lies on, as the settings so far say. */
  beats = 4
  capo = 0
  private pickup = 0
  /** It has a bar. */
  begun = false

  /** Beats of the bar that comes: those of the metre, or of the pickup where it is the first. */
  beatsOfNextBar(beginsLine: boolean): number {
    return beginsLine && !this.begun && this.pickup > 0 ? this.pickup : this.beats
  }

  /** Something that holds for the whole, told at the first place. */
  sayOnce(line: number, what: string, message: string): void {
    if (this.said.has(what)) return
    this.said.add(what)
    this.warn(line, 1, '', message)
  }

  warn(line: number, column: number, text: string, message: string): void {
    this.warnings.push({ line, column, text, message })
  }

  private said = new Set<string>()
  /** What was taken for something else than its letters say, once each. */
  saysOf({ text, column }: DraftWord, read: string, line: number): void {
    const word = bare(text)
    const once = (what: string, message: string) => {
      if (!this.said.has(what)) {
        this.said.add(what)
        this.warn(line, column, text, message)
      }
    }
    if (this.syllables) once('syllables', 'Do, Re, Mi … were read as C, D, E …')
    else if (read === inEnglish(word) && read !== word && !/^H/.test(word))
      once('is', `"${word}" was read as ${read}: notes in -es and -is are flats and sharps.`)
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
    const count = Number.parseInt(value, 10)
    if (name === 'meter') this.beats = count
    if (name === 'capo') this.capo = count
    if (name === 'pickup') this.pickup = count
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
      if (at >= 0) this.body[at] = itemAt(this.body, at).replace(/\s*(:?\|(?:x\d+)?)\s*$/, ` ${word} $1`)
    }
  }

  /** The last chords stand at columns of their own: words under them go by these. */
  get isOverByColumns(): boolean {
    return this.over.some(({ column }) => column > 0)
  }

  /** Words could stand under a line of chords. */
  get standsOver(): boolean {
    return this.over.length > 0
  }

  private remarks: string[] = []
  /**
   * Words to the players where the next bar begins. False where nothing of them is left, or a
   * chord.
   */
  remark(words: string): boolean {
    const remark = remarkOf(words.replace(/^"(.*)"$/, '$1'))
    if (!remark || parseSymbol(remark).ok) return false
    this.remarks.push(printRemark(remark))
    return true
  }

  /** A part begins. @param times how often it is played, where its heading says so */
  open(section: string, times = 1): void {
    this.closePart()
    this.part = { from: this.body.length, times }
    const name = section.trim().slice(0, 24).trim()
    this.section = name === '' ? '' : `[${name}] `
  }

  private part: { from: number; times: number } | null = null
  /**
   * A part that is played several times has repeat signs around it, where it has none of its own.
   */
  private closePart(): void {
    const { part } = this
    this.part = null
    if (!part || part.times < 2) return
    const lines = this.body
      .map((line, at) => ({ line, at }))
      .filter(({ line, at }) => at >= part.from && line.includes('|'))
    const [first, last] = [lines[0], lines.at(-1)]
    if (!first || !last || lines.some(({ line }) => line.includes(':|') || line.includes('|:'))) return
    this.body[first.at] = itemAt(this.body, first.at).replace('|', '|:')
    this.body[last.at] = itemAt(this.body, last.at).replace(
      /\s*\|\s*$/,
      ` :|${part.times === 2 ? '' : `x${part.times}`}`,
    )
  }

  /**
   * A line of bars. @param over its chords, with the columns they stood at, for words under them
   */
  bars(text: string, over: readonly ChordOver[] = []): void {
    const before = [...this.remarks, ...this.comes].join(' ')
    const marked =
      before === '' ? text : text.replace(/^(\|:?\d?[\d,-]*\.?)\s*/, (line) => `${line.trim()} ${before} `)
    this.over = over.map(({ column, bar, sign }) => ({ column, at: { line: this.body.length, bar, sign } }))
    this.body.push(this.section + marked)
    this.begun = true
    this.section = ''
    this.comes = []
    this.remarks = []
  }

  /** Chords without bar lines: each becomes a bar, which is said once. */
  chords(
    symbols: readonly string[],
    line: number,
    text: string,
    times = 1,
    columns: readonly number[] = [],
  ): void {
    if (symbols.length === 0) return
    this.barless ??= { line, text }
    this.bars(
      repeated(`| ${symbols.join(' | ')} |`, times),
      symbols.map((_, bar) => ({ column: columns[bar] ?? 0, bar, sign: 0 })),
    )
  }

  /** Chords of the last line that words can stand under, and the words so far. */
  private over: { column: number; at: Anchor }[] = []
  private readonly sung: { at: Anchor; text: string }[] = []
  /** Words that already know their bar and beat. */
  readonly placed: Lyric[] = []
  /** Grips as the file draws them, counted from the capo. */
  readonly drawn: ImportedChart['grips'] = []

  /**
   * Words with a chord of the last line, from 0; with the last of them where there are fewer. False
   * where there is none.
   */
  sing(text: string, chord: number): boolean {
    const anchor = this.over[Math.min(chord, this.over.length - 1)]
    if (!anchor) return false
    if (text.trim() !== '') this.sung.push({ at: anchor.at, text })
    return true
  }

  /**
   * A line of words under the last line of chords: each word with the chord it stands under, or
   * behind. False where there is no such line.
   */
  singUnder(line: string): boolean {
    if (this.over.length === 0) return false
    const words = this.over.map(() => [] as string[])
    for (const word of line.matchAll(/\S+/g))
      itemAt(
        words,
        Math.max(
          0,
          this.over.findLastIndex(({ column }) => column <= word.index + 1),
        ),
      ).push(word[0])
    words.forEach((some, at) => this.sing(some.join(' '), at))
    this.over = []
    return true
  }

  finish(): ImportedChart {
    this.closePart()
    if (this.barless)
      this.warn(
        this.barless.line,
        1,
        this.barless.text,
        'There are no bar lines here: each chord became a bar.',
      )
    // Behind the last bar they belong to it.
    const text = [...this.head, ...this.body, ...this.remarks].join('\n')
    const made = parseChart(text)
    for (const { line, text, message, accepted } of made.problems)
      this.warn(1, 1, text, `In line ${line} of the chart it makes: ${message} Accepted: ${accepted}.`)
    this.warnings.sort((a, b) => a.line - b.line || a.column - b.column)
    return {
      text,
      lyrics: this.lyricsOn(made),
      grips: gripsFrom(this.drawn, made.capo),
      warnings: this.warnings,
    }
  }

  /** Words at the beats of their chords; of several with one chord all in turn. */
  private lyricsOn({ bars }: Chart): Lyric[] {
    const inLine = groupedByLine(bars)
    const places = new Map<string, { bar: number; beat: number; words: string[] }>()
    for (const { at, text } of this.sung) {
      const bar = inLine.get(this.head.length + at.line + 1)?.[at.bar]
      if (!bar) continue
      const slot = bar.slots.filter(({ held }) => !held)[at.sign]
      const place = { bar: bar.number, beat: slot?.beat ?? bar.from }
      const known = places.get(slotKey(place))
      if (known) known.words.push(text)
      else places.set(slotKey(place), { ...place, words: [text] })
    }
    const found = [...places.values()].flatMap((one) => lyricAt(one, one.words.join(' ')) ?? [])
    const numbers = new Set(bars.map(({ number }) => number))
    return lyricsInOrder([...this.placed.filter(({ bar }) => numbers.has(bar)), ...found])
  }
}

const groupedByLine = (bars: readonly Bar[]): ReadonlyMap<number, Bar[]> => {
  const lines = new Map<number, Bar[]>()
  for (const bar of bars) {
    const known = lines.get(bar.source.line)
    if (known) known.push(bar)
    else lines.set(bar.source.line, [bar])
  }
  return lines
}

/**
 * Grips with their frets from the nut, the first of each chord; an open string stays open, at the
 * capo. Those beyond any neck are left.
 */
function gripsFrom(drawn: ImportedChart['grips'], capo: number): ImportedChart['grips'] {
  const byChord = new Map<string, (number | null)[]>()
  for (const { symbol, frets } of drawn) {
    const fromNut = frets.map((fret) => (fret === null || fret === 0 ? fret : fret + capo))
    const fits = fromNut.every((fret) => fret === null || fret <= HIGHEST_DRAWN)
    if (fits && !byChord.has(symbol) && byChord.size < MOST_DRAWN) byChord.set(symbol, fromNut)
  }
  return [...byChord].map(([symbol, frets]) => ({ symbol, frets }))
}
/** The highest fret of a grip that is drawn, and chords that are drawn in one file. */
export const HIGHEST_DRAWN = 36
const MOST_DRAWN = 500
