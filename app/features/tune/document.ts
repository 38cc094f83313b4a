import { z } from 'zod'
import { CONTOURS } from '../../../core/leading/contour'
import { TEXTURE_NAMES } from '../../../core/leading/texture'
import { STYLE_NAMES, TERM_NAMES, type StyleName, type Term } from '../../../core/leading/weights'
import { slotsOf } from '../../../core/chart/chart'
import { parseChart, TEMPO_RANGE } from '../../../core/chart/parse'
import { transposeSymbol, transposeText } from '../../../core/chart/transpose'
import { parseChord } from '../../../core/chord/parse'
import { parseKey, type Key } from '../../../core/pitch/key'
import { must } from '../../../core/result'
import { analyse } from '../../../core/analysis/analyse'
import { followed, movedKey, transposedMelody, withFixed, withMelody, withoutGrips } from '../melody/applyMelody'
import { chordMelody, melody, melodyEdits, phrases, PLAIN_CHORD_MELODY, stringing } from '../melody/schema'
import { following, homeIndexAt, placeFollowing } from './following'

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
/** Every grip of the line that was kept stays; only what has none is looked for. */
export const STAYS = -1
/** Which of the lines found is taken, from 0, or `STAYS`. */
const line = z.int().min(STAYS).max(19)
const tempo = z.int().min(TEMPO_RANGE[0]).max(TEMPO_RANGE[1])
/** A chord put in, with its length in proportion to the others put in with it. */
const put = z.strictObject({ symbol, beats: z.number().positive().max(10_000) })
/** Neighbouring chords of the home line that one choice can take the place of, and chords it can put there. */
export const MOST_IN_A_CHOICE = 16
const chosen = z.strictObject({
  chords: z.array(put).min(1).max(MOST_IN_A_CHOICE),
  /** How many chords of the home line it takes the place of. */
  span: z.int().min(1).max(MOST_IN_A_CHOICE),
  rule: z.string().max(40),
  /** When it was chosen, in milliseconds since 1970; 0 where that is not known. */
  at: z.int().min(0),
  /** Where a way through the whole tune put it there, and the next way may take it away again; else by hand. */
  by: z.literal('tune').optional(),
})
/** Choices were once one chord in place of one: `{symbol, rule}`. */
const oneChord = z.strictObject({ symbol, rule: z.string().max(20), by: z.literal('tune').optional() })
const choice = z.preprocess((given) => {
  const old = oneChord.safeParse(given)
  if (!old.success) return given
  const { symbol: one, ...rest } = old.data
  return { ...rest, chords: [{ symbol: one, beats: 1 }], span: 1, at: 0 }
}, chosen)
export type Choice = z.infer<typeof chosen>

function omitText<Shape extends { text: unknown }>({ text: _, ...rest }: Shape): Omit<Shape, 'text'> {
  return rest
}

const midi = z.int().min(0).max(127)
const fretNumber = z.int().min(1).max(36)
const stringIndex = z.int().min(0).max(7)
/** Something the grips of a stretch of the new line have to keep to; strings are counted from the lowest, 0. */
const stretch = { from: slot, to: slot }
const condition = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('top'), midi, ...stretch }),
  z.strictObject({ kind: z.literal('sounds'), midi, ...stretch }),
  z.strictObject({ kind: z.literal('silent'), string: stringIndex, ...stretch }),
  z.strictObject({ kind: z.literal('open'), string: stringIndex, ...stretch }),
  z.strictObject({ kind: z.literal('frets'), low: fretNumber, high: fretNumber, ...stretch }),
  z.strictObject({ kind: z.literal('range'), low: midi, high: midi, ...stretch }),
])
export type Condition = z.infer<typeof condition>
/** Conditions one chart can have. */
export const MOST_CONDITIONS = 40

/** A term that came later counts for nothing in a style kept before. */
const weight = z.number().min(0).max(100).default(0)
/** A style of the player's own: its weights, and the named style whose limits its grips keep to. */
export const ownStyle = z.strictObject({
  name: z.string().trim().min(1, 'a name of 1 to 40 letters').max(40, 'a name of 1 to 40 letters'), base: style,
  weights: z.strictObject(Object.fromEntries(TERM_NAMES.map((term) => [term, weight])) as Record<Term, typeof weight>).refine((table) => Object.values(table).some((one) => one > 0), 'weights of which one is above 0'),
})
export type OwnStyle = z.infer<typeof ownStyle>
/** How the lines are led beyond the style's name. */
const leading = z.strictObject({
  own: ownStyle.nullable(),
  /** The form repeats: the last chord leads back to the first. */
  loop: z.boolean(),
  /** One position: the frets the hand stays in; null for the best ones. */
  window: z.tuple([fretNumber, fretNumber]).nullable(),
  /** Drone: the string, or the pitch; null for the best open string. */
  drone: z.union([z.strictObject({ string: stringIndex }), z.strictObject({ midi })]).nullable(),
  /** Top-led: the shape of the highest voice. */
  contour: z.enum(CONTOURS).nullable().default(null),
  /** The kind of grip; null for what the chart suggests. */
  texture: z.enum(TEXTURE_NAMES).nullable().default(null),
})
export type Leading = z.infer<typeof leading>
export const PLAIN_LEADING: Leading = { own: null, loop: false, window: null, drone: null, contour: null, texture: null }

/** A chart and what is being made of it. */
const madeOfChart = {
  text, colour, bass, style, line,
  /** Chords chosen by hand, by slot of the home line. */
  choices: z.record(slot, choice),
  /** Grips chosen by hand. */
  fixed: z.record(slot, frets),
  /** Grips of the line that is kept, fixed ones among them. */
  grips: z.record(slot, frets),
  /** Open strings and capo for which a grip was made, as `instrumentName` writes them; grips kept before that was written down have none. */
  gripsOn: z.record(slot, stringing).default({}),
  /** What the player calls a grip by hand knowingly, where it is not what it sounds. */
  called: z.record(slot, symbol).default({}),
  /** What the lines have to keep to. */
  conditions: z.array(condition).max(MOST_CONDITIONS).default([]),
  leading: leading.default(PLAIN_LEADING),
  /** What is made under the melody. */
  chordMelody: chordMelody.default(PLAIN_CHORD_MELODY),
}
/** Versions one chart can keep. */
export const MOST_VERSIONS = 30
const versionName = z.string().trim().min(1, 'a name of 1 to 40 letters').max(40, 'a name of 1 to 40 letters')
/** What was made of a chart, kept under a name. */
const version = z.strictObject({ name: versionName, at: z.int().min(0), ...omitText(madeOfChart) })
export type VersionKept = z.infer<typeof version>
/** The melody belongs to the chart and is the same for every version. */
const withVersions = { ...madeOfChart, melody: melody.default([]), phrases: phrases.default({}), versions: z.array(version).max(MOST_VERSIONS).default([]) }

const chartName = z.string().trim().min(1, 'a name of 1 to 40 letters').max(40, 'a name of 1 to 40 letters')
/** Charts one tune can have. */
export const MOST_CHARTS = 20
const otherChart = z.strictObject({ name: chartName, ...withVersions })
type OtherChart = z.infer<typeof otherChart>
export const FIRST_CHART_NAME = 'Plain'

export const tuneDocument = z.strictObject({
  title, tempo, ...withVersions,
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
  /** `joins`: it goes on with the word typed before it, and is no step of its own for undo. */
  z.strictObject({ kind: z.literal('text'), text, joins: z.boolean().optional() }),
  /** One thing done to beats or bars: a step of its own for undo, with what was done. */
  z.strictObject({ kind: z.literal('bars'), text, did: z.string().min(1).max(80) }),
  z.strictObject({ kind: z.literal('transpose'), to: z.string().max(20).refine((name) => parseKey(name).ok, 'a key such as Bb or F#m') }),
  z.strictObject({ kind: z.literal('colour'), colour }),
  z.strictObject({ kind: z.literal('choose'), slot, choice: choice.nullable() }),
  /** Several places at once, as one step: a stretch changed, or its plain chords put back. */
  z.strictObject({ kind: z.literal('choose-many'), choices: z.record(slot, choice.nullable()), did: z.string().min(1).max(80) }),
  /** A way through the whole tune takes the place of the one before; chords and grips chosen by hand stay. */
  z.strictObject({ kind: z.literal('way'), choices: z.record(slot, choice), did: z.string().min(1).max(80) }),
  /** Keeps what is made now under a name; one of the same name is replaced. */
  z.strictObject({ kind: z.literal('version-keep'), name: versionName, at: z.int().min(0) }),
  /** A kept version becomes what is worked on. */
  z.strictObject({ kind: z.literal('version-take'), name: versionName }),
  z.strictObject({ kind: z.literal('version-remove'), name: versionName }),
  z.strictObject({ kind: z.literal('bass'), bass }),
  z.strictObject({ kind: z.literal('style'), style }),
  /** How the lines are led; with a style of the player's own its base becomes the style. */
  z.strictObject({ kind: z.literal('leading'), leading }),
  z.strictObject({ kind: z.literal('line'), line }),
  z.strictObject({ kind: z.literal('tempo'), tempo }),
  /**
   * A grip chosen by hand, or (null) left to the search again. The other grips stay unless `anew` asks for the rest of the line to be led around it.
   * `called` is what the player knowingly calls a grip that sounds something else.
   */
  z.strictObject({ kind: z.literal('fix'), slot, frets: frets.nullable(), on: stringing.optional(), called: symbol.nullable().optional(), anew: z.boolean().optional() }),
  /** A beat between two chords gets a grip of its own: the choice it becomes part of, with the grips of that choice. */
  z.strictObject({ kind: z.literal('extra-beat'), slot, choice, grips: z.record(slot, frets), on: stringing.optional(), did: z.string().min(1).max(80) }),
  z.strictObject({ kind: z.literal('condition-add'), condition }),
  /** By its place in the list. */
  z.strictObject({ kind: z.literal('condition-remove'), at: z.int().min(0).max(MOST_CONDITIONS - 1) }),
  /** Several grips at once, as one step: a note pulled while the rest of the line stays. */
  z.strictObject({ kind: z.literal('fix-many'), grips: z.record(slot, frets), on: stringing.optional(), anew: z.boolean().optional(), did: z.string().min(1).max(80) }),
  /** Another chart of the tune, begun as a copy of the one shown with all that was made of it. */
  z.strictObject({ kind: z.literal('chart-add'), name: chartName }),
  z.strictObject({ kind: z.literal('chart-show'), at: z.int().min(0).max(MOST_CHARTS - 1) }),
  z.strictObject({ kind: z.literal('chart-name'), name: chartName }),
  /** Takes the chart shown out of the tune; undo brings it back. The last one stays. */
  z.strictObject({ kind: z.literal('chart-remove') }),
  /** What the search found for the present state. It is kept with that state and is no step of its own for undo. */
  z.strictObject({ kind: z.literal('grips'), grips: z.record(slot, frets), on: stringing.optional() }),
  ...melodyEdits,
  /** The tune with another one's text and melody: a file brought in. */
  z.strictObject({ kind: z.literal('bring-in'), text, melody, did: z.string().min(1).max(80) }),
])
export type TuneEdit = z.infer<typeof tuneEdit>

/** What a search found, not something the player did: it is no step of its own for undo. */
export const isFound = ({ kind }: TuneEdit): boolean => kind === 'grips' || kind === 'melody-kept'

export const DEFAULT_TEMPO = 96

export const newDocument = (name: string, chartText = ''): TuneDocument => ({
  title: name, text: chartText, colour: 0, bass: 'chord', style: 'smooth', line: 0,
  tempo: Math.round(parseChart(chartText).tempo ?? DEFAULT_TEMPO), choices: {}, fixed: {}, grips: {}, gripsOn: {}, called: {}, versions: [], conditions: [], leading: PLAIN_LEADING, chordMelody: PLAIN_CHORD_MELODY, melody: [], phrases: {},
  chart: FIRST_CHART_NAME, at: 0, others: [],
})

/** What a document becomes by an edit. The same function serves the screen at once and the database after it. */
export function applyEdit(document: TuneDocument, edit: TuneEdit): TuneDocument {
  switch (edit.kind) {
    case 'title': return { ...document, title: edit.title }
    case 'text': case 'bars': return withText(document, edit.text)
    case 'transpose': return transposed(document, must(parseKey(edit.to)))
    case 'colour': return { ...document, colour: edit.colour, ...unfixed(document), line: 0 }
    case 'choose': return withChoice(document, edit.slot, edit.choice)
    case 'choose-many': return Object.entries(edit.choices).reduce((now, [place, made]) => withChoice(now, place, made), document)
    case 'way': return withWay(document, edit.choices)
    case 'version-keep': return withVersionKept(document, edit.name, edit.at)
    case 'version-take': {
      const { name: _, at: __, ...made } = document.versions.find((one) => one.name === edit.name) ?? { name: '', at: 0 }
      return { ...document, ...made }
    }
    case 'version-remove': return { ...document, versions: document.versions.filter((one) => one.name !== edit.name) }
    case 'bass': return { ...document, bass: edit.bass, line: 0 }
    case 'style': return { ...document, style: edit.style, leading: { ...document.leading, own: null }, line: 0 }
    case 'leading': return { ...document, style: edit.leading.own?.base ?? document.style, leading: edit.leading, line: 0 }
    case 'extra-beat': {
      const made = withChoice(document, edit.slot, edit.choice)
      return withGripsFixed(made, edit)
    }
    case 'line': return { ...document, line: edit.line }
    case 'tempo': return { ...document, tempo: edit.tempo }
    case 'fix': {
      if (edit.frets) {
        const fixed = withGripsFixed(document, { grips: { [edit.slot]: edit.frets }, on: edit.on, anew: edit.anew })
        return edit.called ? { ...fixed, called: { ...fixed.called, [edit.slot]: edit.called } } : fixed
      }
      const without = <T>(made: Record<string, T>) => Object.fromEntries(Object.entries(made).filter(([place]) => place !== edit.slot))
      return { ...document, line: edit.anew ? 0 : STAYS, fixed: without(document.fixed), grips: without(document.grips), gripsOn: without(document.gripsOn), called: without(document.called) }
    }
    case 'condition-add': return { ...document, line: 0, conditions: [...document.conditions, edit.condition] }
    case 'condition-remove': return { ...document, line: 0, conditions: document.conditions.filter((_, at) => at !== edit.at) }
    case 'fix-many': return withGripsFixed(document, edit)
    // A grip by hand stays what the player made, also where the search had to move it or find another for the instrument at hand.
    case 'grips': return { ...document, grips: { ...edit.grips, ...document.fixed }, gripsOn: edit.on ? Object.fromEntries(Object.keys(edit.grips).map((place) => [place, place in document.fixed ? document.gripsOn[place] ?? edit.on! : edit.on!])) : document.gripsOn }
    case 'melody': return withMelody(document, edit.melody)
    case 'bring-in': return withMelody(withText(document, edit.text), edit.melody)
    case 'phrases': return { ...document, phrases: edit.phrases }
    case 'chord-melody': return { ...document, chordMelody: { ...document.chordMelody, ...edit.settings, line: 0 } }
    case 'melody-line': return { ...document, chordMelody: { ...document.chordMelody, line: edit.line } }
    case 'melody-fix': return { ...document, chordMelody: withFixed(document.chordMelody, edit.fixed) }
    case 'melody-kept': return { ...document, chordMelody: { ...document.chordMelody, kept: edit.kept } }
    case 'chart-add': return withChartAdded(document, edit.name)
    case 'chart-show': return showing(document, chartsOf(document), edit.at)
    case 'chart-name': return { ...document, chart: edit.name }
    case 'chart-remove': return document.others.length === 0 ? document : showing(document, document.others, Math.max(0, document.at - 1))
  }
}

/** Grips by hand put in; the rest of the line stays as it is unless it is to be led anew. What they were called before is no longer said of them. */
function withGripsFixed(document: TuneDocument, { grips, on, anew = false }: { grips: TuneDocument['grips']; on?: string | undefined; anew?: boolean | undefined }): TuneDocument {
  const places = Object.keys(grips)
  const gripsOn = on ? { ...document.gripsOn, ...Object.fromEntries(places.map((place) => [place, on])) } : Object.fromEntries(Object.entries(document.gripsOn).filter(([place]) => !places.includes(place)))
  return {
    ...document, line: anew ? 0 : STAYS, fixed: { ...document.fixed, ...grips }, grips: { ...document.grips, ...grips }, gripsOn,
    called: Object.fromEntries(Object.entries(document.called).filter(([place]) => !places.includes(place))),
  }
}

/** Chords of the home line, by index, where the player decided something: a choice or a grip. */
export function decidedByHand({ text, choices, fixed }: Pick<TuneDocument, 'text' | 'choices' | 'fixed'>): Set<number> {
  const slots = slotsOf(parseChart(text))
  const choicesByHand = Object.entries(choices).filter(([, one]) => one.by !== 'tune').flatMap(([place, one]) => {
    const from = homeIndexAt(slots, place)
    return Array.from({ length: one.span }, (_, at) => from + at)
  })
  return new Set([...choicesByHand, ...Object.keys(fixed).map((place) => homeIndexAt(slots, place))].filter((index) => index >= 0))
}

/** A choice put in, or taken out; others that stood on the same chords give way, and so do grips fixed in their time. */
function withChoice(document: TuneDocument, place: string, made: Choice | null): TuneDocument {
  const slots = slotsOf(parseChart(document.text))
  const from = homeIndexAt(slots, place)
  const covers = (key: string, span: number, to: number) => { const at = homeIndexAt(slots, key); return at >= 0 && at < to && at + span > from }
  const span = made?.span ?? document.choices[place]?.span ?? 1
  const choices = Object.fromEntries(Object.entries(document.choices).filter(([key, one]) => key !== place && !(made && covers(key, one.span, from + span))))
  const fixed = Object.fromEntries(Object.entries(document.fixed).filter(([key]) => key !== place && !covers(key, 1, from + span)))
  return { ...document, fixed, choices: made ? { ...choices, [place]: made } : choices }
}

function withWay(document: TuneDocument, way: TuneDocument['choices']): TuneDocument {
  const slots = slotsOf(parseChart(document.text))
  const byHand = decidedByHand(document)
  const isFree = ([place, one]: [string, Choice]) => { const from = homeIndexAt(slots, place); return !Array.from({ length: one.span }, (_, at) => from + at).some((index) => byHand.has(index)) }
  const kept = Object.entries(document.choices).filter(([, one]) => one.by !== 'tune')
  const taken = Object.entries(way).filter(isFree).map(([place, one]) => [place, { ...one, by: 'tune' as const }] as const)
  return { ...document, choices: Object.fromEntries([...kept, ...taken]), line: 0 }
}

function withVersionKept(document: TuneDocument, name: string, at: number): TuneDocument {
  const { colour, bass, style, line, choices, fixed, grips, gripsOn, called, conditions, leading, chordMelody: under, versions } = document
  const kept: VersionKept = { name, at, colour, bass, style, line, choices, fixed, grips, gripsOn, called, conditions, leading, chordMelody: under }
  const others = versions.filter((one) => one.name !== name)
  return { ...document, versions: [...others, kept] }
}

/** All charts of a tune in their order, the one shown among them. */
export function chartsOf({ others, at, chart, title: _title, tempo: _tempo, ...made }: TuneDocument): OtherChart[] {
  const shown: OtherChart = { name: chart, ...made }
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
  const copy = { ...charts[document.at]!, name }
  return showing(document, [...charts.slice(0, document.at + 1), copy, ...charts.slice(document.at + 1)], document.at + 1)
}

/** A grip fixed by hand belongs to the chord it was chosen for; it stays where the chord was chosen by hand too. */
function unfixed(document: TuneDocument): Pick<TuneDocument, 'fixed'> {
  const byHand = decidedByHand({ ...document, fixed: {} })
  const slots = slotsOf(parseChart(document.text))
  return { fixed: Object.fromEntries(Object.entries(document.fixed).filter(([place]) => byHand.has(homeIndexAt(slots, place)))) }
}

/** Choices, grips and versions follow their chords when bars are put in, taken out or moved along; a title or tempo changed in the text counts. */
function withText(document: TuneDocument, next: string): TuneDocument {
  const before = parseChart(document.text)
  const after = parseChart(next)
  const follow = following(slotsOf(before), slotsOf(after))
  const newTempo = after.tempo !== null && after.tempo !== before.tempo ? Math.round(after.tempo) : document.tempo
  const newTitle = after.title !== null && after.title !== '' && after.title !== before.title ? after.title.slice(0, MOST_TITLE) : document.title
  const move = placeFollowing(slotsOf(before), slotsOf(after))
  const under = ({ chordMelody: made }: Pick<TuneDocument, 'chordMelody'>) => ({ chordMelody: { ...made, fixed: Object.fromEntries(Object.entries(made.fixed).map(([place, one]) => [movedKey(place, move), one])) } })
  return {
    ...document, ...follow(document), ...followed(document, move), ...under(document), text: next, tempo: newTempo, title: newTitle,
    versions: document.versions.map((one) => ({ ...one, ...follow(one), ...under(one) })),
  }
}

/** The tune in another key: chart and chosen chords move together, in the versions too. Grips belong to the old key and are let go. */
function transposed(document: TuneDocument, to: Key): TuneDocument {
  const from = analyse(parseChart(document.text)).key
  const turned = ({ choices, conditions }: Pick<TuneDocument, 'choices' | 'conditions'>) => ({
    // Pitches that were asked for belong to the old key.
    conditions: conditions.filter(({ kind }) => kind === 'silent' || kind === 'frets'),
    choices: Object.fromEntries(Object.entries(choices).map(([place, one]) =>
      [place, { ...one, chords: one.chords.map((chord) => ({ ...chord, symbol: transposeSymbol(chord.symbol, from, to) })) }])),
    fixed: {}, grips: {}, gripsOn: {}, called: {}, line: 0,
  })
  const ofVersion = (one: VersionKept) => ({ ...one, ...turned(one), chordMelody: withoutGrips(one.chordMelody) })
  return { ...document, ...turned(document), ...transposedMelody(document, from, to), text: transposeText(document.text, from, to), versions: document.versions.map(ofVersion) }
}

/** What was done, for undo and redo. */
export function labelOf(edit: TuneEdit): string {
  switch (edit.kind) {
    case 'title': return 'title'
    case 'text': return 'chart text'
    case 'bars': return edit.did
    case 'transpose': return `transposed to ${edit.to}`
    case 'colour': return 'colour of the whole tune'
    case 'choose': return edit.choice ? `${edit.choice.chords.map((one) => one.symbol).join(' ')} in bar ${edit.slot.split(':')[0]!}` : `plain chord back in bar ${edit.slot.split(':')[0]!}`
    case 'way': case 'choose-many': case 'fix-many': case 'extra-beat': case 'melody': case 'melody-fix': case 'bring-in': return edit.did
    case 'phrases': return 'phrases'
    case 'chord-melody': return `chord melody: ${edit.settings.texture}, a chord with each ${edit.settings.density}`
    case 'melody-line': return `way ${edit.line + 1} of the chord melody`
    case 'melody-kept': return 'chord melody'
    case 'version-keep': return `kept as ${edit.name}`
    case 'version-take': return `back to version ${edit.name}`
    case 'version-remove': return `version ${edit.name} deleted`
    case 'bass': return 'who plays the bass'
    case 'style': return 'style of the lines'
    case 'leading': return edit.leading.own ? `style ${edit.leading.own.name}` : 'how the lines are led'
    case 'line': return edit.line === STAYS ? 'the line as it is' : `line ${edit.line + 1}`
    case 'tempo': return `tempo ${edit.tempo}`
    case 'fix': return `${edit.frets ? 'grip' : 'grip left to the search'} in bar ${edit.slot.split(':')[0]!}`
    case 'grips': return 'grips'
    case 'condition-add': return 'condition for the lines'
    case 'condition-remove': return 'condition taken away'
    case 'chart-add': return `new chart ${edit.name}`
    case 'chart-show': return 'another chart'
    case 'chart-name': return `chart named ${edit.name}`
    case 'chart-remove': return 'chart taken out'
  }
}
