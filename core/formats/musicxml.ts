import { entryOf, itemAt } from '../lists'
import { beginsBar, slotKey, type Bar, type Chart, type Slot } from '../chart/chart'
import { keysInForce } from '../chart/keyChanges'
import { Clock, NEAR, notatedPieces, type Piece } from '../melody/clock'
import type { HarmonisedNote } from '../melody/melodyLine'
import { ringingLayers } from '../melody/ringing'
import type { Lyric } from '../melody/lyrics'
import { stringNumber } from '../neck/instrument'
import type { Key } from '../pitch/key'
import { pitchAt } from '../pitch/note'
import type { MelodyNote } from '../reharm/melodyFit'
import { piecesOfComping, type CompingHit, type CompingPiece } from './comping'
import type { WrittenChord } from './musicxmlHarmony'
import {
  writeAttributes,
  writeLeftBarline,
  writeMark,
  writeRightBarline,
  writeTempo,
  writeWords,
} from './musicxmlSigns'
import {
  lengthOf,
  lyricsByBar,
  writeTab,
  writeVoice,
  type HarmonyAt,
  type LyricAt,
  type SoundingChord,
  type Voice,
  type WrittenNote,
} from './musicxmlVoice'
import { beginsSilent } from './textLines'
import { XmlElement } from './xml'

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
  /** Words, written under the first part. */
  lyrics?: readonly Lyric[]
  /**
   * Open strings as MIDI numbers from the lowest, without capo: grips are written as tablature too.
   */
  tuning?: readonly number[]
  /**
   * A chord melody, written as a part of its own: the melody with stems up, the grips under it with
   * stems down.
   */
  chordMelody?: readonly HarmonisedNote[]
  /** What a band plays, for formats that are heard: in place of grips that are struck once. */
  band?: BandScore
  /**
   * The figure as it is written, bars once each: as slashes over the chord symbols, or as the
   * voices that sound.
   */
  comping?: { as: 'slashes' | 'voices'; hits: readonly CompingHit<WrittenNote>[]; swing: number }
}

/** A note of a band, in beats of the first metre from the beginning of what is played. */
export interface BandNote {
  from: number
  lasts: number
  midi: number
  /** Above 0 to 1. */
  velocity: number
}
/**
 * What a band plays of a tune in the order in which it is played; swung where that was asked for.
 */
export interface BandScore {
  guitar: readonly BandNote[]
  bass: readonly BandNote[]
  time: readonly { from: number; strong: boolean; brush: 'sweep' | 'tap' | null }[]
}

interface ScorePart {
  name: string
  /** What sounds in a bar: one voice over the other. */
  voices: (bar: Bar) => Pick<Voice, 'soundings' | 'symbols'>[]
  /** Something of it has a place on the neck. */
  onNeck: boolean
}

const HEAD = `<?xml version="1.0" encoding="UTF-8"?>
<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">`

/**
 * A tune as MusicXML 4.0 (W3C Community Group): the melody, chord symbols with frames and the grips
 * as notes with tablature marks, and a chord melody, each as a part.
 */
export function toMusicXml(score: Score): string {
  const file = new XmlElement()
  const root = file.ele('score-partwise', { version: '4.0' })
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
  return `${HEAD}\n${file.written()}`
}

/**
 * The parts of a score. Symbols, with the frames of their grips, stand in the first of them only.
 */
function partsOf({ chart, chords, melody = [], chordMelody = [], comping }: Score): ScorePart[] {
  const symbolsOf = (bar: Bar) => [
    // Before the first chord nobody plays: without a word for it readers take what they like.
    ...(bar === chart.bars[0] && beginsSilent(chart) ? [{ at: 0, written: null }] : []),
    ...bar.slots.flatMap((slot): HarmonyAt[] =>
      slot.held
        ? []
        : [{ at: lengthOf(slot.beat - bar.from, bar.meter), written: chords.get(slotKey(slot)) ?? null }],
    ),
  ]
  const guitar: ScorePart = {
    name: 'Guitar',
    onNeck: [...chords.values()].some(({ voicing }) => voicing !== null),
    voices: (bar) => [
      {
        soundings: bar.slots.flatMap((slot) => slotPiece(slot, bar, chords)),
        symbols: melody.length > 0 ? [] : symbolsOf(bar),
      },
    ],
  }
  const parts = [guitar]
  if (melody.length > 0) {
    const pieces = groupedByBar(notatedPieces(chart, melody))
    parts.unshift({
      name: 'Melody',
      onNeck: false,
      voices: (bar) => [
        { soundings: (pieces.get(bar.number) ?? []).map(sungPiece(bar)), symbols: symbolsOf(bar) },
      ],
    })
  }
  if (comping) {
    const pieces = groupedByBar(piecesOfComping(chart, comping.hits))
    parts.push({
      name: comping.as === 'slashes' ? 'Comping rhythm' : 'Comping',
      onNeck: comping.as === 'voices',
      voices: (bar) => [{ soundings: (pieces.get(bar.number) ?? []).map(compedPiece(bar, comping.as)) }],
    })
  }
  if (chordMelody.length > 0) {
    const { upper, lower } = voicesOf(chart, chordMelody)
    parts.push({
      name: 'Chord melody',
      onNeck: true,
      voices: (bar) => [
        { soundings: upper.get(bar.number) ?? [], symbols: symbolsUnder(chordMelody, bar) },
        { soundings: lower.get(bar.number) ?? [] },
      ],
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
  const { upper, lower } = ringingLayers(chart, line)
  const cut = (layer: typeof upper) =>
    groupedByBar(
      layer.flatMap(({ from, to, voicing, struck }) => {
        const cuts = [from, ...clock.barLines.filter((at) => at > from + NEAR && at < to - NEAR), to]
        return cuts.slice(0, -1).map((begin, at) => {
          const { bar: number, beat } = clock.place(begin)
          const bar = entryOf(bars, number)
          const notes = struck.map((index) => {
            const { string, midi, note } = itemAt(voicing.strings, index)
            return {
              pitch: pitchAt(midi, note),
              string: stringNumber(string, voicing.frets.length),
              fret: itemAt(voicing.frets, string)!,
            }
          })
          return {
            bar: number,
            at: lengthOf(beat - bar.from, bar.meter),
            length: lengthOf(clock.beatsIn(number, itemAt(cuts, at + 1) - begin), bar.meter),
            notes,
            tiedFrom: at > 0,
            tiedOn: at < cuts.length - 2,
          }
        })
      }),
    )
  return { upper: cut(upper), lower: cut(lower) }
}

/** Staves of a part that is written as tablature too: the notes, and the strings under them. */
const NOTES_STAFF = 1
const TAB_STAFF = 2
/** Voices of the second staff count on from the first one's. */
const VOICES_ON_A_STAFF = 4

/** @param leads the first part: tempo, letters, signs and words stand there and nowhere else */
function writePart(part: XmlElement, { voices, onNeck }: ScorePart, score: Score, leads: boolean): void {
  const { chart, key } = score
  const { bars } = chart
  const strings = onNeck && score.tuning ? { tuning: score.tuning, capo: chart.capo } : null
  // A part needs a measure: a tune without bars is written as one bar of rest.
  if (bars.length === 0) {
    const measure = part.ele('measure', { number: '1' })
    writeAttributes(measure, { key, meter: chart.meter, begins: { strings: null, capo: chart.capo } })
    writeVoice(measure, {
      bar: { beats: chart.meter.beats, meter: chart.meter },
      key,
      name: '1',
      soundings: [],
    })
  }
  const keys = keysInForce(bars, key)
  const words = leads ? lyricsByBar(score.lyrics ?? [], bars) : new Map<number, readonly LyricAt[]>()
  bars.forEach((bar, index) => {
    const measure = part.ele('measure', {
      number: String(bar.number),
      ...(bar.beats < bar.meter.beats ? { implicit: 'yes' } : {}),
    })
    if (bar.opensRepeat || bar.ending.length > 0) writeLeftBarline(measure, bar)
    if (index === 0)
      writeAttributes(measure, { key, meter: bar.meter, begins: { strings, capo: chart.capo } })
    else if (bar.newKey || bar.newMeter)
      writeAttributes(measure, { key: bar.newKey, meter: bar.newMeter ? bar.meter : null })
    const signs = leads ? bar.marks : []
    if (leads && bar.opensSection && bar.section)
      measure.ele('direction', { placement: 'above' }).ele('direction-type').ele('rehearsal').txt(bar.section)
    if (leads && index === 0)
      writeTempo(measure, { tempo: score.tempo, meter: chart.meter, swing: score.comping?.swing ?? 1 })
    if (leads) bar.remarks.forEach((remark) => writeWords(measure, remark))
    signs.filter(beginsBar).forEach((mark) => writeMark(measure, mark))
    const goBack = () =>
      measure
        .ele('backup')
        .ele('duration')
        .txt(String(lengthOf(bar.beats, bar.meter)))
    const inBar = voices(bar).map((one, at): Voice => ({
      ...one,
      bar,
      key: entryOf(keys, bar.number),
      name: String(at + 1),
      lyrics: at === 0 ? (words.get(bar.number) ?? []) : [],
      capo: chart.capo,
      staff: strings && NOTES_STAFF,
    }))
    inBar.forEach((voice, at) => {
      if (at > 0) goBack()
      writeVoice(measure, voice)
    })
    if (strings)
      inBar.forEach((voice, at) => {
        goBack()
        writeTab(measure, { ...voice, name: String(VOICES_ON_A_STAFF + at + 1), staff: TAB_STAFF })
      })
    signs.filter((mark) => !beginsBar(mark)).forEach((mark) => writeMark(measure, mark))
    writeRightBarline(measure, bars, index)
  })
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
            fret: itemAt(voicing.frets, string)!,
          }))
        : [MIDDLE_LINE],
      slash: voicing === null,
      tiedFrom: false,
      tiedOn: false,
    },
  ]
}
