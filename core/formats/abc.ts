import { meterName, type Bar } from '../chart/chart'
import { NEAR, piecesOf, type Piece } from '../melody/clock'
import { keyName, scaleNotes, type Key } from '../pitch/key'
import type { Pitch } from '../pitch/note'
import type { Score } from './musicxml'
import { linesOf, withBarLines } from './textLines'

/** ABC 2.1: symbols in quotation marks over the melody, or over rests where there is none. */
export function toAbc({ title, chart, key, tempo, melody = [], comping }: Omit<Score, 'chords'>): string {
  const head = [
    'X:1',
    `T:${title}`,
    `M:${meterName(chart.meter)}`,
    `L:1/${chart.meter.unit}`,
    `Q:${comping && comping.swing !== 1 ? '"Swing" ' : ''}1/${chart.meter.unit}=${tempo}`,
    `K:${keyName(key)}`,
  ]
  const pieces = piecesOf(chart, melody)
  // Lengths are counted in the beat the tune begins with, whatever the metre of a bar.
  const written = (bar: Bar) =>
    `${bar.ending.length > 0 ? `[${bar.ending.join(',')} ` : ''}${bar.newMeter ? `[M:${meterName(bar.meter)}] ` : ''}${bar.newKey ? `[K:${keyName(bar.newKey)}] ` : ''}${abcBar(
      bar,
      pieces.filter((piece) => piece.bar === bar.number),
      bar.newKey ?? key,
      chart.meter.unit / bar.meter.unit,
    )}`
  const lines = linesOf(chart).map((bars) => withBarLines(bars, written))
  return `${[...head, ...lines].join('\n')}\n`
}

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
  // A letter that is always as the key has it needs no sign; one that changes in the bar is written with every sign, so that no reader has to remember.
  const own = new Map(scaleNotes(key).map(({ letter, alter }) => [letter, alter]))
  const changed = new Set(
    notes
      .filter(({ note: { note } }) => own.get(note.letter) !== note.alter)
      .map(({ note: { note } }) => note.letter),
  )
  return places
    .map((beat, at) => {
      const length = (places[at + 1] ?? end) - beat
      const symbol = bar.slots.find((slot) => Math.abs(slot.beat - beat) < SAME_PLACE)
      const note = notes.find(
        (one) => one.beat <= beat + SAME_PLACE && one.beat + one.beats > beat + SAME_PLACE,
      )
      const goesOn = note && (note.tiedOn || note.beat + note.beats > beat + length + SAME_PLACE) ? '-' : ''
      return `${symbol && !symbol.held ? `"${symbol.text}"` : ''}${abcNote(note ? abcPitch(note.note.note, changed.has(note.note.note.letter)) : 'z', length * unit)}${goesOn}`
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
