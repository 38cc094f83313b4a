import { firstOf, itemAt, lastOf } from '../lists'
import { inEnglish, SYLLABLES, withCapitals } from '../chord/near'
import { printRemark, remarkOf } from '../chart/remark'
import { parseSymbol } from '../chord/parseChord'
import { bare, repeated, type ChartDraft, type ChordOver, type DraftWord } from './chartDraft'
import { chordOfNumeral } from './importNumerals'
import { isSungLine, readSungLine } from './sungLine'

export const SETTINGS: Readonly<Record<string, string>> = {
  title: 'title',
  t: 'title',
  key: 'key',
  tempo: 'tempo',
  bpm: 'tempo',
  time: 'meter',
  meter: 'meter',
  metre: 'meter',
  capo: 'capo',
  pickup: 'pickup',
}
export const SETTING = /^\s*([A-Za-z]+)\s*:\s*(.+)$/
const PART_WORDS =
  'Intro(?:duction)?|Verse|Strophe|(?:Pre-? ?)?Chorus|Hook|Bridge|Middle(?: 8| eight)?|Refrain|Outro|Coda|Interlude|Instrumental|Solo|Vamp|Tag|Ending'
/**
 * A heading of a part: `[Verse 2]`, `Chorus:`, `A:`; a word for a part alone on its line needs no
 * sign.
 */
const HEADING = new RegExp(
  `^\\s*(?:\\[([^\\]|]+)\\]|((?:${PART_WORDS}|[A-H])(?:\\s*\\d+)?(?:\\s*\\([^()]{1,20}\\))?)\\s*:)\\s*(.*)$`,
  'i',
)
const HEADING_ALONE = new RegExp(
  `^\\s*((?:${PART_WORDS})(?:\\s*(?:\\d{1,2}|[A-Z]|one|two|three|four))?)\\s*([([]?(?:[x×]\\s?\\d{1,2}|\\d{1,2}\\s?[x×])[)\\]]?)?\\s*[.:]?\\s*$`,
  'i',
)

/**
 * What a line names as a part, how often it is played, and what else stands in it; null where it
 * names none.
 */
export function headingOf(line: string): { name: string; times: number; rest: string } | null {
  if (isSungLine(line)) return null
  const alone = HEADING_ALONE.exec(line)
  if (alone) return { name: itemAt(alone, 1), times: timesIn(alone[2] ?? ''), rest: '' }
  const marked = HEADING.exec(line)
  if (!marked) return null
  // `Chorus (x2)` and `[Chorus x2]`: how often it is played is no part of its name.
  const [, name, often = ''] = /^(.*?)\s*([([]?(?:[x×]\s?\d{1,2}|\d{1,2}\s?[x×])[)\]]?)?$/i.exec(
    (marked[1] ?? itemAt(marked, 2)).trim(),
  )!
  return {
    name: name === '' ? (marked[1] ?? itemAt(marked, 2)) : name!,
    times: timesIn(often),
    rest: itemAt(marked, 3),
  }
}

/**
 * Signs that stand between chords without meaning anything themselves. Dots are taken all at once,
 * so that there is one way to read them.
 */
export const SEPARATOR = /^(?:[-–—,→>·;…*+~=]|(?<!\.)\.{2,}(?!\.)|\/\/)+$/
/** A line, or a bar of it, played so often: behind the chords. */
const SO_OFTEN = /^[([]?(?:[x×]\s?(\d{1,2})|(\d{1,2})\s?[x×])[)\]]?\.?$/i
const MOST_TIMES = 16

const SYLLABLE = /^(Do|Ut|R[eé]|Mi|Fa|Sol|La|Si)(?![a-z]*[n-z][a-z]*$)(.*)$/i
const asLetters = (word: string): string | null => {
  const syllable = SYLLABLE.exec(word)
  if (!syllable) return null
  const [suffix, bass] = itemAt(syllable, 2).split('/')
  const low =
    bass === undefined
      ? ''
      : `/${SYLLABLES[bass.toLowerCase().replace(/[#b]$/, '')] ?? bass}${/[#b]$/.exec(bass)?.[0] ?? ''}`
  const symbol = `${SYLLABLES[itemAt(syllable, 1).toLowerCase()]!}${suffix}${low}`
  return parseSymbol(symbol).ok ? symbol : null
}

/**
 * The chords are called Do, Re, Mi: some word can be nothing else, and most of a line are such
 * names.
 */
export function namesNotesBySyllables(lines: readonly string[]): boolean {
  return lines.some((line) => {
    const words = lineWordsOf(line.replace(/[|]/g, ' '))
      .map(({ text }) => bare(text))
      .filter((text) => text !== '' && !SEPARATOR.test(text))
    const named = words.filter((word) => asLetters(word) !== null)
    return (
      named.length * 2 > words.length && named.some((word) => /^[A-Z]/.test(word) && !parseSymbol(word).ok)
    )
  })
}
const MARKS = /^(?:[.%/]|N\.?C\.?)$/i

export const lineWordsOf = (line: string, offset = 0): DraftWord[] =>
  [...line.matchAll(/(?:\([^)]{0,60}\)|[^\s(])+|\(/g)].map((match) => ({
    text: match[0],
    column: match.index + 1 + offset,
  }))

export function readTextLine(line: string, number: number, numerals: boolean, draft: ChartDraft): void {
  if (line.trim() === '') return
  const heading = headingOf(line)
  const setting = heading ? null : SETTING.exec(line)
  const known = setting && SETTINGS[itemAt(setting, 1).toLowerCase()]
  if (known) return draft.set(known, itemAt(setting, 2), number)
  if (heading) draft.open(heading.name, heading.times)
  const rest = heading ? heading.rest : line
  const offset = line.length - rest.length
  if (rest.trim() === '') return

  if (!numerals && isSungLine(rest)) return readSungLine(rest, number, draft)
  const alone = REMARK_ALONE.exec(rest)
  if (alone && !draft.standsOver && draft.remark(itemAt(alone, 1))) return
  if (rest.includes('|')) return readBars(rest, number, offset, numerals, draft)
  const words = piecesOf(
    lineWordsOf(rest, offset).filter((word) => !SEPARATOR.test(word.text)),
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
    // Behind a line of chords it is what is sung to them.
    if (!numerals && !/\[[A-G][^\]]*\]/.test(rest) && draft.singUnder(line)) return
    return draft.warn(number, offset + 1, rest.trim(), 'This line has no chords and was left out.')
  }
  signs.forEach((word, at) => {
    if (chords[at] === null)
      draft.warn(
        number,
        word.column,
        word.text,
        `"${word.text}" is no ${numerals ? 'numeral' : 'chord'} and was left out.`,
      )
    else draft.saysOf(word, itemAt(chords, at)!, number)
  })
  const bars = heldBars(body, signs, chords, draft.beats)
  if (bars) return draft.bars(repeated(`| ${bars.join(' | ')} |`, times))
  draft.chords(
    read,
    number,
    rest.trim(),
    times,
    signs.flatMap(({ column }, at) => (chords[at] === null ? [] : [column])),
  )
}

const isSlash = (text: string): boolean => text === '/'

/** "x2" behind a line, and what stands before it. */
function timesAtEnd(words: readonly DraftWord[]): [number, readonly DraftWord[]] {
  const last = words.at(-1)?.text ?? ''
  return SO_OFTEN.test(last) && (timesIn(last) > 1 || /1/.test(last))
    ? [timesIn(last), words.slice(0, -1)]
    : [1, words]
}

/** How often `x2`, `(3x)` says; 1 where it says nothing that is played. */
function timesIn(text: string): number {
  const found = SO_OFTEN.exec(text)
  const times = Number(found?.[1] ?? found?.[2] ?? 1)
  return times >= 1 && times <= MOST_TIMES ? times : 1
}

/**
 * Bars where slashes count the beats each chord is held ("C / / / G / / /"); null where they only
 * stand between chords.
 */
function heldBars(
  words: readonly DraftWord[],
  signs: readonly DraftWord[],
  chords: readonly (string | null)[],
  beats: number,
): string[] | null {
  const counts = words.some(
    (word, at) => isSlash(word.text) && (at + 1 === words.length || isSlash(itemAt(words, at + 1).text)),
  )
  if (!counts || words.length % beats !== 0 || isSlash(firstOf(words).text)) return null
  const beat = (word: DraftWord) => (isSlash(word.text) ? '.' : (chords[signs.indexOf(word)] ?? 'N.C.'))
  return Array.from({ length: words.length / beats }, (_, bar) =>
    words
      .slice(bar * beats, (bar + 1) * beats)
      .map(beat)
      .join(' '),
  )
}

/**
 * Words that are several chords with signs between them, in pieces: "Am-F-C", "Em/C/G/D", "C->F".
 */
function piecesOf(words: readonly DraftWord[], numerals: boolean): DraftWord[] {
  if (numerals) return [...words]
  return words.flatMap((word): DraftWord[] => {
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
function readWord(word: DraftWord, numerals: boolean, draft: ChartDraft): string | null {
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
  for (const symbol of [bare(text), text, bare(text).replace(/^H/, 'B'), inEnglish(bare(text))])
    if (parseSymbol(symbol).ok) return symbol
  return null
}

/**
 * A bar line with its repeat dots, how often it is played, and an ending behind it: kept as they
 * are, for the chart text has them too.
 */
const BARLINE = /(?::\|{1,2}(?!:)(?:\s?x\d{1,2}(?=[\s|]|$))?|:?\|{1,2}\]?:?)(?:\s*\d(?:[,-]\d)*\.(?!\d))?/g
/** Words to the players: in quotes, before the chords of their bar or in a line of their own. */
const REMARK = /^\s*"([^"|]{1,200})"(?=\s|$)/
const REMARK_ALONE = /^\s*"([^"|]{1,200})"\s*$/
const FORM_WORDS = /(?:Segno|To Coda|Coda|Fine|D\.[CS]\.(?: al (?:Fine|Coda))?)(?=\s|$)/gi

export function readBars(
  line: string,
  number: number,
  offset: number,
  numerals: boolean,
  draft: ChartDraft,
): void {
  // Pieces, put together at the end: a long line is gone through once.
  const out: string[] = []
  let read = 0
  let times = 1
  let last = 0
  const over: ChordOver[] = []
  let remarks: string[] = []
  const take = (all: string, from: number) => {
    const { piece, at, said } = remarksBefore(all, from)
    remarks.push(...said)
    const marks = [...piece.matchAll(FORM_WORDS)]
    const chords = withBlanks(piece, marks)
    const pieces = piecesOf(
      lineWordsOf(chords, at).filter((word) => !SEPARATOR.test(word.text)),
      numerals,
    )
    // "x2" behind the last bar says how often the line is played and is no bar.
    if (pieces.length === 1 && SO_OFTEN.test(firstOf(pieces).text) && read > 0) {
      times = timesAtEnd(pieces)[0]
      if (times > 1) return
    }
    const words = withoutSlashesBetween(pieces, draft.beats)
    const countsBeats = words.some(({ text }) => text === '.' || text.includes('_'))
    let sign = 0
    const symbols = words.flatMap((word) => {
      const chord = readWord(word, numerals, draft)
      if (chord !== null && !/^[.%/]$/.test(chord))
        over.push({ column: word.column, bar: read, sign: sign++ })
      if (chord === null)
        draft.warn(
          number,
          word.column,
          word.text,
          `"${word.text}" is no ${numerals ? 'numeral' : 'chord'} and was left out.`,
        )
      else draft.saysOf(word, chord, number)
      if (chord !== null) return [chord]
      // Where words are beats, one that cannot be read is a beat of silence: those behind it keep
      // their places.
      return countsBeats ? ['N.C.'] : []
    })
    // A bar whose chords could not be read stays, silent: the bars behind it keep their places.
    const silent = words.length > 0 ? 'N.C.' : ''
    const bar = symbols.length > 0 ? symbols.join(' ') : silent
    if (bar === '') return
    read += 1
    const [before, behind] = [
      marks.filter((mark) => /^(?:segno|coda)$/i.test(mark[0])),
      marks.filter((mark) => !/^(?:segno|coda)$/i.test(mark[0])),
    ]
    out.push(
      `${out.length === 0 ? '|' : ''} ${[...remarks.map(printRemark), ...before.map((mark) => mark[0]), bar, ...behind.map((mark) => mark[0])].join(' ')} `,
    )
    remarks = []
  }
  for (const sign of line.matchAll(BARLINE)) {
    take(line.slice(last, sign.index), offset + last)
    const opens = /:$/.test(sign[0]) || /\d\.$/.test(sign[0])
    // Bar lines with nothing between them stay two.
    if (out.length > 0 && !lastOf(out).endsWith(' ')) out.push(' ')
    out.push(out.length > 0 || opens ? plainBarline(sign[0]) : '|')
    last = sign.index + sign[0].length
  }
  take(line.slice(last), offset + last)
  if (read > 0) closeLine()
  remarks.forEach((remark) => draft.remark(remark))

  function closeLine(): void {
    const written = out.join('').trim()
    const ends = /\|(?:\s?x\d+)?$/.test(written.slice(-LONGEST_END))
    draft.bars(repeated(ends ? written : `${written} |`, times), over)
  }
}
const plainBarline = (sign: string): string =>
  sign
    .replace(/\s+(?=x)/, '')
    .replace(/\s+/g, ' ')
    .replace(/\|\|/, '|')

/** Words to the players before the chords of a bar, and where the chords begin. */
function remarksBefore(all: string, from: number): { piece: string; at: number; said: string[] } {
  let [piece, at] = [all, from]
  const said: string[] = []
  for (let quoted = REMARK.exec(piece); quoted; quoted = REMARK.exec(piece)) {
    const remark = remarkOf(itemAt(quoted, 1))
    if (!remark || parseSymbol(remark).ok) break
    said.push(remark)
    piece = piece.slice(quoted[0].length)
    at += quoted[0].length
  }
  return { piece, at, said }
}

/** The words go, their letters stay as blanks, so that columns stay true. */
const withBlanks = (piece: string, marks: readonly RegExpExecArray[]): string =>
  marks.reduce(
    (text, mark) =>
      text.slice(0, mark.index) + ' '.repeat(mark[0].length) + text.slice(mark.index + mark[0].length),
    piece,
  )

/**
 * Slashes count beats where there is one sign for each; otherwise they only stand between the
 * chords.
 */
function withoutSlashesBetween<Piece extends { text: string }>(
  pieces: readonly Piece[],
  beats: number,
): readonly Piece[] {
  return pieces.length === beats
    ? pieces
    : pieces.filter(
        (word, place) =>
          !(
            isSlash(word.text) &&
            place > 0 &&
            place < pieces.length - 1 &&
            !isSlash(itemAt(pieces, place - 1).text) &&
            !isSlash(itemAt(pieces, place + 1).text)
          ),
      )
}

/** A bar line with how often it is played, in letters. */
const LONGEST_END = 8
