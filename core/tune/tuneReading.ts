import { analyse } from '../analysis/analyse'
import type { NumeralSchool } from '../analysis/numeral'
import type { Analysis, Reading } from '../analysis/chordReading'
import { slotKey, slotsOf, type Chart, type Slot } from '../chart/chart'
import { parseChart } from '../chart/parseChart'
import { keyAbove, transposeSymbol } from '../chart/transpose'
import { parseChord } from '../chord/parseChord'
import type { ChordSymbol } from '../chord/symbol'
import type { Key } from '../pitch/key'
import type { PlayerBody } from '../player/playerLimits'
import { decisionsOf, newLineOf, type Decision, type LineChord } from './decisions'
import { namedBySound } from './sounding'
import type { TuneDocument } from './document'

/** One chord of the home line with everything the core says of it. */
export interface TuneChord {
  key: string
  /** Place in the order of the home line, from 0, over all slots. */
  index: number
  slot: Slot
  /** Null for a silence or a symbol that could not be read. */
  reading: Reading | null
  /**
   * What stands for it in the new line, alone or with its neighbours; null where nothing sounds.
   */
  decision: Decision | null
  /** With a capo: the chord whose shape is fingered. */
  played: ChordSymbol | null
  /** How long it sounds, in beats of the metre the tune begins with. */
  lasts: number
}

export interface TuneReading {
  chart: Chart
  analysis: Analysis
  /** The home line. */
  chords: TuneChord[]
  decisions: Decision[]
  /** The new line. */
  line: LineChord[]
  /**
   * Whose instrument the grips by hand are read on; without one they are not read, and chords keep
   * the names they were chosen by.
   */
  body: PlayerBody | null
}

/** What of a document makes its lines. */
export type MadeOfLines = Pick<TuneDocument, 'colour' | 'choices' | 'fixed'> &
  Partial<Pick<TuneDocument, 'gripsOn' | 'called'>>

/** Home line and new line of a document. Pure and quick: it runs on every key press. */
export function readTuneDocument(
  document: Pick<TuneDocument, 'text'> & MadeOfLines,
  school: NumeralSchool = 'case',
  body: PlayerBody | null = null,
): TuneReading {
  const chart = parseChart(document.text)
  const analysis = analyse(chart, school)
  return { chart, analysis, ...readLines(chart, analysis, document, body) }
}

/** Home line and new line over a chart that is read already. */
export function readLines(
  chart: Chart,
  analysis: Analysis,
  document: MadeOfLines,
  body: PlayerBody | null,
): Pick<TuneReading, 'chords' | 'decisions' | 'line' | 'body'> {
  const shape = shapeUnderCapo(chart, analysis.key)
  const units = new Map(chart.bars.map((bar) => [bar.number, bar.meter.unit]))
  const readings = new Map(analysis.readings.map((reading) => [slotKey(reading.slot), reading]))
  const decisions = decisionsOf(chart, analysis, document)
  const byHome = new Map(
    decisions.flatMap((decision) =>
      Array.from({ length: decision.span }, (_, at) => [decision.index + at, decision] as const),
    ),
  )
  const chords = slotsOf(chart).map((slot, index): TuneChord => {
    const key = slotKey(slot)
    return {
      key,
      index,
      slot,
      reading: readings.get(key) ?? null,
      decision: byHome.get(index) ?? null,
      played: slot.symbol?.kind === 'chord' ? shape(slot.symbol.chord) : null,
      lasts: (slot.beats * chart.meter.unit) / (units.get(slot.bar) ?? chart.meter.unit),
    }
  })
  const plainLine = newLineOf(chart, decisions, document.fixed)
  const line = body ? namedBySound(plainLine, document, chart.capo, analysis.key, body) : plainLine
  return {
    chords,
    decisions,
    line: chart.capo === 0 ? line : line.map((one) => ({ ...one, played: shapeOf(one, shape) })),
    body,
  }
}

/** The shape that is fingered for a chord of the new line, with a capo. */
function shapeOf(one: LineChord, shape: (chord: ChordSymbol) => ChordSymbol | null): ChordSymbol | null {
  const made = madeChord(one)
  return made && shape(made)
}

/** Names the shape that is fingered when a capo lies on the neck. */
export function shapeUnderCapo({ capo }: Chart, key: Key): (chord: ChordSymbol) => ChordSymbol | null {
  if (capo === 0) return () => null
  const shapes = keyAbove(key, -capo)
  return (chord) => {
    const shape = parseChord(transposeSymbol(chord.text, key, shapes))
    return shape.ok ? shape.value : null
  }
}

/** The same chart with other decisions: a trial, or a version that was kept. */
export const readingWith = (reading: TuneReading, made: MadeOfLines): TuneReading => ({
  ...reading,
  ...readLines(reading.chart, reading.analysis, made, reading.body),
})

/** The plain chord of a slot; null where none could be read. */
export const plainChord = ({ slot, reading }: Pick<TuneChord, 'slot' | 'reading'>): ChordSymbol | null =>
  reading && slot.symbol?.kind === 'chord' ? slot.symbol.chord : null

/** What sounds at a place of the new line. */
export const madeChord = ({ slot, decision }: LineChord): ChordSymbol | null =>
  decision && slot.symbol?.kind === 'chord' ? slot.symbol.chord : null
