import { entryOf, itemAt } from '../lists'
import { meterName, type Bar, type ChartMark, type Slot } from '../chart/chart'
import { keysInForce } from '../chart/keyChanges'
import { NEAR, notatedPieces, type Piece } from '../melody/clock'
import type { Lyric } from '../melody/lyrics'
import { keyName, scaleNotes, type Key } from '../pitch/key'
import type { Pitch } from '../pitch/note'
import { piecesOfComping, type CompingPiece } from './comping'
import type { Score } from './musicxml'
import type { WrittenNote } from './musicxmlVoice'
import { abcPitch, abcValues, inALine, REST, SAME_PLACE, type AbcValue } from './abcNotes'
import { beginsSilent, textLinesOf, withBarLines } from './textLines'

/**
 * ABC 2.1: symbols in quotation marks over the melody, or over rests where there is none. What the
 * guitar plays by its figure is a second voice: its rhythm on the middle line, or its grips as
 * chords.
 */
export function toAbc({
  title,
  chart,
  key,
  tempo,
  melody = [],
  lyrics = [],
  comping,
}: Omit<Score, 'chords'>): string {
  const head = [
    'X:1',
    `T:${title}`,
    `M:${meterName(chart.meter)}`,
    `L:1/${chart.meter.unit}`,
    `Q:${comping && comping.swing !== 1 ? '"Swing" ' : ''}1/${chart.meter.unit}=${tempo}`,
    ...(comping
      ? [
          `V:1 name="${melody.length > 0 ? 'Melody' : 'Chords'}"`,
          comping.as === 'slashes' ? 'V:2 name="Comping rhythm" style=rhythm' : 'V:2 name="Comping"',
        ]
      : []),
    ...(chart.capo > 0 ? [`N:capo ${chart.capo}`] : []),
    `K:${keyName(key)}`,
  ]
  const pieces = notatedPieces(chart, melody)
  const struck = comping ? piecesOfComping(chart, comping.hits) : []
  // The key a bar is in counts for its signs, also where it began some bars before.
  const keys = keysInForce(chart.bars, key)
  // Lengths are counted in the beat the tune begins with, whatever the metre of a bar.
  const settingOf = (bar: Bar): BarSetting => ({
    bar,
    key: entryOf(keys, bar.number),
    unit: chart.meter.unit / bar.meter.unit,
  })
  const lines = textLinesOf(chart)
  const sung = inFull(lines, (bars) => {
    const written = new Map(
      bars.map((bar) => [
        bar,
        abcBar(
          { ...settingOf(bar), silent: bar === chart.bars[0] && beginsSilent(chart) },
          pieces.filter(within(bar)),
          lyrics.filter(within(bar)),
        ),
      ]),
    )
    const words = bars.flatMap((bar) => entryOf(written, bar).words)
    const rests = bars.some((bar) => entryOf(written, bar).rests)
    return [
      withBarLines(bars, (bar) => `${changesOf(bar)}${signsOf(bar)}${entryOf(written, bar).music}`),
      ...(words.some((word) => word !== NO_WORD)
        ? [`w: ${words.map((word) => (word === NO_WORD && rests ? BLANK : word)).join(' ')}`]
        : []),
    ]
  })
  const played = comping
    ? inFull(lines, (bars) => [
        withBarLines(
          bars,
          (bar) => `${changesOf(bar)}${compedBar(settingOf(bar), struck.filter(within(bar)), comping.as)}`,
        ),
      ])
    : []
  const voices = comping ? ['V:1', ...sung, 'V:2', ...played] : sung
  return `${[...head, ...voices, ...wordsBehind(lines, lyrics, pieces)].join('\n')}\n`
}

/**
 * What is written out follows this comment, which `importAbc` knows: the passage before it is
 * played so often.
 */
export const againFrom = (times: number): string => `%again x${times}`
export const AGAIN_TO = '%end again'

/**
 * Lines of bars as text. ABC has no sign for a passage that is played three times: behind its
 * repeat, which is played twice, it is written out, between two comments by which our own reader
 * knows it again.
 */
function inFull(lines: readonly Bar[][], written: (bars: Bar[]) => string[]): string[] {
  const out: string[] = []
  let passage: Bar[] = []
  for (const bars of lines) {
    let begun: Bar[] = []
    const close = (again: Bar[] = [], times = 0) => {
      if (begun.length > 0) out.push(...written(begun))
      if (times > 2)
        out.push(
          againFrom(times),
          ...Array.from({ length: times - 2 }, () => written(again)).flat(),
          AGAIN_TO,
        )
      begun = []
    }
    for (const bar of bars) {
      if (bar.opensRepeat) passage = []
      passage.push(bar)
      begun.push(bar)
      if (bar.played === 0) continue
      const isPlain = bar.played > 2 && passage.every(({ ending }) => ending.length === 0)
      if (isPlain)
        close(
          passage.map((one) => ({ ...one, opensRepeat: false, opensSection: false, played: 0 })),
          bar.played,
        )
      passage = []
    }
    close()
  }
  return out
}

/**
 * Words that stand under no note have no place in ABC but behind the tune, a line of them for each
 * line of music.
 */
function wordsBehind(
  lines: readonly (readonly Bar[])[],
  lyrics: readonly Lyric[],
  pieces: readonly Piece[],
): string[] {
  const under = (one: Lyric) => pieces.some((piece) => !piece.tiedFrom && isAt(piece, one))
  const alone = lyrics.filter((one) => !under(one))
  return lines.flatMap((bars) => {
    const words = alone.filter(({ bar }) => bars.some(({ number }) => number === bar))
    return words.length > 0
      ? [
          `W: ${words
            .map(({ text, joins }) => (joins ? `${text}-` : `${text} `))
            .join('')
            .trim()}`,
        ]
      : []
  })
}
const isAt = (a: { bar: number; beat: number }, b: { bar: number; beat: number }): boolean =>
  a.bar === b.bar && Math.abs(a.beat - b.beat) < SAME_PLACE

/** Endings, metre and key, which stand in every voice. */
const changesOf = (bar: Bar): string =>
  [
    ...(bar.ending.length > 0 ? [`[${bar.ending.join(',')}`] : []),
    ...(bar.newMeter ? [`[M:${meterName(bar.meter)}]`] : []),
    ...(bar.newKey ? [`[K:${keyName(bar.newKey)}]`] : []),
  ]
    .map((sign) => `${sign} `)
    .join('')

/** A bar with what its signs and lengths are counted by. */
interface BarSetting {
  bar: Bar
  key: Key
  /** Units of length in a beat of the bar. */
  unit: number
}

/** Signs as ABC 2.1 has them; what it has none for is an annotation over the bar. */
const SIGNS: Readonly<Record<ChartMark, string>> = {
  Segno: '!segno!',
  Coda: '!coda!',
  'To Coda': '"^To Coda"',
  Fine: '!fine!',
  'D.C.': '!D.C.!',
  'D.C. al Fine': '!D.C.alfine!',
  'D.C. al Coda': '!D.C.alcoda!',
  'D.S.': '!D.S.!',
  'D.S. al Fine': '!D.S.alfine!',
  'D.S. al Coda': '!D.S.alcoda!',
}
const signsOf = ({ marks, remarks, opensSection, section }: Bar): string =>
  [
    ...(opensSection && section ? [`[P:${section}]`] : []),
    // A semicolon would begin another line.
    ...remarks.map((remark) => `"^${remark.replaceAll(';', ',')}"`),
    ...marks.map((mark) => SIGNS[mark]),
  ]
    .map((sign) => `${sign} `)
    .join('')

const within =
  ({ number }: Bar) =>
  ({ bar }: { bar: number }) =>
    bar === number

/**
 * The letters that need signs in a bar. One that is always as the key has it needs none; one that
 * changes is written with every sign, so that no reader has to remember.
 */
function changedLetters(pitches: readonly Pitch[], key: Key): ReadonlySet<number> {
  const own = new Map(scaleNotes(key).map(({ letter, alter }) => [letter, alter]))
  return new Set(pitches.filter(({ letter, alter }) => own.get(letter) !== alter).map(({ letter }) => letter))
}

/** What is struck in a bar, rests between: the rhythm alone, or the notes of the grips. */
function compedBar(
  { bar, key, unit }: BarSetting,
  struck: readonly CompingPiece<WrittenNote>[],
  as: 'slashes' | 'voices',
): string {
  const changed = changedLetters(
    struck.flatMap(({ notes }) => notes.map(({ pitch }) => pitch)),
    key,
  )
  const end = bar.from + bar.beats
  const values: AbcValue[] = []
  let from = bar.from
  const restTo = (beat: number) => {
    if (beat > from + SAME_PLACE)
      values.push(...abcValues({ name: REST, before: '', tied: false }, beat - from, bar, unit))
  }
  for (const { beat, beats, notes, accent, short, tiedOn } of struck) {
    const pitches = notes.map(({ pitch }) => abcPitch(pitch, changed.has(pitch.letter))).join('')
    const sounding = notes.length === 1 ? pitches : `[${pitches}]`
    const name = as === 'slashes' ? MIDDLE_LINE : sounding
    if (as === 'voices' && notes.length === 0) continue
    restTo(beat)
    const before = `${accent ? '!>!' : ''}${short ? '.' : ''}`
    values.push(...abcValues({ name, before, tied: tiedOn }, beats, bar, unit))
    from = beat + beats
  }
  restTo(end)
  return inALine(values)
}
const MIDDLE_LINE = 'B'

const NOBODY = 'N.C.'
/** What stands over a beat: nothing where a chord is held, and no word that is no chord. */
const symbolText = ({ symbol, text, held }: Slot): string | null => {
  if (held) return null
  return symbol?.kind === 'chord' ? text : NOBODY
}

/**
 * Under a note that has no word. The common reader (abcjs 6) lets a rest take a star: in a line
 * with rests a blank word stands there instead.
 */
const NO_WORD = '*'
const BLANK = '~'
/** A word as ABC has it: `~` for a blank inside, `\\-` for a hyphen, and none of its own signs. */
const abcWord = ({ text, joins }: Lyric): string =>
  `${
    text
      .replace(/[*_|~\\]/g, ' ')
      .trim()
      .replace(/\s+/g, '~')
      .replaceAll('-', '\\-') || NO_WORD
  }${joins ? '-' : ''}`

/** The music of a bar, and a word for each of its notes. */
function abcBar(
  { bar, key, unit, silent }: BarSetting & { silent: boolean },
  notes: readonly Piece[],
  lyrics: readonly Lyric[],
): { music: string; words: string[]; rests: boolean } {
  const end = bar.from + bar.beats
  // Everything that begins in the bar: a symbol over a note or over a rest.
  const inTurn = [
    ...new Set([
      bar.from,
      ...bar.slots.map(({ beat }) => beat),
      ...notes.flatMap(({ beat, beats }) => [beat, Math.min(end, beat + beats)]),
    ]),
  ]
    .filter((beat) => beat < end - NEAR)
    .sort((a, b) => a - b)
  const places = inTurn.filter((beat, at) => at === 0 || beat - itemAt(inTurn, at - 1) > SAME_PLACE)
  const changed = changedLetters(
    notes.map(({ note: { note } }) => note),
    key,
  )
  const words: string[] = []
  let rests = false
  const values = places.flatMap((beat, at) => {
    const length = (places[at + 1] ?? end) - beat
    const symbol = bar.slots.find((slot) => Math.abs(slot.beat - beat) < SAME_PLACE)
    const note = notes.find(
      (one) => one.beat <= beat + SAME_PLACE && one.beat + one.beats > beat + SAME_PLACE,
    )
    const tied = note !== undefined && (note.tiedOn || note.beat + note.beats > beat + length + SAME_PLACE)
    const name = note ? abcPitch(note.note.note, changed.has(note.note.note.letter)) : REST
    const unsaid = at === 0 && silent ? NOBODY : null
    const says = symbol ? symbolText(symbol) : unsaid
    const here = abcValues({ name, before: says ? `"${says}"` : '', tied }, length, bar, unit)
    rests ||= !note
    if (note) {
      const begins = !note.tiedFrom && Math.abs(note.beat - beat) < SAME_PLACE
      const word = begins && lyrics.find((one) => isAt(one, note))
      words.push(word ? abcWord(word) : NO_WORD, ...here.slice(1).map(() => NO_WORD))
    }
    return here
  })
  return { music: inALine(values), words, rests }
}
