import { firstOf, itemAt } from '../lists'
import { parseSymbol } from '../chord/parseChord'
import { lyricAt } from '../melody/lyrics'
import { MARK, PART_IN_WORDS } from './chordProWords'
import { HIGHEST_DRAWN, type ChartDraft } from './chartDraft'
import { headingOf, readBars, readTextLine, SETTINGS } from './chartLines'
import { isSymbolLine } from './importTab'
import { readSungLine } from './sungLine'

const DIRECTIVE = /^\s*\{\s*([A-Za-z_]+)\s*(?:[:\s]\s*(.*?))?\s*\}\s*$/
/** The name of a part: `label="A"`, or what stands behind the colon. */
const LABEL = /^label\s*=\s*"([^"]*)"$/
/** A part of a song: one of ChordPro's own by its short name too, or one the file names itself. */
const PART = /^(?:start_of_(\w+)|so([cvbg]))$/
const PART_NAMES: Readonly<Record<string, string>> = { c: 'chorus', v: 'verse', b: 'bridge', g: 'grid' }

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
/**
 * What is open while a song is read: another notation, or words that the file has said before with
 * their places.
 */
type SongPart = 'song' | 'elsewhere' | 'words told'

/**
 * ChordPro (the open format of songs with chords in brackets), line by line; blocks of other
 * notations are passed over.
 */
export function readSong(lines: readonly string[], draft: ChartDraft): void {
  let block: SongPart = 'song'
  lines.forEach((line, at) => {
    const name = DIRECTIVE.exec(line)?.[1]?.toLowerCase() ?? ''
    const other = ELSEWHERE.exec(name)
    if (other) {
      block = 'elsewhere'
      draft.warn(
        at + 1,
        1,
        line.trim(),
        `${ELSEWHERE_NAMES[itemAt(other, 1)]} has no place in a chart and was left out.`,
      )
    } else if (name === 'x_words') block = 'words told'
    else if (block !== 'song') block = /^(?:end_of_|eo)/.test(name) ? 'song' : block
    else readChordPro(line, at + 1, draft)
  })
}

/**
 * A line of a grid in the signs of a chart text: `|1` begins an ending, `~` parts a beat, and a `.`
 * in it is held.
 */
const gridInChartText = (line: string): string =>
  line.replace(/(\|:?)(\d(?:[,-]\d)*)>?(?=\s)/g, '$1$2.').replace(/[^\s|]*~[^\s|]*/g, (cell) =>
    cell
      .split('~')
      .map((part) => (part === '.' ? '' : part))
      .join('_'),
  )

/** A directive, a grid with bar lines, or `[C]` over words. */
function readChordPro(line: string, number: number, draft: ChartDraft): void {
  if (line.trim() === '' || /^\s*#/.test(line)) return
  const directive = DIRECTIVE.exec(line)
  if (directive)
    return readDirective(itemAt(directive, 1).toLowerCase(), directive[2] ?? '', line.trim(), number, draft)
  if (line.includes('|')) return readBars(gridInChartText(line), number, 0, false, draft)
  // Chords over words, and headings without braces, as they come in from elsewhere.
  if (headingOf(line) || isSymbolLine(line)) return readTextLine(line, number, false, draft)
  if (!line.includes('[') && draft.standsOver && draft.isOverByColumns) return void draft.singUnder(line)
  readSungLine(line, number, draft)
}

function readDirective(name: string, value: string, line: string, number: number, draft: ChartDraft): void {
  const part = PART.exec(name)
  const setting = SETTINGS[name.replace(/^x_(?=pickup$)/, '')]
  const leave = (message: string) => draft.warn(number, 1, line, message)
  if (setting && value) draft.set(setting, value, number)
  else if (name === 'x_lyric') {
    const read = /^(\d{1,4}):(\d{1,3}(?:\.\d{1,3})?)\s(.*)$/.exec(value)
    const lyric = read && lyricAt({ bar: Number(read[1]), beat: Number(read[2]) }, itemAt(read, 3))
    if (lyric) draft.placed.push(lyric)
    else leave('These words have no place (such as 3:1, bar and beat) and were left out.')
  } else if (name === 'define' || name === 'chord') {
    const drawn = drawnGrip(value)
    if (drawn) draft.drawn.push(drawn)
    else leave('This grip could not be read and was left out.')
  } else if (COMMENT.test(name)) {
    if (MARK.test(value)) draft.mark(value)
    else if (PART_IN_WORDS.test(value)) draft.open(value.replace(/\s*:$/, ''))
    else if (!draft.remark(value)) leave('This comment has no words a chart could hold and was left out.')
  } else if (part) {
    const named = part[1] ?? PART_NAMES[itemAt(part, 2)]!
    const label = labelOf(value) ?? (LABEL.test(value) ? '' : value)
    if (label || named !== 'grid')
      draft.open(label || firstOf(named).toUpperCase() + named.slice(1).replaceAll('_', ' '))
  } else if (!/^(?:end_of_|eo)/.test(name))
    leave(`The directive "${name}" has no place in a chart and was left out.`)
}

/**
 * `C base-fret 1 frets x 3 2 0 1 0` (ChordPro 6, directive `define`): a fret counts from the one
 * before the base fret; null where it is no grip.
 */
function drawnGrip(value: string): { symbol: string; frets: (number | null)[] } | null {
  const read = /^(\S+)\s+(?:base-fret\s+(\d{1,2})\s+)?frets\s+([\dxXnN\s-]+?)(?:\s+fingers\b.*)?$/.exec(value)
  const symbol = read && /^[^:]+/.exec(itemAt(read, 1))?.[0]
  if (!read || !symbol || !parseSymbol(symbol).ok) return null
  const base = Number(read[2] ?? 1)
  const frets = itemAt(read, 3)
    .trim()
    .split(/\s+/)
    .map((fret) => (/^(?:[xXnN]|-1)$/.test(fret) ? null : Number(fret)))
    .map((fret) => (fret ? fret + base - 1 : fret))
  const fits =
    frets.length >= 4 && frets.length <= 8 && frets.every((fret) => fret === null || fret <= HIGHEST_DRAWN)
  return fits ? { symbol, frets } : null
}
