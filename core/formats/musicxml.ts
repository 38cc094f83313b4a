import { create } from 'xmlbuilder2'
import type { XMLBuilder } from 'xmlbuilder2/lib/interfaces'
import { beginsBar, slotKey, type Bar, type Chart, type Mark, type Meter, type Slot } from '../chart/chart'
import { Clock, NEAR, piecesOf, type Piece } from '../melody/clock'
import type { HarmonisedNote } from '../melody/line'
import { layersOf } from '../melody/layers'
import { stringNumber } from '../neck/instrument'
import { signatureOf, type Key } from '../pitch/key'
import { pitchAt, type Pitch } from '../pitch/note'
import type { MelodyNote } from '../reharm/melodyFit'
import { NOTE_NAMES, writeHarmony, writeNoChord, type WrittenChord } from './musicxmlHarmony'
import { piecesOfComping, type CompingHit, type CompingPiece } from './comping'
import { DIVISIONS, noteValues, type NoteValue } from './noteValues'

export interface Score {
  title: string
  chart: Chart
  key: Key
  /** Beats a minute. */
  tempo: number
  /** By slot key; slots without an entry are rests. */
  chords: ReadonlyMap<string, WrittenChord>
  /** Written as a part of its own above the guitar. */
  melody?: readonly MelodyNote[]
  /** A chord melody, written as a part of its own: the melody with stems up, the grips under it with stems down. */
  chordMelody?: readonly HarmonisedNote[]
  /** What a band plays, for formats that are heard: in place of grips that are struck once. */
  band?: BandScore
  /** The figure as it is written, bars once each: as slashes over the chord symbols, or as the voices that sound. */
  comping?: { as: 'slashes' | 'voices'; hits: readonly CompingHit<WrittenNote>[]; swing: number }
}

/** A note with its place on the neck, where that is known. */
export interface WrittenNote {
  pitch: Pitch
  string?: number
  fret?: number
}

/** A note of a band, in beats of the first metre from the beginning of what is played. */
export interface BandNote {
  from: number
  lasts: number
  midi: number
  /** Above 0 to 1. */
  velocity: number
}
/** What a band plays of a tune in the order in which it is played; swung where that was asked for. */
export interface BandScore {
  guitar: readonly BandNote[]
  bass: readonly BandNote[]
  time: readonly { from: number; strong: boolean; brush: 'sweep' | 'tap' | null }[]
}

interface ScorePart {
  name: string
  /** What stands in a bar. */
  write: (measure: XMLBuilder, bar: Bar) => void
}

/** A tune as MusicXML 4.0 (W3C Community Group): the melody, chord symbols with frames and the grips as notes with tablature marks, and a chord melody, each as a part. */
export function toMusicXml(score: Score): string {
  const root = create({ version: '1.0', encoding: 'UTF-8' })
    .dtd({
      name: 'score-partwise',
      pubID: '-//Recordare//DTD MusicXML 4.0 Partwise//EN',
      sysID: 'http://www.musicxml.org/dtds/partwise.dtd',
    })
    .ele('score-partwise', { version: '4.0' })
  root.ele('work').ele('work-title').txt(score.title)
  root.ele('identification').ele('encoding').ele('software').txt('Yellow Heron')
  const parts = partsOf(score)
  const list = root.ele('part-list')
  parts.forEach(({ name }, at) =>
    list
      .ele('score-part', { id: `P${at + 1}` })
      .ele('part-name')
      .txt(name),
  )
  parts.forEach((part, at) => writePart(root.ele('part', { id: `P${at + 1}` }), part, score, at === 0))
  return root.end({ prettyPrint: true })
}

/** The parts of a score. Symbols, with the frames of their grips, stand in the first of them only. */
function partsOf({ chart, chords, melody = [], chordMelody = [], comping }: Score): ScorePart[] {
  const symbolsOf = (bar: Bar) =>
    bar.slots.flatMap((slot): HarmonyAt[] => {
      if (slot.held) return []
      const at = lengthOf(slot.beat - bar.from, bar.meter)
      const written = chords.get(slotKey(slot))
      if (written) return [{ at, written }]
      return slot.symbol?.kind === 'silence' ? [{ at, written: null }] : []
    })
  const guitar: ScorePart = {
    name: 'Guitar',
    write: (measure, bar) =>
      writeVoice(
        measure,
        bar,
        bar.slots.flatMap((slot) => slotPiece(slot, bar, chords)),
        '1',
        melody.length > 0 ? [] : symbolsOf(bar),
      ),
  }
  const parts = [guitar]
  if (melody.length > 0) {
    const pieces = groupedByBar(piecesOf(chart, melody))
    parts.unshift({
      name: 'Melody',
      write: (measure, bar) =>
        writeVoice(measure, bar, (pieces.get(bar.number) ?? []).map(sungPiece(bar)), '1', symbolsOf(bar)),
    })
  }
  if (comping) {
    const pieces = groupedByBar(piecesOfComping(chart, comping.hits))
    parts.push({
      name: comping.as === 'slashes' ? 'Comping rhythm' : 'Comping',
      write: (measure, bar) =>
        writeVoice(measure, bar, (pieces.get(bar.number) ?? []).map(compedPiece(bar, comping.as)), '1', []),
    })
  }
  if (chordMelody.length > 0) {
    const { upper, lower } = voicesOf(chart, chordMelody)
    parts.push({
      name: 'Chord melody',
      write: (measure, bar) => {
        writeVoice(measure, bar, upper.get(bar.number) ?? [], '1', symbolsUnder(chordMelody, bar))
        measure
          .ele('backup')
          .ele('duration')
          .txt(String(lengthOf(bar.beats, bar.meter)))
        writeVoice(measure, bar, lower.get(bar.number) ?? [], '2', [])
      },
    })
  }
  return parts
}

/** The chord of each event that strikes another one than stood before it. */
const symbolsUnder = (notes: readonly HarmonisedNote[], bar: Bar): HarmonyAt[] =>
  notes.flatMap((one, at): HarmonyAt[] => {
    const before = notes[at - 1]
    return one.bar === bar.number &&
      one.chord &&
      one.chord.tones.length > 0 &&
      (before?.bar !== one.bar || before.chord?.canonical !== one.chord.canonical)
      ? [{ at: lengthOf(one.beat - bar.from, bar.meter), written: { chord: one.chord, voicing: null } }]
      : []
  })

const groupedByBar = <T extends { bar: number }>(pieces: readonly T[]): Map<number, T[]> => {
  const bars = new Map<number, T[]>()
  for (const piece of pieces) bars.set(piece.bar, [...(bars.get(piece.bar) ?? []), piece])
  return bars
}

/** Notes that sound together for a time inside one bar, in divisions from its beginning. */
interface SoundingChord {
  at: number
  length: number
  notes: readonly WrittenNote[]
  slash?: boolean
  accent?: boolean
  short?: boolean
  tiedFrom: boolean
  tiedOn: boolean
}
/** A symbol at a place of a bar; without a chord it is N.C. */
interface HarmonyAt {
  at: number
  written: WrittenChord | null
}

const sungPiece =
  (bar: Bar) =>
  ({ note, beat, beats, tiedFrom, tiedOn }: Piece): SoundingChord => ({
    at: lengthOf(beat - bar.from, bar.meter),
    length: lengthOf(beats, bar.meter),
    notes: [{ pitch: note.note }],
    tiedFrom,
    tiedOn,
  })

/** The middle line of the guitar's staff, where slashes stand. */
const MIDDLE_LINE: WrittenNote = { pitch: { letter: 6, alter: 0, octave: 3 } }

const compedPiece =
  (bar: Bar, as: 'slashes' | 'voices') =>
  ({ beat, beats, tiedFrom, tiedOn, accent, short, notes }: CompingPiece<WrittenNote>): SoundingChord => ({
    at: lengthOf(beat - bar.from, bar.meter),
    length: lengthOf(beats, bar.meter),
    notes: as === 'slashes' || notes.length === 0 ? [MIDDLE_LINE] : notes,
    slash: as === 'slashes' || notes.length === 0,
    accent,
    short,
    tiedFrom,
    tiedOn,
  })

/** The two layers of a chord melody, cut at the bar lines. */
function voicesOf(
  chart: Chart,
  line: readonly HarmonisedNote[],
): { upper: Map<number, SoundingChord[]>; lower: Map<number, SoundingChord[]> } {
  const clock = new Clock(chart)
  const bars = new Map(chart.bars.map((bar) => [bar.number, bar]))
  const { upper, lower } = layersOf(chart, line)
  const cut = (layer: typeof upper) =>
    groupedByBar(
      layer.flatMap(({ from, to, voicing, struck }) => {
        const cuts = [from, ...clock.barLines.filter((at) => at > from + NEAR && at < to - NEAR), to]
        return cuts.slice(0, -1).map((begin, at) => {
          const { bar: number, beat } = clock.place(begin)
          const bar = bars.get(number)!
          const notes = struck.map((index) => {
            const { string, midi, note } = voicing.strings[index]!
            return {
              pitch: pitchAt(midi, note),
              string: stringNumber(string, voicing.frets.length),
              fret: voicing.frets[string]!,
            }
          })
          return {
            bar: number,
            at: lengthOf(beat - bar.from, bar.meter),
            length: lengthOf(clock.beatsIn(number, cuts[at + 1]! - begin), bar.meter),
            notes,
            tiedFrom: at > 0,
            tiedOn: at < cuts.length - 2,
          }
        })
      }),
    )
  return { upper: cut(upper), lower: cut(lower) }
}

/** @param leads the first part: tempo, letters and signs stand there and nowhere else */
function writePart(part: XMLBuilder, { write }: ScorePart, score: Score, leads: boolean): void {
  const { bars } = score.chart
  // A part needs a measure: a tune without bars is written as one bar of rest.
  if (bars.length === 0) {
    const measure = part.ele('measure', { number: '1' })
    writeAttributes(measure, { key: score.key, meter: score.chart.meter, first: true })
    writeRest(measure, lengthOf(score.chart.meter.beats, score.chart.meter))
  }
  bars.forEach((bar, index) => {
    const measure = part.ele('measure', {
      number: String(bar.number),
      ...(bar.beats < bar.meter.beats ? { implicit: 'yes' } : {}),
    })
    if (bar.opensRepeat || bar.ending.length > 0) writeLeftBarline(measure, bar)
    if (index === 0) writeAttributes(measure, { key: score.key, meter: bar.meter, first: true })
    else if (bar.newKey || bar.newMeter)
      writeAttributes(measure, { key: bar.newKey, meter: bar.newMeter ? bar.meter : null, first: false })
    const signs = leads ? bar.marks : []
    if (leads && bar.opensSection && bar.section)
      measure.ele('direction', { placement: 'above' }).ele('direction-type').ele('rehearsal').txt(bar.section)
    if (leads && index === 0) writeTempo(measure, score)
    signs.filter(beginsBar).forEach((mark) => writeMark(measure, mark))
    write(measure, bar)
    signs.filter((mark) => !beginsBar(mark)).forEach((mark) => writeMark(measure, mark))
    writeRightBarline(measure, bars, index)
  })
}

/** The notes of three in the time of two that are being written: how long they are together so far, and the shortest of them as it is written, in divisions. */
interface Triplet {
  length: number
  shortest: number
}

/** Where groups of triplets begin and end: a group is over where it fills two of its shortest notes' written length, or a multiple. */
class Triplets {
  private open: Triplet | null = null

  /** Takes the next value of the voice. @returns what the note says of its group */
  take(value: NoteValue): 'start' | 'stop' | null {
    if (!value.triplet) {
      this.open = null
      return null
    }
    const written = (value.length * 3) / 2
    const begun = this.open
    const now: Triplet = begun
      ? { length: begun.length + value.length, shortest: Math.min(begun.shortest, written) }
      : { length: value.length, shortest: written }
    this.open = now.length % (2 * now.shortest) === 0 ? null : now
    if (!begun) return 'start'
    return this.open ? null : 'stop'
  }
}

/** One voice of a bar, with rests where nothing sounds; a symbol that comes while a note sounds on is put behind its beginning. */
function writeVoice(
  measure: XMLBuilder,
  bar: Bar,
  soundings: readonly SoundingChord[],
  voice: string,
  symbols: readonly HarmonyAt[],
): void {
  const end = lengthOf(bar.beats, bar.meter)
  const triplets = new Triplets()
  const waiting = [...symbols]
  let at = 0
  const symbolsBefore = (until: number) => {
    while (waiting[0] && waiting[0].at < until) {
      const { at: place, written } = waiting.shift()!
      if (written) writeHarmony(measure, written, place - at)
      else writeNoChord(measure, place - at)
    }
  }
  const restTo = (until: number) => {
    // Rests part where a symbol stands, so that it stands over one.
    for (const place of [...waiting.map((one) => one.at).filter((one) => one > at && one < until), until]) {
      if (place <= at) continue
      symbolsBefore(at + 1)
      writeRest(measure, place - at, voice, triplets)
      at = place
    }
  }
  for (const sounding of [...soundings].sort((a, b) => a.at - b.at)) {
    const length = Math.min(sounding.length, end - sounding.at)
    if (sounding.at < at || length <= 0) continue
    restTo(sounding.at)
    symbolsBefore(sounding.at + length)
    const values = noteValues(length)
    values.forEach((value, order) =>
      writeNotes(
        measure,
        sounding.notes,
        value,
        { from: sounding.tiedFrom || order > 0, on: sounding.tiedOn || order < values.length - 1 },
        voice,
        {
          ...(order === 0 ? sounding : { slash: sounding.slash ?? false }),
          tuplet: triplets.take(value),
        },
      ),
    )
    at = sounding.at + length
  }
  restTo(end)
}

const lengthOf = (beats: number, { unit }: Meter) => Math.round((beats * 4 * DIVISIONS) / unit)

function writeAttributes(
  measure: XMLBuilder,
  { key, meter, first }: { key: Key | null; meter: Meter | null; first: boolean },
): void {
  const attributes = measure.ele('attributes')
  if (first) attributes.ele('divisions').txt(String(DIVISIONS))
  if (key) {
    const keyElement = attributes.ele('key')
    keyElement.ele('fifths').txt(String(signatureOf(key)))
    keyElement.ele('mode').txt(key.mode)
  }
  if (meter) {
    const time = attributes.ele('time')
    time.ele('beats').txt(String(meter.beats))
    time.ele('beat-type').txt(String(meter.unit))
  }
  if (!first) return
  const clef = attributes.ele('clef')
  clef.ele('sign').txt('G')
  clef.ele('line').txt('2')
  clef.ele('clef-octave-change').txt('-1')
}

function writeLeftBarline(measure: XMLBuilder, bar: Bar): void {
  const barline = measure.ele('barline', { location: 'left' })
  if (bar.opensRepeat) barline.ele('bar-style').txt('heavy-light')
  if (bar.ending.length > 0)
    barline.ele('ending', { number: bar.ending.join(','), type: 'start' }).txt(`${bar.ending.join(',')}.`)
  if (bar.opensRepeat) barline.ele('repeat', { direction: 'forward' })
}

/** A repeat sign, the end of an ending, or the double line at the end. */
function writeRightBarline(measure: XMLBuilder, bars: readonly Bar[], index: number): void {
  const bar = bars[index]!
  const ending = endingThatStops(bars, index)
  const last = index === bars.length - 1
  if (bar.played === 0 && !ending && !last) return
  const barline = measure.ele('barline', { location: 'right' })
  if (bar.played > 0 || last) barline.ele('bar-style').txt('light-heavy')
  if (ending)
    barline.ele('ending', { number: ending.join(','), type: bar.played > 0 ? 'stop' : 'discontinue' })
  if (bar.played > 0)
    barline.ele('repeat', { direction: 'backward', ...(bar.played > 2 ? { times: String(bar.played) } : {}) })
}

/** The passes of the ending that is over after this bar: at its repeat sign, before another repeat begins, or, for a last ending, after its first bar. */
function endingThatStops(bars: readonly Bar[], index: number): readonly number[] | null {
  let begins = index
  while (begins > 0 && bars[begins]!.ending.length === 0 && bars[begins - 1]!.played === 0) begins -= 1
  const { ending } = bars[begins]!
  if (ending.length === 0) return null
  const closes = bars.findIndex(
    (bar, at) => at >= begins && (bar.played > 0 || (bars[at + 1]?.ending.length ?? 0) > 0),
  )
  const another = bars.findIndex((bar, at) => at > begins && bar.opensRepeat)
  const open = closes < 0 || (another >= 0 && closes >= another)
  return index === (open ? begins : closes) ? ending : null
}

const MARK_SOUNDS: Readonly<Partial<Record<Mark, Record<string, string>>>> = {
  Segno: { segno: 'segno' },
  Coda: { coda: 'coda' },
  'To Coda': { tocoda: 'coda' },
  Fine: { fine: 'yes' },
  'D.C.': { dacapo: 'yes' },
  'D.C. al Fine': { dacapo: 'yes' },
  'D.C. al Coda': { dacapo: 'yes' },
  'D.S.': { dalsegno: 'segno' },
  'D.S. al Fine': { dalsegno: 'segno' },
  'D.S. al Coda': { dalsegno: 'segno' },
}

function writeMark(measure: XMLBuilder, mark: Mark): void {
  const direction = measure.ele('direction', { placement: 'above' })
  const type = direction.ele('direction-type')
  if (mark === 'Segno') type.ele('segno')
  else if (mark === 'Coda') type.ele('coda')
  else type.ele('words').txt(mark)
  direction.ele('sound', MARK_SOUNDS[mark]!)
}

const BEAT_UNITS: Readonly<Record<number, string>> = { 2: 'half', 4: 'quarter', 8: 'eighth', 16: '16th' }

/** Parts that a swing ratio is written in. */
const SWING_PARTS = 10

function writeTempo(measure: XMLBuilder, { tempo, chart, comping }: Score): void {
  const direction = measure.ele('direction', { placement: 'above' })
  const metronome = direction.ele('direction-type').ele('metronome')
  metronome.ele('beat-unit').txt(BEAT_UNITS[chart.meter.unit]!)
  metronome.ele('per-minute').txt(String(tempo))
  const sound = direction.ele('sound', { tempo: String((tempo * 4) / chart.meter.unit) })
  const swing = comping?.swing ?? 1
  if (swing === 1) return
  const element = sound.ele('swing')
  element.ele('first').txt(String(Math.round(swing * SWING_PARTS)))
  element.ele('second').txt(String(SWING_PARTS))
  element.ele('swing-type').txt('eighth')
  const words = measure.ele('direction', { placement: 'above' })
  words.ele('direction-type').ele('words').txt('Swing')
}

/** The grip of a slot as notes; a chord without one as a slash; nothing for a silence. */
function slotPiece(slot: Slot, bar: Bar, chords: Score['chords']): SoundingChord[] {
  const written = chords.get(slotKey(slot))
  if (!written) return []
  const { voicing } = written
  return [
    {
      at: lengthOf(slot.beat - bar.from, bar.meter),
      length: lengthOf(slot.beats, bar.meter),
      notes: voicing
        ? voicing.strings.map(({ string, midi, note }) => ({
            pitch: pitchAt(midi, note),
            string: stringNumber(string, voicing.frets.length),
            fret: voicing.frets[string]!,
          }))
        : [MIDDLE_LINE],
      slash: voicing === null,
      tiedFrom: false,
      tiedOn: false,
    },
  ]
}

function writeRest(measure: XMLBuilder, length: number, voice = '1', triplets = new Triplets()): void {
  for (const value of noteValues(length)) {
    const note = measure.ele('note')
    note.ele('rest')
    writeValue(note, value, { from: false, on: false }, voice)
    const tuplet = triplets.take(value)
    if (tuplet) note.ele('notations').ele('tuplet', { type: tuplet })
  }
}

/** `voice` stands between duration and type; that is the order of the schema. */
function writeValue(
  note: XMLBuilder,
  value: NoteValue,
  ties: { from: boolean; on: boolean },
  voice: string,
): void {
  note.ele('duration').txt(String(value.length))
  if (ties.from) note.ele('tie', { type: 'stop' })
  if (ties.on) note.ele('tie', { type: 'start' })
  note.ele('voice').txt(voice)
  if (value.type) note.ele('type').txt(value.type)
  for (let dot = 0; dot < value.dots; dot += 1) note.ele('dot')
  if (!value.triplet) return
  const modification = note.ele('time-modification')
  modification.ele('actual-notes').txt('3')
  modification.ele('normal-notes').txt('2')
}

/** Notes together; where their strings are known, with the marks of tablature. */
function writeNotes(
  measure: XMLBuilder,
  notes: SoundingChord['notes'],
  value: NoteValue,
  ties: { from: boolean; on: boolean },
  voice = '1',
  {
    slash = false,
    accent = false,
    short = false,
    tuplet = null,
  }: Pick<SoundingChord, 'slash' | 'accent' | 'short'> & { tuplet?: 'start' | 'stop' | null } = {},
): void {
  notes.forEach(({ pitch: { letter, alter, octave }, string, fret }, order) => {
    const note = measure.ele('note')
    if (order > 0) note.ele('chord')
    const pitch = note.ele('pitch')
    pitch.ele('step').txt(NOTE_NAMES[letter]!)
    if (alter !== 0) pitch.ele('alter').txt(String(alter))
    pitch.ele('octave').txt(String(octave))
    writeValue(note, value, ties, voice)
    if (slash) note.ele('notehead').txt('slash')
    const grouped = order === 0 ? tuplet : null
    if (!ties.from && !ties.on && string === undefined && !accent && !short && !grouped) return
    const notations = note.ele('notations')
    if (ties.from) notations.ele('tied', { type: 'stop' })
    if (ties.on) notations.ele('tied', { type: 'start' })
    if (grouped) notations.ele('tuplet', { type: grouped })
    if (string !== undefined) {
      const technical = notations.ele('technical')
      technical.ele('string').txt(String(string))
      technical.ele('fret').txt(String(fret))
    }
    if (!accent && !short) return
    const articulations = notations.ele('articulations')
    if (accent) articulations.ele('accent')
    if (short) articulations.ele('staccato')
  })
}
