import { meterName, type Bar, type Mark } from '../chart/chart'
import { NEAR, piecesOf, type Piece } from '../melody/clock'
import { keyName, scaleNotes, type Key } from '../pitch/key'
import type { Pitch } from '../pitch/note'
import { piecesOfComping, type CompingPiece } from './comping'
import type { Score, WrittenNote } from './musicxml'
import { DIVISIONS, noteValues } from './noteValues'
import { linesOf, withBarLines } from './textLines'

/**
 * ABC 2.1: symbols in quotation marks over the melody, or over rests where there is none. What the guitar plays by its figure is a second voice: its rhythm on
 * the middle line, or its grips as chords.
 */
export function toAbc({ title, chart, key, tempo, melody = [], comping }: Omit<Score, 'chords'>): string {
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
    `K:${keyName(key)}`,
  ]
  const pieces = piecesOf(chart, melody)
  const struck = comping ? piecesOfComping(chart, comping.hits) : []
  // Lengths are counted in the beat the tune begins with, whatever the metre of a bar.
  // The key a bar is in counts for its signs, also where it began some bars before.
  const inForce = new Map<number, Key>()
  let now = key
  for (const bar of chart.bars) {
    now = bar.newKey ?? now
    inForce.set(bar.number, now)
  }
  /** @param leads letters and signs of the form stand in the first voice only */
  const voice = (written: (bar: Bar, key: Key, unit: number) => string, leads: boolean) =>
    linesOf(chart).map((bars) =>
      withBarLines(
        bars,
        (bar) =>
          `${bar.ending.length > 0 ? `[${bar.ending.join(',')} ` : ''}${bar.newMeter ? `[M:${meterName(bar.meter)}] ` : ''}${bar.newKey ? `[K:${keyName(bar.newKey)}] ` : ''}${leads ? signsOf(bar) : ''}${written(bar, inForce.get(bar.number)!, chart.meter.unit / bar.meter.unit)}`,
      ),
    )
  const sung = voice((bar, inKey, unit) => abcBar(bar, pieces.filter(within(bar)), inKey, unit), true)
  const played = comping
    ? voice((bar, inKey, unit) => compedBar(bar, struck.filter(within(bar)), inKey, unit, comping.as), false)
    : []
  return `${[...head, ...(comping ? ['V:1', ...sung, 'V:2', ...played] : sung)].join('\n')}\n`
}

/** Signs as ABC 2.1 has them; what it has none for is an annotation over the bar. */
const SIGNS: Readonly<Record<Mark, string>> = {
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
const signsOf = ({ marks, played, opensSection, section }: Bar): string =>
  [
    ...(opensSection && section ? [`[P:${section}]`] : []),
    ...marks.map((mark) => SIGNS[mark]),
    ...(played > 2 ? [`"^x${played}"`] : []),
  ]
    .map((sign) => `${sign} `)
    .join('')

const within =
  ({ number }: Bar) =>
  ({ bar }: { bar: number }) =>
    bar === number

/** The letters that need signs in a bar. One that is always as the key has it needs none; one that changes is written with every sign, so that no reader has to remember. */
function changedLetters(pitches: readonly Pitch[], key: Key): ReadonlySet<number> {
  const own = new Map(scaleNotes(key).map(({ letter, alter }) => [letter, alter]))
  return new Set(pitches.filter(({ letter, alter }) => own.get(letter) !== alter).map(({ letter }) => letter))
}

/** What is struck in a bar, rests between: the rhythm alone, or the notes of the grips. */
function compedBar(
  bar: Bar,
  struck: readonly CompingPiece<WrittenNote>[],
  key: Key,
  unit: number,
  as: 'slashes' | 'voices',
): string {
  const changed = changedLetters(
    struck.flatMap(({ notes }) => notes.map(({ pitch }) => pitch)),
    key,
  )
  const end = bar.from + bar.beats
  const words: string[] = []
  let from = bar.from
  const restTo = (beat: number) => {
    if (beat > from + SAME_PLACE) words.push(abcTied('z', beat - from, bar, unit))
  }
  for (const { beat, beats, notes, accent, short, tiedOn } of struck) {
    const pitches = notes.map(({ pitch }) => abcPitch(pitch, changed.has(pitch.letter))).join('')
    const name = as === 'slashes' ? MIDDLE_LINE : notes.length === 1 ? pitches : `[${pitches}]`
    if (as === 'voices' && notes.length === 0) continue
    restTo(beat)
    words.push(
      `${accent ? '!>!' : ''}${short ? '.' : ''}${abcTied(name, beats, bar, unit)}${tiedOn ? '-' : ''}`,
    )
    from = beat + beats
  }
  restTo(end)
  return words.join(' ')
}
const MIDDLE_LINE = 'B'

function abcBar(bar: Bar, notes: readonly Piece[], key: Key, unit: number): string {
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
  const places = inTurn.filter((beat, at) => at === 0 || beat - inTurn[at - 1]! > SAME_PLACE)
  const changed = changedLetters(
    notes.map(({ note: { note } }) => note),
    key,
  )
  return places
    .map((beat, at) => {
      const length = (places[at + 1] ?? end) - beat
      const symbol = bar.slots.find((slot) => Math.abs(slot.beat - beat) < SAME_PLACE)
      const note = notes.find(
        (one) => one.beat <= beat + SAME_PLACE && one.beat + one.beats > beat + SAME_PLACE,
      )
      const goesOn = note && (note.tiedOn || note.beat + note.beats > beat + length + SAME_PLACE) ? '-' : ''
      return `${symbol && !symbol.held ? `"${symbol.text}"` : ''}${abcTied(note ? abcPitch(note.note.note, changed.has(note.note.note.letter)) : 'z', length, bar, unit)}${goesOn}`
    })
    .join(' ')
}
/** Places nearer than this are the same, in beats: melodies are kept in thousandths of a beat. */
const SAME_PLACE = 2e-3

const ACCIDENTALS: Readonly<Record<string, string>> = { '-2': '__', '-1': '_', '0': '=', '1': '^', '2': '^^' }

function abcPitch({ letter, alter, octave }: Pitch, signed: boolean): string {
  const name = 'CDEFGAB'[letter]!
  const height = octave >= 5 ? name.toLowerCase() + "'".repeat(octave - 5) : name + ','.repeat(4 - octave)
  return (signed ? (ACCIDENTALS[String(alter)] ?? '') : '') + height
}

/** A length in beats of a bar as one note or several that are tied, rests side by side; what is finer than sixteenths stays one. */
function abcTied(name: string, beats: number, { meter }: Bar, unit: number): string {
  const length = (beats * 4 * DIVISIONS) / meter.unit
  const values = Math.abs(length - Math.round(length)) < SAME_PLACE ? noteValues(Math.round(length)) : []
  if (values.length < 2 || values.some(({ type }) => type === null)) return abcNote(name, beats * unit)
  return values
    .map((value) => abcNote(name, (value.length * meter.unit * unit) / (4 * DIVISIONS)))
    .join(name === 'z' ? ' ' : '- ')
}

/** A note with its length in units: `2`, `3/2`, `/2`; what goes into thirds is written as one note of a triplet, half as long again. */
function abcNote(name: string, units: number): string {
  for (const below of [1, 2, 4, 8, 16, 32]) {
    if (isWhole(units * below)) return `${name}${fraction(Math.round(units * below), below)}`
    if (isWhole(units * 1.5 * below))
      return `(3:2:1${name}${fraction(Math.round(units * 1.5 * below), below)}`
  }
  return `${name}${fraction(Math.max(1, Math.round(units * 32)), 32)}`
}
const isWhole = (value: number): boolean =>
  Math.abs(value - Math.round(value)) < SAME_PLACE * 4 && Math.round(value) > 0
const fraction = (above: number, below: number): string =>
  below === 1 ? (above === 1 ? '' : String(above)) : `${above === 1 ? '' : above}/${below}`
