import { z } from 'zod'
import { parseChart, TEMPO_RANGE } from '../chart/parseChart'
import { CONTOURS } from '../leading/contour'
import { STYLE_NAMES, type StyleName } from '../leading/weights'
import { ruleNow } from '../reharm/families'
import { ownStyle } from '../player/ownStyle'
import { chordMelody, lyricsSchema, melodySchema, phrases, PLAIN_CHORD_MELODY } from './melodySchema'
import { PLAIN_RHYTHM, rhythmSchema } from './rhythmSchema'
import { frets, HIGHEST_FRET, place, stringing, symbol } from './slotPlaces'
import { TEXTURE_NAMES } from '../leading/textureNames'

/**
 * Everything the player made of one tune, in the form in which it is edited, sent and remembered.
 */
export const MOST_TITLE = 120
export const title = z
  .string()
  .trim()
  .min(1, 'a title of 1 to 120 letters')
  .max(MOST_TITLE, 'a title of 1 to 120 letters')
/** 100,000 letters is about 3,000 bars. */
export const text = z.string().max(100_000, 'a chart of at most 100,000 letters')
export const colourSchema = z.union([z.literal(0), z.literal(1), z.literal(2), z.literal(3), z.literal(4)])
export const bass = z.enum(['chord', 'any'])
export const styleSchema = z.enum(STYLE_NAMES as [StyleName, ...StyleName[]])
/** Every grip of the line that was kept stays; only what has none is looked for. */
export const STAYS = -1
/** Which of the lines found is taken, from 0, or `STAYS`. */
export const lineSchema = z.int().min(STAYS).max(19)
export const tempoSchema = z.int().min(TEMPO_RANGE[0]).max(TEMPO_RANGE[1])
/** A chord put in, with its length in proportion to the others put in with it. */
const put = z.strictObject({ symbol, beats: z.number().positive().max(10_000) })
/**
 * Neighbouring chords of the home line that one choice can take the place of, and chords it can put
 * there.
 */
export const MOST_IN_A_CHOICE = 16
/** Letters of a rule's name, with those put on top of it. */
export const MOST_RULE = 160
/** Letters of a reason that is kept. */
export const MOST_WHY = 600
const chosen = z.strictObject({
  chords: z.array(put).min(1).max(MOST_IN_A_CHOICE),
  /** How many chords of the home line it takes the place of. */
  span: z.int().min(1).max(MOST_IN_A_CHOICE),
  /** By name; rules were once known by the number of their family. */
  rule: z.string().max(MOST_RULE).transform(ruleNow),
  /** When it was chosen, in milliseconds since 1970; 0 where that is not known. */
  at: z.int().min(0),
  /**
   * Where a way through the whole tune put it there, and the next way may take it away again; else
   * by hand.
   */
  by: z.literal('tune').optional(),
  /**
   * The reason it was chosen for, kept with it: another reading of the place later does not take it
   * away.
   */
  why: z.string().max(MOST_WHY).optional(),
})
/** Choices were once one chord in place of one: `{symbol, rule}`. */
const oneChord = z.strictObject({ symbol, rule: z.string().max(20), by: z.literal('tune').optional() })
export const choice = z.preprocess((given) => {
  const old = oneChord.safeParse(given)
  if (!old.success) return given
  const { symbol: one, ...rest } = old.data
  return { ...rest, chords: [{ symbol: one, beats: 1 }], span: 1, at: 0 }
}, chosen)
export type Choice = z.infer<typeof chosen>

const midi = z.int().min(0).max(127)
const fretNumber = z.int().min(1).max(HIGHEST_FRET)
const stringIndex = z.int().min(0).max(7)
/**
 * Something the grips of a stretch of the new line have to keep to; strings are counted from the
 * lowest, 0.
 */
const stretch = { from: place, to: place }
export const condition = z.discriminatedUnion('kind', [
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

/** How the lines are led beyond the style's name. */
export const leading = z.strictObject({
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
export const PLAIN_LEADING: Leading = {
  own: null,
  loop: false,
  window: null,
  drone: null,
  contour: null,
  texture: null,
}

/**
 * What is made of a chart: a line for each thing a player can make, with what stands before
 * anything is made.
 */
const made = {
  colour: colourSchema.default(0),
  bass: bass.default('chord'),
  style: styleSchema.default('smooth'),
  line: lineSchema.default(0),
  /** Chords chosen by hand, by slot of the home line. */
  choices: z.record(place, choice).default({}),
  /** Grips chosen by hand. */
  fixed: z.record(place, frets).default({}),
  /** Grips of the line that is kept, fixed ones among them. */
  grips: z.record(place, frets).default({}),
  /**
   * Open strings and capo for which a grip was made, as `stringingName` writes them; grips kept
   * before that was written down have none.
   */
  gripsOn: z.record(place, stringing).default({}),
  /** What the player calls a grip by hand knowingly, where it is not what it sounds. */
  called: z.record(place, symbol).default({}),
  /** What the lines have to keep to. */
  conditions: z.array(condition).max(MOST_CONDITIONS).default([]),
  leading: leading.default(PLAIN_LEADING),
  /** What is made under the melody. */
  chordMelody: chordMelody.default(PLAIN_CHORD_MELODY),
  /** How it is accompanied. */
  rhythm: rhythmSchema.default(PLAIN_RHYTHM),
}
/** Versions one chart can keep. */
export const MOST_VERSIONS = 30
export const versionName = z
  .string()
  .trim()
  .min(1, 'a name of 1 to 40 letters')
  .max(40, 'a name of 1 to 40 letters')
/** What was made of a chart, kept under a name. */
export const version = z.strictObject({ name: versionName, at: z.int().min(0), ...made })
export type VersionKept = z.infer<typeof version>
/** Melody and words belong to the chart and are the same for every version. */
const withVersions = {
  text,
  ...made,
  melody: melodySchema.default([]),
  phrases: phrases.default({}),
  lyrics: lyricsSchema.default([]),
  versions: z.array(version).max(MOST_VERSIONS).default([]),
}

export const chartName = z
  .string()
  .trim()
  .min(1, 'a name of 1 to 40 letters')
  .max(40, 'a name of 1 to 40 letters')
/** Charts one tune can have. */
export const MOST_CHARTS = 20
const otherChart = z.strictObject({ name: chartName, ...withVersions })
export type OtherChart = z.infer<typeof otherChart>
export const FIRST_CHART_NAME = 'Plain'

export const tuneDocument = z.strictObject({
  title,
  tempo: tempoSchema,
  ...withVersions,
  /** Name of the chart that is worked on. */
  chart: chartName.default(FIRST_CHART_NAME),
  /** Its place among the tune's charts, from 0. */
  at: z
    .int()
    .min(0)
    .max(MOST_CHARTS - 1)
    .default(0),
  /** The tune's other charts, in their order. */
  others: z
    .array(otherChart)
    .max(MOST_CHARTS - 1)
    .default([]),
})
export type TuneDocument = z.infer<typeof tuneDocument>
export type Bass = TuneDocument['bass']

export const DEFAULT_TEMPO = 96

/** A tune of which nothing is made. */
const PLAIN: TuneDocument = tuneDocument.parse({ title: 'Untitled', tempo: DEFAULT_TEMPO, text: '' })

export const newDocument = (name: string, chartText = ''): TuneDocument => ({
  ...PLAIN,
  title: name,
  text: chartText,
  tempo: Math.round(parseChart(chartText).tempo ?? DEFAULT_TEMPO),
})
