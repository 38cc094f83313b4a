import { useMemo } from 'react'
import { analyse } from '../../../core/analysis/analyse'
import type { Analysis, Reading } from '../../../core/analysis/reading'
import { slotKey, slotsOf, type Chart, type Slot } from '../../../core/chart/chart'
import { parseChart } from '../../../core/chart/parse'
import { keyAbove, transposeSymbol } from '../../../core/chart/transpose'
import { parseChord } from '../../../core/chord/parse'
import type { ChordSymbol } from '../../../core/chord/symbol'
import { coloursOf, colourAt, type ColourOption } from '../../../core/reharm/colour'
import type { NumeralSchool } from '../../../core/analysis/numeral'
import type { Key } from '../../../core/pitch/key'
import { swapChosen } from '../colour/offered'
import { useNumerals } from '../schools/numerals'
import type { TuneDocument } from '../tune/document'

/** One chord of the tune with everything the core says of it. */
export interface TuneChord {
  key: string
  /** Place in the order of the tune, from 0, over all slots. */
  index: number
  slot: Slot
  /** Null for a silence or a symbol that could not be read. */
  reading: Reading | null
  options: ColourOption[]
  /** What stands in the new line; null where nothing sounds. */
  made: ColourOption | null
  /** It was chosen, by hand or by a way through the whole tune, and can be given back to the control. */
  chosen: boolean
  byHand: boolean
  fixed: boolean
  /** With a capo: the chord whose shape is fingered. */
  played: ChordSymbol | null
  /** How long it sounds, in beats of the metre the tune begins with. */
  lasts: number
}

export interface TuneReading {
  chart: Chart
  analysis: Analysis
  chords: TuneChord[]
}

/** Home line and new line of a document. Pure and quick: it runs on every key press. */
export function readTuneDocument(document: Pick<TuneDocument, 'text' | 'colour' | 'choices' | 'fixed'>, school: NumeralSchool = 'case'): TuneReading {
  const chart = parseChart(document.text)
  const analysis = analyse(chart, school)
  const shape = shapeUnderCapo(chart, analysis.key)
  const units = new Map(chart.bars.map((bar) => [bar.number, bar.meter.unit]))
  const readings = new Map(analysis.readings.map((reading) => [slotKey(reading.slot), reading]))
  const chords = slotsOf(chart).map((slot, index): TuneChord => {
    const key = slotKey(slot)
    const reading = readings.get(key) ?? null
    const options = reading ? coloursOf(reading) : []
    const choice = document.choices[key]
    const chosen = reading && choice ? chosenOption(options, choice.symbol, choice.rule, () => swapChosen(index, choice.symbol, chart, analysis)) : null
    return {
      key, index, slot, reading, options,
      made: chosen ?? (options.length > 0 ? colourAt(options, document.colour) : null),
      chosen: chosen !== null,
      byHand: chosen !== null && choice?.by !== 'tune',
      fixed: key in document.fixed,
      played: slot.symbol?.kind === 'chord' ? shape(slot.symbol.chord) : null,
      lasts: (slot.beats * chart.meter.unit) / (units.get(slot.bar) ?? chart.meter.unit),
    }
  })
  return { chart, analysis, chords }
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

/** The option the player took; a symbol no longer offered is kept as it was chosen. */
function chosenOption(options: ColourOption[], symbol: string, rule: string, swap: () => ColourOption | null): ColourOption | null {
  const offered = options.find((option) => option.chord.canonical === symbol) ?? swap()
  if (offered) return offered
  const chord = parseChord(symbol)
  return chord.ok
    ? { chord: chord.value, rule, level: 0, special: true, why: 'Chosen by hand when this chord stood elsewhere or had another job.', mood: '', added: [] }
    : null
}

export function useTuneReading(document: TuneDocument): TuneReading {
  const { text, colour, choices, fixed } = document
  const { school } = useNumerals()
  return useMemo(() => readTuneDocument({ text, colour, choices, fixed }, school), [text, colour, choices, fixed, school])
}

export const madeChord = (chord: TuneChord): ChordSymbol | null => chord.made?.chord ?? null
