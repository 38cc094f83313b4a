import { slotsOf, type Chart } from '../../../core/chart/chart'
import type { Analysis } from '../../../core/analysis/reading'
import { noteName } from '../../../core/pitch/note'
import { INTENTS, type Intent } from '../../../core/reharm/change'
import type { ColourOption } from '../../../core/reharm/colour'
import type { Distance } from '../../../core/reharm/distance'
import { optionsOf, type Option } from '../../../core/reharm/options'
import { spotsOf, type Spot } from '../../../core/reharm/spot'
import type { TuneChord } from '../workspace/useTuneReading'

/** A chord that can stand in the place of one, with what it does to the tune. */
export interface Offered {
  option: ColourOption
  intent: Intent
  name: string
  /** Null for the plain chord. */
  distance: Distance | null
  lost: readonly string[]
  /** The same chord by other ways. */
  also: Option['also']
}

/** Swaps and borrowed chords are no stop of the colour control. */
const BEYOND_THE_CONTROL = 4

/** A change that puts one chord in the place of one, as the new line keeps it. */
const asOption = ({ puts, rule, why, mood, added }: Option): ColourOption => {
  const { chord } = puts[0]!
  return { chord, rule, level: BEYOND_THE_CONTROL, special: true, why, mood, added: chord.tones.filter((tone) => added.includes(noteName(tone.note))).map((tone) => tone.degree) }
}

/** Everything one chord can become without taking time from another, by intent; the plain chord and its colours first. */
export function offeredFor(chord: TuneChord, chart: Chart, analysis: Analysis): Offered[] {
  const spots = spotsFor(chart, analysis)
  const changes = optionsOf(chart, spots, chord.index).filter((option) => option.span === 1 && option.puts.length === 1)
  const byRule = new Map(changes.map((change) => [change.puts[0]!.chord.canonical, change]))
  const colours = chord.options.map((option, at): Offered => {
    const change = byRule.get(option.chord.canonical)
    return { option, intent: 'colour', name: at === 0 ? 'as it is' : option.special ? 'special colour' : 'colour', distance: change?.distance ?? null, lost: [], also: change?.also ?? [] }
  })
  const others = changes.filter((change) => change.intent !== 'colour').map((change): Offered => ({
    option: asOption(change), intent: change.intent, name: change.name, distance: change.distance, lost: change.lost, also: change.also,
  }))
  others.sort((a, b) => INTENTS.indexOf(a.intent) - INTENTS.indexOf(b.intent) || (a.distance?.total ?? 0) - (b.distance?.total ?? 0))
  return [...colours, ...others]
}

/** The reason of a chord chosen by hand that is no colour of its place, when a rule still gives it. */
export function swapChosen(index: number, symbol: string, chart: Chart, analysis: Analysis): ColourOption | null {
  const change = optionsOf(chart, spotsFor(chart, analysis), index).find((option) => option.span === 1 && option.puts.length === 1 && option.puts[0]!.chord.canonical === symbol)
  return change ? asOption(change) : null
}

/** Spots of the chart read last: the drawer and the new line ask for many chords of one chart. */
let last: { chart: Chart; spots: (Spot | null)[] } | null = null
function spotsFor(chart: Chart, analysis: Analysis): (Spot | null)[] {
  if (last?.chart !== chart) last = { chart, spots: slotsOf(chart).length > 0 ? spotsOf(chart, analysis) : [] }
  return last.spots
}
