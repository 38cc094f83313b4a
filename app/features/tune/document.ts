import { z } from 'zod'
import { STYLE_NAMES, type StyleName } from '../../../core/leading/weights'
import { slotsOf } from '../../../core/chart/chart'
import { carryOver } from '../../../core/chart/carryOver'
import { parseChart, TEMPO_RANGE } from '../../../core/chart/parse'
import { transposeSymbol, transposeText } from '../../../core/chart/transpose'
import { parseChord } from '../../../core/chord/parse'
import { parseKey, type Key } from '../../../core/pitch/key'
import { must } from '../../../core/result'
import { analyse } from '../../../core/analysis/analyse'

/** Everything the player made of one tune, in the form in which it is edited, sent and remembered. */
const slot = z.string().regex(/^\d+:\d+(\.\d+)?$/, 'a place such as 3:1 (bar:beat)').max(16)
const frets = z.array(z.int().min(0).max(36).nullable()).min(4).max(8)
const symbol = z.string().max(80).refine((text) => parseChord(text).ok, 'a chord symbol such as Am9')
export const MOST_TITLE = 120
const title = z.string().trim().min(1, 'a title of 1 to 120 letters').max(MOST_TITLE, 'a title of 1 to 120 letters')
/** 100,000 letters is about 3,000 bars. */
const text = z.string().max(100_000, 'a chart of at most 100,000 letters')
const colour = z.union([z.literal(0), z.literal(1), z.literal(2), z.literal(3), z.literal(4)])
const bass = z.enum(['chord', 'any'])
const style = z.enum(STYLE_NAMES as [StyleName, ...StyleName[]])
const line = z.int().min(0).max(19)
const tempo = z.int().min(TEMPO_RANGE[0]).max(TEMPO_RANGE[1])
/** `by: 'tune'` where a way through the whole tune put it there, and the next way may take it away again; else by hand. */
const choice = z.strictObject({ symbol, rule: z.string().max(20), by: z.literal('tune').optional() })

/** A chart and what is being made of it. */
const madeOfChart = {
  text, colour, bass, style, line,
  /** Chords chosen by hand, by slot of the home line. */
  choices: z.record(slot, choice),
  /** Grips chosen by hand. */
  fixed: z.record(slot, frets),
  /** Grips of the line that is kept, fixed ones among them. */
  grips: z.record(slot, frets),
}
const chartName = z.string().trim().min(1, 'a name of 1 to 40 letters').max(40, 'a name of 1 to 40 letters')
/** Charts one tune can have. */
export const MOST_CHARTS = 20
const otherChart = z.strictObject({ name: chartName, ...madeOfChart })
type OtherChart = z.infer<typeof otherChart>
export const FIRST_CHART_NAME = 'Plain'

export const tuneDocument = z.strictObject({
  title, tempo, ...madeOfChart,
  /** Name of the chart that is worked on. */
  chart: chartName.default(FIRST_CHART_NAME),
  /** Its place among the tune's charts, from 0. */
  at: z.int().min(0).max(MOST_CHARTS - 1).default(0),
  /** The tune's other charts, in their order. */
  others: z.array(otherChart).max(MOST_CHARTS - 1).default([]),
})
export type TuneDocument = z.infer<typeof tuneDocument>
export type Bass = TuneDocument['bass']

/** One thing the player does to a tune. */
export const tuneEdit = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('title'), title }),
  z.strictObject({ kind: z.literal('text'), text }),
  /** One thing done to beats or bars: a step of its own for undo, with what was done. */
  z.strictObject({ kind: z.literal('bars'), text, did: z.string().min(1).max(80) }),
  z.strictObject({ kind: z.literal('transpose'), to: z.string().max(20).refine((name) => parseKey(name).ok, 'a key such as Bb or F#m') }),
  z.strictObject({ kind: z.literal('colour'), colour }),
  z.strictObject({ kind: z.literal('choose'), slot, choice: choice.nullable() }),
  /** A way through the whole tune takes the place of the one before; chords and grips chosen by hand stay. */
  z.strictObject({ kind: z.literal('way'), choices: z.record(slot, choice), did: z.string().min(1).max(80) }),
  z.strictObject({ kind: z.literal('bass'), bass }),
  z.strictObject({ kind: z.literal('style'), style }),
  z.strictObject({ kind: z.literal('line'), line }),
  z.strictObject({ kind: z.literal('tempo'), tempo }),
  z.strictObject({ kind: z.literal('fix'), slot, frets: frets.nullable() }),
  /** Another chart of the tune, begun as a copy of the one shown with all that was made of it. */
  z.strictObject({ kind: z.literal('chart-add'), name: chartName }),
  z.strictObject({ kind: z.literal('chart-show'), at: z.int().min(0).max(MOST_CHARTS - 1) }),
  z.strictObject({ kind: z.literal('chart-name'), name: chartName }),
  /** Takes the chart shown out of the tune; undo brings it back. The last one stays. */
  z.strictObject({ kind: z.literal('chart-remove') }),
  /** What the search found for the present state. It is kept with that state and is no step of its own for undo. */
  z.strictObject({ kind: z.literal('grips'), grips: z.record(slot, frets) }),
])
export type TuneEdit = z.infer<typeof tuneEdit>

export const DEFAULT_TEMPO = 96

export const newDocument = (name: string, chartText = ''): TuneDocument => ({
  title: name, text: chartText, colour: 0, bass: 'chord', style: 'smooth', line: 0,
  tempo: Math.round(parseChart(chartText).tempo ?? DEFAULT_TEMPO), choices: {}, fixed: {}, grips: {},
  chart: FIRST_CHART_NAME, at: 0, others: [],
})

/** What a document becomes by an edit. The same function serves the screen at once and the database after it. */
export function applyEdit(document: TuneDocument, edit: TuneEdit): TuneDocument {
  switch (edit.kind) {
    case 'title': return { ...document, title: edit.title }
    case 'text': case 'bars': return withText(document, edit.text)
    case 'transpose': return transposed(document, must(parseKey(edit.to)))
    case 'colour': return { ...document, colour: edit.colour, ...unfixed(document), line: 0 }
    case 'choose': {
      const { [edit.slot]: _, ...choices } = document.choices
      const { [edit.slot]: __, ...fixed } = document.fixed
      return { ...document, fixed, choices: edit.choice ? { ...choices, [edit.slot]: edit.choice } : choices }
    }
    case 'way': return withWay(document, edit.choices)
    case 'bass': return { ...document, bass: edit.bass, line: 0 }
    case 'style': return { ...document, style: edit.style, line: 0 }
    case 'line': return { ...document, line: edit.line }
    case 'tempo': return { ...document, tempo: edit.tempo }
    case 'fix': {
      const { [edit.slot]: _, ...fixed } = document.fixed
      return { ...document, line: 0, fixed: edit.frets ? { ...fixed, [edit.slot]: edit.frets } : fixed }
    }
    case 'grips': return { ...document, grips: edit.grips }
    case 'chart-add': return withChartAdded(document, edit.name)
    case 'chart-show': return showing(document, chartsOf(document), edit.at)
    case 'chart-name': return { ...document, chart: edit.name }
    case 'chart-remove': return document.others.length === 0 ? document : showing(document, document.others, Math.max(0, document.at - 1))
  }
}

/** Places where the player decided something: a chord or a grip. */
export const decidedByHand = ({ choices, fixed }: Pick<TuneDocument, 'choices' | 'fixed'>): Set<string> =>
  new Set([...Object.keys(choices).filter((place) => choices[place]!.by !== 'tune'), ...Object.keys(fixed)])

function withWay(document: TuneDocument, way: TuneDocument['choices']): TuneDocument {
  const byHand = decidedByHand(document)
  const kept = Object.entries(document.choices).filter(([place]) => byHand.has(place))
  const taken = Object.entries(way).filter(([place]) => !byHand.has(place)).map(([place, { symbol, rule }]) => [place, { symbol, rule, by: 'tune' as const }] as const)
  return { ...document, choices: Object.fromEntries([...kept, ...taken]), line: 0 }
}

/** All charts of a tune in their order, the one shown among them. */
export function chartsOf({ others, at, chart, text, colour, bass, style, line, choices, fixed, grips }: TuneDocument): OtherChart[] {
  const shown: OtherChart = { name: chart, text, colour, bass, style, line, choices, fixed, grips }
  return [...others.slice(0, at), shown, ...others.slice(at)]
}

/** The document with these charts, one of them shown. */
function showing(document: TuneDocument, charts: readonly OtherChart[], at: number): TuneDocument {
  const { name, ...made } = charts[Math.min(at, charts.length - 1)]!
  const place = Math.min(at, charts.length - 1)
  return { ...document, ...made, chart: name, at: place, others: charts.filter((_, index) => index !== place) }
}

function withChartAdded(document: TuneDocument, name: string): TuneDocument {
  const charts = chartsOf(document)
  if (charts.length >= MOST_CHARTS) return document
  const copy = { ...charts[document.at]!, name }
  return showing(document, [...charts.slice(0, document.at + 1), copy, ...charts.slice(document.at + 1)], document.at + 1)
}

/** A grip fixed by hand belongs to the chord it was chosen for; it stays where the chord was chosen by hand too. */
const unfixed = (document: TuneDocument): Pick<TuneDocument, 'fixed'> => ({
  fixed: Object.fromEntries(Object.entries(document.fixed).filter(([place]) => place in document.choices)),
})

/** Choices and grips follow their chords when bars are put in, taken out or moved along; a title or tempo changed in the text counts. */
function withText(document: TuneDocument, next: string): TuneDocument {
  const before = parseChart(document.text)
  const after = parseChart(next)
  const moved = carryOver(slotsOf(before), slotsOf(after))
  const carry = <T>(record: Record<string, T>): Record<string, T> =>
    Object.fromEntries(Object.entries(record).flatMap(([place, value]) => (moved.has(place) ? [[moved.get(place)!, value]] : [])))
  const newTempo = after.tempo !== null && after.tempo !== before.tempo ? Math.round(after.tempo) : document.tempo
  const newTitle = after.title !== null && after.title !== '' && after.title !== before.title ? after.title.slice(0, MOST_TITLE) : document.title
  return {
    ...document, text: next, tempo: newTempo, title: newTitle,
    choices: carry(document.choices), fixed: carry(document.fixed), grips: carry(document.grips),
  }
}

/** The tune in another key: chart and chosen chords move together. Grips fixed by hand belong to the old key and are let go. */
function transposed(document: TuneDocument, to: Key): TuneDocument {
  const from = analyse(parseChart(document.text)).key
  const choices = Object.entries(document.choices).map(([place, { symbol: chosen, rule }]) => [place, { symbol: transposeSymbol(chosen, from, to), rule }])
  return { ...document, text: transposeText(document.text, from, to), choices: Object.fromEntries(choices) as TuneDocument['choices'], fixed: {}, grips: {}, line: 0 }
}

/** What was done, for undo and redo. */
export function labelOf(edit: TuneEdit): string {
  switch (edit.kind) {
    case 'title': return 'title'
    case 'text': return 'chart text'
    case 'bars': return edit.did
    case 'transpose': return `transposed to ${edit.to}`
    case 'colour': return 'colour of the whole tune'
    case 'choose': return edit.choice ? `${edit.choice.symbol} in bar ${edit.slot.split(':')[0]!}` : `plain chord back in bar ${edit.slot.split(':')[0]!}`
    case 'way': return edit.did
    case 'bass': return 'who plays the bass'
    case 'style': return 'style of the lines'
    case 'line': return `line ${edit.line + 1}`
    case 'tempo': return `tempo ${edit.tempo}`
    case 'fix': return `${edit.frets ? 'grip' : 'grip set free'} in bar ${edit.slot.split(':')[0]!}`
    case 'grips': return 'grips'
    case 'chart-add': return `new chart ${edit.name}`
    case 'chart-show': return 'another chart'
    case 'chart-name': return `chart named ${edit.name}`
    case 'chart-remove': return 'chart taken out'
  }
}
