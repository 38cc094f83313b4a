import { Midi } from '@tonejs/midi'
import { meterName, slotKey, slotsOf, type Bar, type Chart } from '../chart/chart'
import { playOrder } from '../chart/form'
import { homeKey } from '../analysis/analyse'
import type { ChordSymbol } from '../chord/symbol'
import { keyName, signatureOf, type Key } from '../pitch/key'
import { Clock, NEAR, piecesOf, type Piece } from '../melody/clock'
import { layersOf } from '../melody/layers'
import { midiOf, type Pitch } from '../pitch/note'
import type { MelodyNote } from '../reharm/melodyFit'
import { bad, good, type Result } from '../result'
import type { Limits } from '../voicing/limits'
import { voicingOf, type Voicing } from '../voicing/voicing'
import { toMusicXml, type Score } from './musicxml'

export const EXPORT_FORMATS = ['musicxml', 'midi', 'chordpro', 'tab', 'abc'] as const
export type ExportFormat = (typeof EXPORT_FORMATS)[number]

export interface ExportProblem {
  chart: Chart
  /** A grip for each sounding chord, in order; none for symbols alone. */
  frets: readonly (readonly (number | null)[])[]
  melody: readonly MelodyNote[]
  limits: Limits
}

export interface Exported {
  content: string
  encoding: 'utf-8' | 'base64'
}

/** Where a tune names no tempo. */
const USUAL_TEMPO = 96

/** A chart with its grips and melody in an open format. */
export function exportChart({ chart, frets, melody, limits }: ExportProblem, format: ExportFormat): Result<Exported> {
  const sounding = slotsOf(chart).flatMap((slot) => (slot.symbol?.kind === 'chord' ? [{ slot, chord: slot.symbol.chord }] : []))
  if (frets.length > 0 && frets.length !== sounding.length)
    return bad({ code: 'bad-field', message: `${frets.length} grips were given for ${sounding.length} chords.`, accepted: 'one grip for each chord, or none', text: 'voicings' })
  const chords = new Map<string, { chord: ChordSymbol; voicing: Voicing | null }>()
  for (const [at, { slot, chord }] of sounding.entries()) {
    const grip = frets[at]
    const voicing = grip ? voicingOf(grip, chord, limits) : null
    if (grip && !voicing) return bad({ code: 'unplayable', message: `The grip for ${chord.canonical} (chord ${at + 1}) cannot be held by this hand.`, accepted: 'a grip that `finger` calls playable', text: `voicings.${at}`, at })
    chords.set(slotKey(slot), { chord, voicing })
  }
  const text = (content: string) => good<Exported>({ content, encoding: 'utf-8' })
  switch (format) {
    case 'chordpro': return text(toChordPro(chart))
    case 'tab': return text(toTab(chart, chords, limits))
    default: return good(exportScore({ title: chart.title ?? 'Untitled', chart, key: homeKey(chart), tempo: chart.tempo ?? USUAL_TEMPO, chords, melody }, format))
  }
}

/** Formats that hold notes. */
export type ScoreFormat = Extract<ExportFormat, 'musicxml' | 'midi' | 'abc'>

/** A tune with everything made of it in a format that holds notes. */
export function exportScore(score: Score, format: ScoreFormat): Exported {
  switch (format) {
    case 'musicxml': return { content: toMusicXml(score), encoding: 'utf-8' }
    case 'midi': return { content: toMidi(score), encoding: 'base64' }
    case 'abc': return { content: toAbc(score), encoding: 'utf-8' }
  }
}

type Chords = ReadonlyMap<string, { chord: ChordSymbol; voicing: Voicing | null }>

/** Standard MIDI file, type 1: the melody on the first track, the grips on the second, a chord melody on the third, in the order in which they are played. */
function toMidi({ title, chart, tempo, chords, melody = [], chordMelody = [] }: Score): string {
  const file = new Midi()
  file.header.name = title
  file.header.setTempo(tempo)
  file.header.timeSignatures.push({ ticks: 0, timeSignature: [chart.meter.beats, chart.meter.unit] })
  const [tune, grips] = [file.addTrack(), file.addTrack()]
  tune.name = 'Melody'
  grips.name = 'Guitar'
  grips.instrument.number = 25
  const ticks = (beats: number, unit: number) => Math.round((beats * 4 * file.header.ppq) / unit)
  const clock = new Clock(chart)
  const { upper, lower } = layersOf(chart, chordMelody)
  const alone = chordMelody.length > 0 ? file.addTrack() : null
  if (alone) { alone.name = 'Chord melody'; alone.instrument.number = 25 }
  let begins = 0
  for (const index of playOrder(chart)) {
    const bar = chart.bars[index]!
    const at = (beat: number) => begins + ticks(beat - bar.from, bar.meter.unit)
    for (const slot of bar.slots)
      for (const midi of chords.get(slotKey(slot))?.voicing?.midis ?? []) grips.addNote({ midi, ticks: at(slot.beat), durationTicks: ticks(slot.beats, bar.meter.unit), velocity: 0.6 })
    for (const one of melody.filter((note) => note.bar === bar.number)) tune.addNote({ midi: midiOf(one.note), ticks: at(one.beat), durationTicks: ticks(one.beats, bar.meter.unit), velocity: 0.8 })
    const from = clock.at({ bar: bar.number, beat: bar.from })
    const to = from + clock.lasts(bar.number, bar.beats)
    if (alone) for (const one of [...lower, ...upper])
      if (one.from >= from - NEAR && one.from < to - NEAR)
        for (const string of one.struck) alone.addNote({ midi: one.voicing.strings[string]!.midi, ticks: begins + ticks(one.from - from, chart.meter.unit), durationTicks: ticks(one.to - one.from, chart.meter.unit), velocity: 0.7 })
    begins += ticks(bar.beats, bar.meter.unit)
  }
  let binary = ''
  for (const byte of file.toArray()) binary += String.fromCharCode(byte)
  return btoa(binary)
}

const BARS_A_LINE = 4
const linesOf = (chart: Chart): Bar[][] => {
  const lines: Bar[][] = []
  for (const bar of chart.bars) {
    if (lines.length === 0 || lines.at(-1)!.length === BARS_A_LINE || bar.opensSection) lines.push([])
    lines.at(-1)!.push(bar)
  }
  return lines
}

/** Bars with the lines between them; a passage that is repeated is written so. */
const withBarLines = (bars: readonly Bar[], written: (bar: Bar) => string): string =>
  bars.map((bar, at) => `${at === 0 ? (bar.opensRepeat ? '|: ' : '| ') : ''}${written(bar)} ${bar.played > 0 ? ':|' : '|'}${bars[at + 1]?.opensRepeat ? ': ' : at < bars.length - 1 ? ' ' : ''}`).join('')

/** ChordPro with the chords in a grid, one cell a beat. */
function toChordPro(chart: Chart): string {
  const head = [
    `{title: ${chart.title ?? 'Untitled'}}`, `{key: ${keyName(homeKey(chart))}}`, `{time: ${meterName(chart.meter)}}`,
    ...(chart.tempo ? [`{tempo: ${chart.tempo}}`] : []), ...(chart.capo > 0 ? [`{capo: ${chart.capo}}`] : []),
  ]
  const cells = (bar: Bar) => Array.from({ length: Math.ceil(bar.beats) }, (_, at) => bar.slots.filter(({ beat }) => Math.floor(beat - bar.from + 1e-6) === at).map(({ text }) => text).join('~') || '.').join(' ')
  const lines = linesOf(chart).flatMap((bars) => [...(bars[0]!.opensSection ? [`{comment: ${bars[0]!.section ?? ''}}`] : []), '{start_of_grid}', withBarLines(bars, cells), '{end_of_grid}'])
  return `${[...head, '', ...lines].join('\n')}\n`
}

/** Width of a beat in the tab, in letters. */
const BEAT_WIDTH = 4

/** Tablature as text, the highest string first, with the symbols above. */
function toTab(chart: Chart, chords: Chords, { instrument }: Limits): string {
  const strings = instrument.tuning.length
  const names = instrument.tuning.map((open) => ['C', 'Db', 'D', 'Eb', 'E', 'F', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B'][open % 12]!.padEnd(2))
  const systems = linesOf(chart).map((bars) => {
    const above: string[] = []
    const rows = names.map((name) => [`${name}|`])
    above.push('   ')
    for (const bar of bars) {
      const width = Math.max(1, Math.ceil(bar.beats)) * BEAT_WIDTH
      const symbols = Array<string>(width + 1).fill(' ')
      const cells = rows.map(() => Array<string>(width).fill('-'))
      for (const slot of bar.slots) {
        const at = Math.round((slot.beat - bar.from) * BEAT_WIDTH)
        ;[...slot.text].forEach((letter, place) => { if (at + place <= width) symbols[at + place] = letter })
        chords.get(slotKey(slot))?.voicing?.frets.forEach((fret, string) => { if (fret !== null) [...String(fret)].forEach((letter, place) => { cells[string]![Math.min(width - 1, at + place)] = letter }) })
      }
      above.push(symbols.join(''))
      rows.forEach((row, string) => row.push(`${cells[string]!.join('')}|`))
    }
    return [above.join('').trimEnd(), ...Array.from({ length: strings }, (_, at) => rows[strings - 1 - at]!.join(''))].join('\n')
  })
  return `${chart.title ? `${chart.title}\n\n` : ''}${systems.join('\n\n')}\n`
}

/** ABC 2.1: symbols in quotation marks over the melody, or over rests where there is none. */
function toAbc({ title, chart, key, tempo, melody = [] }: Score): string {
  const head = ['X:1', `T:${title}`, `M:${meterName(chart.meter)}`, `L:1/${chart.meter.unit}`, `Q:1/${chart.meter.unit}=${tempo}`, `K:${keyName(key)}`]
  const pieces = piecesOf(chart, melody)
  // Lengths are counted in the beat the tune begins with, whatever the metre of a bar.
  const written = (bar: Bar) => `${bar.ending.length > 0 ? `[${bar.ending.join(',')} ` : ''}${bar.newMeter ? `[M:${meterName(bar.meter)}] ` : ''}${bar.newKey ? `[K:${keyName(bar.newKey)}] ` : ''}${abcBar(bar, pieces.filter((piece) => piece.bar === bar.number), bar.newKey ?? key, chart.meter.unit / bar.meter.unit)}`
  const lines = linesOf(chart).map((bars) => withBarLines(bars, written))
  return `${[...head, ...lines].join('\n')}\n`
}

function abcBar(bar: Bar, notes: readonly Piece[], key: Key, unit: number): string {
  const end = bar.from + bar.beats
  // Everything that begins in the bar: a symbol over a note or over a rest.
  const inTurn = [...new Set([bar.from, ...bar.slots.map(({ beat }) => beat), ...notes.flatMap(({ beat, beats }) => [beat, Math.min(end, beat + beats)])])].filter((beat) => beat < end - NEAR).sort((a, b) => a - b)
  const places = inTurn.filter((beat, at) => at === 0 || beat - inTurn[at - 1]! > SAME_PLACE)
  return places.map((beat, at) => {
    const length = (places[at + 1] ?? end) - beat
    const symbol = bar.slots.find((slot) => Math.abs(slot.beat - beat) < SAME_PLACE)
    const note = notes.find((one) => one.beat <= beat + SAME_PLACE && one.beat + one.beats > beat + SAME_PLACE)
    const goesOn = note && (note.tiedOn || note.beat + note.beats > beat + length + SAME_PLACE) ? '-' : ''
    return `${symbol && !symbol.held ? `"${symbol.text}"` : ''}${abcNote(note ? abcPitch(note.note.note, key) : 'z', length * unit)}${goesOn}`
  }).join(' ')
}
/** Places nearer than this are the same, in beats: melodies are kept in thousandths of a beat. */
const SAME_PLACE = 2e-3

const ACCIDENTALS: Readonly<Record<string, string>> = { '-2': '__', '-1': '_', '0': '=', '1': '^', '2': '^^' }

/** Every accidental is written: no reader has to remember the bar. */
function abcPitch({ letter, alter, octave }: Pitch, key: Key): string {
  const inKey = signatureOf(key) === 0 && alter === 0
  const name = 'CDEFGAB'[letter]!
  const height = octave >= 5 ? name.toLowerCase() + "'".repeat(octave - 5) : name + ','.repeat(4 - octave)
  return (inKey ? '' : ACCIDENTALS[String(alter)] ?? '') + height
}

/** A note with its length in units: `2`, `3/2`, `/2`; what goes into thirds is written as one note of a triplet, half as long again. */
function abcNote(name: string, units: number): string {
  for (const below of [1, 2, 4, 8, 16, 32]) {
    if (isWhole(units * below)) return `${name}${fraction(Math.round(units * below), below)}`
    if (isWhole(units * 1.5 * below)) return `(3:2:1${name}${fraction(Math.round(units * 1.5 * below), below)}`
  }
  return `${name}${fraction(Math.max(1, Math.round(units * 32)), 32)}`
}
const isWhole = (value: number): boolean => Math.abs(value - Math.round(value)) < SAME_PLACE * 4 && Math.round(value) > 0
const fraction = (above: number, below: number): string => (below === 1 ? (above === 1 ? '' : String(above)) : `${above === 1 ? '' : above}/${below}`)
