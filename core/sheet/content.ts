import { numeralOf, type NumeralSchool } from '../analysis/numeral'
import { analyse } from '../analysis/analyse'
import type { Chart } from '../chart/chart'
import { keyAbove } from '../chart/transpose'
import type { ChordSymbol } from '../chord/symbol'
import { piecesOfComping, type CompingPiece } from '../formats/comping'
import { notatedPieces, type Piece } from '../melody/clock'
import type { HarmonisedNote } from '../melody/melodyLine'
import type { Lyric } from '../melody/lyrics'
import { keyName, type Key } from '../pitch/key'
import { midi, midiOf, parsePitch, type Note, type Pitch } from '../pitch/note'
import { must } from '../result'
import type { PlayerBody } from '../player/playerLimits'
import { bassLine, type BassNote } from '../rhythm/bassLine'
import { accompanied, chartOfLine, type GuitarHit } from '../tune/accompaniment'
import { melodyOf } from '../tune/applyMelody'
import { lineChordUnder } from '../tune/decisions'
import type { TuneDocument } from '../tune/document'
import { applyEdit } from '../tune/tuneEdit'
import { groupedBy } from '../grouped'
import { madeChord, plainChord, shapeUnderCapo, type TuneReading } from '../tune/tuneReading'
import { reasonsOf, type ChangeReason } from '../tune/reasons'
import { scoreOf } from '../tune/score'
import { isStandard } from '../neck/otherInstrument'
import type { Voicing } from '../voicing/voicing'
import type { PartName, SheetLayout } from './sheetLayout'

/** A chord as it stands over its beat, or a silence. */
export interface SheetChord {
  bar: number
  beat: number
  beats: number
  /** Null where nothing is played, or where the text could not be read. */
  chord: ChordSymbol | null
  /** What is written where there is no chord. */
  text: string
  numeral: string | null
  /** With a capo: the chord whose shape is fingered. */
  shape: ChordSymbol | null
  voicing: Voicing | null
  /** Chords of the home line that begin while it sounds. */
  homes: { chord: ChordSymbol; numeral: string }[]
  /** Numbers of its footnotes, from 1. */
  notes: number[]
}

/** A note of the tab: a string from the lowest, 0, and its fret from the capo. */
export interface TabNote {
  string: number
  fret: number
}
export interface TabStroke {
  bar: number
  beat: number
  notes: readonly TabNote[]
}

/** A tune as a sheet shows it: everything its layout can carry, as it is written for the part. */
export interface SheetContent {
  title: string
  key: Key
  /** Where a capo lies: the key that is fingered. */
  fingered: Key | null
  tempo: number
  /** What the guitar plays by, in words; null for plain chords. */
  figure: string | null
  /** Open strings from the lowest, where they are not the usual ones. */
  strings: readonly Note[] | null
  instrumentStrings: number
  chart: Chart
  chords: SheetChord[]
  melody: Piece[]
  lyrics: readonly Lyric[]
  /** A sounding pitch as it is written in the part. */
  written: (pitch: Pitch) => Pitch
  rhythm: CompingPiece<never>[]
  chordMelody: TabStroke[]
  comping: TabStroke[]
  bass: BassNote[]
  reasons: ChangeReason[]
  part: PartName
  /** What a set says of the tune; empty where nothing. */
  note: string
}

/**
 * Half steps a part is written above what sounds; the octave of the guitar and of the bass is in
 * their clefs. Common practice, no source.
 */
const WRITTEN_ABOVE: Readonly<Record<PartName, number>> = { concert: 0, 'b-flat': 2, 'e-flat': 9, bass: 0 }
/**
 * The lowest written note that trumpets and saxophones have (F sharp and B flat below the staff:
 * the higher of both).
 */
const LOWEST_WRITTEN = midi('Bb3')

/** The document as it is written for a transposing instrument. */
export function forPart(document: TuneDocument, key: Key, part: PartName): TuneDocument {
  const above = WRITTEN_ABOVE[part]
  return above === 0
    ? document
    : applyEdit(document, { kind: 'transpose', to: keyName(keyAbove(key, above)) })
}

/**
 * What a sheet of a tune shows. @param document with the grips it has; those it lacks are not
 * looked for
 */
export function sheetContent(
  document: TuneDocument,
  body: PlayerBody,
  layout: SheetLayout,
  school: NumeralSchool = 'case',
): SheetContent {
  const home = scoreOf(document, body, school)
  const transposed = forPart(document, home.key, layout.part)
  const score = transposed === document ? home : scoreOf(transposed, body, school)
  const { reading, key, chart } = score
  const { rhythm } = transposed
  const hasFigure = rhythm.figure !== null || Object.keys(rhythm.byHand).length > 0
  const grips = new Map(
    [...score.chords].flatMap(([place, { voicing }]) => (voicing ? [[place, voicing] as const] : [])),
  )
  const figure = typeof rhythm.figure === 'string' ? rhythm.figure : 'by hand'
  const hits = hasFigure
    ? accompanied({ reading, document: transposed, which: 'new', grips, order: 'written' }).hits
    : []
  const tuning = body.instrument.tuning.map(midi)
  const melody = notatedPieces(reading.chart, melodyOf(transposed))
  const reasons = reasonsOf(reading)
  const [written, sounding] = [score, home].map(({ melody: notes }) => notes?.[0] && midiOf(notes[0].note))
  return {
    title: document.title,
    key,
    fingered: chart.capo > 0 && layout.part === 'concert' ? keyAbove(key, -chart.capo) : null,
    tempo: document.tempo,
    figure: hits.length > 0 ? figure : null,
    strings:
      isStandard(tuning) || layout.part !== 'concert'
        ? null
        : body.instrument.tuning.map((open) => must(parsePitch(open))),
    instrumentStrings: tuning.length,
    chart: layout.symbols === 'plain' ? reading.chart : chart,
    chords:
      layout.symbols === 'plain'
        ? plainChords(reading)
        : newChords(reading, grips, key, school, layout.reasons ? reasons : []),
    melody,
    lyrics: document.lyrics,
    written: writtenFor(layout.part, melody, (written ?? 0) - (sounding ?? 0)),
    rhythm: piecesOfComping(
      chart,
      hits.map(({ bar, beat, beats, accent }) => ({
        bar,
        beat,
        beats,
        accent: accent === 'accent',
        notes: [],
      })),
    ),
    chordMelody: strokesOf(score.chordMelody ?? [], chart.capo),
    comping: hasFigure ? strokesOfHits(hits, grips, chart.capo) : strokesOfGrips(reading, grips, chart.capo),
    bass: bassOf(reading, transposed, layout.symbols === 'plain' ? 'plain' : 'new'),
    reasons,
    part: layout.part,
    note: '',
  }
}

/**
 * Guitar sounds an octave below what is written; a transposed part that would lie below its
 * instrument goes an octave up.
 * @param moved half steps by which the melody was transposed
 */
function writtenFor(part: PartName, melody: readonly Piece[], moved: number): (pitch: Pitch) => Pitch {
  const up = (octaves: number) => (pitch: Pitch) => ({ ...pitch, octave: pitch.octave + octaves })
  if (part === 'concert' || part === 'bass') return up(1)
  const octaves = Math.round((WRITTEN_ABOVE[part] - moved) / 12)
  const lowest = Math.min(...melody.map(({ note }) => midiOf(note.note) + 12 * octaves))
  return up(lowest < LOWEST_WRITTEN ? octaves + 1 : octaves)
}

function plainChords(reading: TuneReading): SheetChord[] {
  const shapeOf = shapeUnderCapo(reading.chart, reading.analysis.key)
  return reading.chords.map((one): SheetChord => {
    const chord = plainChord(one)
    return {
      ...placeOf(one),
      chord,
      text: chord ? '' : one.slot.text,
      numeral: chord ? one.reading!.roman : null,
      shape: chord && shapeOf(chord),
      voicing: null,
      homes: [],
      notes: [],
    }
  })
}

function newChords(
  reading: TuneReading,
  grips: ReadonlyMap<string, Voicing>,
  key: Key,
  school: NumeralSchool,
  reasons: readonly ChangeReason[],
): SheetChord[] {
  const shapeOf = shapeUnderCapo(reading.chart, key)
  const homes = groupedBy(reading.chords, (chord) => lineChordUnder(reading.line, chord.index)?.key)
  return reading.line.map((one): SheetChord => {
    const chord = madeChord(one)
    const under = homes.get(one.key) ?? []
    const keyHere = reading.chords[one.home]?.reading?.key ?? key
    return {
      ...placeOf(one),
      chord,
      text: chord ? '' : one.slot.text,
      numeral: chord && numeralOf(chord, keyHere, school),
      shape: chord && shapeOf(chord),
      voicing: grips.get(one.key) ?? null,
      homes: under.flatMap((home) => {
        const plain = plainChord(home)
        return plain ? [{ chord: plain, numeral: home.reading!.roman }] : []
      }),
      notes: reasons.flatMap(({ decision }, at) =>
        one.first && decision.key === one.decision?.key ? [at + 1] : [],
      ),
    }
  })
}

const placeOf = ({ slot: { bar, beat, beats } }: { slot: SheetPlace }): SheetPlace => ({ bar, beat, beats })
type SheetPlace = Pick<SheetChord, 'bar' | 'beat' | 'beats'>

/** What is struck of a chord melody: what is held on is not struck again. */
const strokesOf = (made: readonly HarmonisedNote[], capo: number): TabStroke[] =>
  made.map(({ bar, beat, voicing, under }) => {
    const highest = voicing.midis.at(-1)
    const struck = voicing.strings.filter(({ midi: sound }) => {
      if (under === 'held') return sound === highest
      return under !== 'line' || sound !== highest
    })
    return { bar, beat, notes: struck.map(({ string }) => tabNote(voicing, string, capo)) }
  })

const tabNote = ({ frets }: Voicing, string: number, capo: number): TabNote => ({
  string,
  fret: Math.max(0, (frets[string] ?? 0) - capo),
})

function strokesOfHits(
  hits: readonly GuitarHit[],
  grips: ReadonlyMap<string, Voicing>,
  capo: number,
): TabStroke[] {
  return hits.flatMap(({ bar, beat, key, midis }) => {
    const voicing = grips.get(key)
    const struck = new Set(midis)
    return voicing
      ? [
          {
            bar,
            beat,
            notes: voicing.strings
              .filter(({ midi: sound }) => struck.has(sound))
              .map(({ string }) => tabNote(voicing, string, capo)),
          },
        ]
      : []
  })
}

const strokesOfGrips = (
  { line }: TuneReading,
  grips: ReadonlyMap<string, Voicing>,
  capo: number,
): TabStroke[] =>
  line.flatMap(({ key, slot: { bar, beat } }) => {
    const voicing = grips.get(key)
    return voicing
      ? [{ bar, beat, notes: voicing.strings.map(({ string }) => tabNote(voicing, string, capo)) }]
      : []
  })

/** The bass of the tune's band; roots where it has none. */
function bassOf(reading: TuneReading, { rhythm }: TuneDocument, which: 'plain' | 'new'): BassNote[] {
  const { chart } = chartOfLine(reading, rhythm.bass === 'none' ? which : rhythm.band)
  return bassLine(chart, analyse(chart), rhythm.bass === 'none' ? 'roots' : rhythm.bass)
}

/**
 * The grips of a sheet once each, with the chord they stand for, in the order in which they come.
 */
export function legendOf(chords: readonly SheetChord[]): { chord: ChordSymbol; voicing: Voicing }[] {
  const seen = new Map<string, { chord: ChordSymbol; voicing: Voicing }>()
  for (const { chord, voicing } of chords) {
    if (!chord || !voicing) continue
    const key = `${chord.canonical} ${voicing.frets.join()}`
    if (!seen.has(key)) seen.set(key, { chord, voicing })
  }
  return [...seen.values()]
}

/** The chords of each bar, by its number. */
export const chordsByBar = (chords: readonly SheetChord[]): Map<number, SheetChord[]> =>
  groupedBy(chords, ({ bar }) => bar)
