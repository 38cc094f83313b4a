import { itemAt } from '../../lists'
import { z } from 'zod'
import { analyse } from '../../analysis/analyse'
import { slotKey, slotsOf } from '../../chart/chart'
import { parseChart } from '../../chart/parseChart'
import { parseChord } from '../../chord/parseChord'
import { transposeSymbol, transposeText } from '../../chart/transpose'
import { lyricsInOrder } from '../../melody/lyrics'
import { parseKey, type Key } from '../../pitch/key'
import { must } from '../../result'
import { followed, movedKey, transposedMelody, withMelody, withoutGrips } from '../applyMelody'
import {
  chartName,
  MOST_CHARTS,
  MOST_TITLE,
  STAYS,
  tempoSchema,
  text,
  title,
  type OtherChart,
  type TuneDocument,
  type VersionKept,
} from '../document'
import { following, placeFollowing } from '../following'
import { lyricsSchema, melodySchema } from '../melodySchema'
import { did, frets, symbol } from '../slotPlaces'
import { area } from './area'

/** Grips as a file draws them, by chord; as many as a song has chords. */
const drawn = z.array(z.strictObject({ symbol, frets })).max(500)

/** Text, key and charts of a tune, and what it is called. */
export const chartEdits = area(
  [
    z.strictObject({ kind: z.literal('title'), title }),
    z.strictObject({ kind: z.literal('tempo'), tempo: tempoSchema }),
    /** `joins`: it goes on with the word typed before it, and is no step of its own for undo. */
    z.strictObject({ kind: z.literal('text'), text, joins: z.boolean().optional() }),
    /** One thing done to beats or bars: a step of its own for undo, with what was done. */
    z.strictObject({ kind: z.literal('bars'), text, did }),
    z.strictObject({
      kind: z.literal('transpose'),
      to: z
        .string()
        .max(20)
        .refine((name) => parseKey(name).ok, 'a key such as Bb or F#m'),
    }),
    /**
     * The tune with another one's text, and what came with it: a file brought in. A melody that is
     * not given stays over its chords; words that are not, go.
     */
    z.strictObject({
      kind: z.literal('bring-in'),
      text,
      melody: melodySchema.optional(),
      lyrics: lyricsSchema.optional(),
      drawn: drawn.optional(),
      did,
    }),
    /** Another chart of the tune, begun as a copy of the one shown with all that was made of it. */
    z.strictObject({ kind: z.literal('chart-add'), name: chartName }),
    z.strictObject({
      kind: z.literal('chart-show'),
      at: z
        .int()
        .min(0)
        .max(MOST_CHARTS - 1),
    }),
    z.strictObject({ kind: z.literal('chart-name'), name: chartName }),
    /** Takes the chart shown out of the tune; undo brings it back. The last one stays. */
    z.strictObject({ kind: z.literal('chart-remove') }),
  ],
  {
    title: (document, edit) => ({ ...document, title: edit.title }),
    tempo: (document, edit) => ({ ...document, tempo: edit.tempo }),
    text: (document, edit) => withText(document, edit.text),
    bars: (document, edit) => withText(document, edit.text),
    transpose: (document, edit) => transposed(document, must(parseKey(edit.to))),
    'bring-in': (document, edit) => {
      const next = withText(document, edit.text)
      const sung = edit.melody ? withMelody(next, edit.melody) : next
      return { ...withDrawn(sung, edit.drawn ?? []), lyrics: lyricsInOrder(edit.lyrics ?? []) }
    },
    'chart-add': (document, edit) => withChartAdded(document, edit.name),
    'chart-show': (document, edit) => showing(document, chartsOf(document), edit.at),
    'chart-name': (document, edit) => ({ ...document, chart: edit.name }),
    'chart-remove': (document) =>
      document.others.length === 0
        ? document
        : showing(document, document.others, Math.max(0, document.at - 1)),
  },
  {
    title: () => 'title',
    tempo: (edit) => `tempo ${edit.tempo}`,
    text: () => 'chart text',
    bars: (edit) => edit.did,
    transpose: (edit) => `transposed to ${edit.to}`,
    'bring-in': (edit) => edit.did,
    'chart-add': (edit) => `new chart ${edit.name}`,
    'chart-show': () => 'another chart',
    'chart-name': (edit) => `chart named ${edit.name}`,
    'chart-remove': () => 'chart taken out',
  },
)

/** All charts of a tune in their order, the one shown among them. */
export function chartsOf({
  others,
  at,
  chart,
  title: _title,
  tempo: _tempo,
  ...made
}: TuneDocument): OtherChart[] {
  const shown: OtherChart = { name: chart, ...made }
  return [...others.slice(0, at), shown, ...others.slice(at)]
}

/** The document with these charts, one of them shown. */
function showing(document: TuneDocument, charts: readonly OtherChart[], at: number): TuneDocument {
  const { name, ...made } = itemAt(charts, Math.min(at, charts.length - 1))
  const place = Math.min(at, charts.length - 1)
  return {
    ...document,
    ...made,
    chart: name,
    at: place,
    others: charts.filter((_, index) => index !== place),
  }
}

function withChartAdded(document: TuneDocument, name: string): TuneDocument {
  const charts = chartsOf(document)
  const copy = { ...itemAt(charts, document.at), name }
  return showing(
    document,
    [...charts.slice(0, document.at + 1), copy, ...charts.slice(document.at + 1)],
    document.at + 1,
  )
}

/**
 * The grips that were drawn for its chords, kept as the tune's line: a search leaves them where
 * they are.
 */
function withDrawn(document: TuneDocument, grips: z.infer<typeof drawn>): TuneDocument {
  const byChord = new Map(grips.map(({ symbol: text, frets: drawnFrets }) => [canonicalOf(text), drawnFrets]))
  const here = slotsOf(parseChart(document.text)).flatMap((slot) => {
    const found = slot.symbol?.kind === 'chord' ? byChord.get(slot.symbol.chord.canonical) : undefined
    return found ? [[slotKey(slot), found] as const] : []
  })
  return here.length === 0
    ? document
    : { ...document, grips: { ...document.grips, ...Object.fromEntries(here) }, line: STAYS }
}
const canonicalOf = (text: string): string => must(parseChord(text)).canonical

/**
 * Choices, grips and versions follow their chords when bars are put in, taken out or moved along; a
 * title or tempo changed in the text counts.
 */
function withText(document: TuneDocument, next: string): TuneDocument {
  const before = parseChart(document.text)
  const after = parseChart(next)
  const follow = following(slotsOf(before), slotsOf(after))
  const newTempo =
    after.tempo !== null && after.tempo !== before.tempo ? Math.round(after.tempo) : document.tempo
  const newTitle =
    after.title !== null && after.title !== '' && after.title !== before.title
      ? after.title.slice(0, MOST_TITLE)
      : document.title
  const move = placeFollowing(slotsOf(before), slotsOf(after))
  const under = ({ chordMelody: made }: Pick<TuneDocument, 'chordMelody'>) => ({
    chordMelody: {
      ...made,
      fixed: Object.fromEntries(
        Object.entries(made.fixed).map(([place, one]) => [movedKey(place, move), one]),
      ),
    },
  })
  const struck = ({ rhythm: made }: Pick<TuneDocument, 'rhythm'>) => ({
    rhythm: {
      ...made,
      byHand: Object.fromEntries(
        Object.entries(made.byHand).map(([place, one]) => [movedKey(place, move), one]),
      ),
      bars: Object.fromEntries(
        Object.entries(made.bars).map(([bar, one]) => [String(move({ bar: Number(bar), beat: 1 }).bar), one]),
      ),
    },
  })
  return {
    ...document,
    ...follow(document),
    ...followed(document, move),
    ...under(document),
    ...struck(document),
    text: next,
    tempo: newTempo,
    title: newTitle,
    versions: document.versions.map((one) => ({ ...one, ...follow(one), ...under(one), ...struck(one) })),
  }
}

/**
 * The tune in another key: chart and chosen chords move together, in the versions too. Grips belong
 * to the old key and are let go.
 */
function transposed(document: TuneDocument, to: Key): TuneDocument {
  const from = analyse(parseChart(document.text)).key
  const turned = ({ choices, conditions }: Pick<TuneDocument, 'choices' | 'conditions'>) => ({
    // Pitches that were asked for belong to the old key.
    conditions: conditions.filter(({ kind }) => kind === 'silent' || kind === 'frets'),
    choices: Object.fromEntries(
      Object.entries(choices).map(([place, one]) => [
        place,
        {
          ...one,
          chords: one.chords.map((chord) => ({ ...chord, symbol: transposeSymbol(chord.symbol, from, to) })),
        },
      ]),
    ),
    fixed: {},
    grips: {},
    gripsOn: {},
    called: {},
    line: 0,
  })
  const ofVersion = (one: VersionKept) => ({
    ...one,
    ...turned(one),
    chordMelody: withoutGrips(one.chordMelody),
  })
  return {
    ...document,
    ...turned(document),
    ...transposedMelody(document, from, to),
    text: transposeText(document.text, from, to),
    versions: document.versions.map(ofVersion),
  }
}
