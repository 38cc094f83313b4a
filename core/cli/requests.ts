import { IDIOM_NAMES } from '../analysis/tuneIdiom'
import { z } from 'zod'
import { DENSITIES } from '../melody/melodyLine'
import { CONTOURS } from '../leading/contour'
import { TERM_NAMES } from '../leading/weights'
import { EXPORT_FORMATS } from '../formats/exportChart'
import { NOTES_FORMATS, PASTED_FORMATS } from '../formats/names'
import { MOST_DEPTH } from '../reharm/options'
import { BASS_KINDS } from '../rhythm/bassLine'
import { isZone } from '../practice/days'
import { GRADES, ITEM_KINDS } from '../practice/grade'
import { KEY_ORDERS } from '../practice/keysPractised'
import { QUESTION_KINDS } from '../practice/questions/question'
import { VOICING_FAMILIES } from '../voicing/family'
import { WALK_WAYS } from '../voicing/shapeWalk'
import { MELODY_TEXTURE_NAMES } from '../melody/melodyTextures'
import { TEXTURE_NAMES as LINE_TEXTURES } from '../leading/textureNames'
import {
  note,
  pitch,
  key,
  scaleField,
  pairOf,
  isLowThenHigh,
  ORDER,
  fretsSchema,
  limitsSchema,
  chartText,
  symbolField,
  tempoField,
  moment,
  numeralsField,
  count,
  styleField,
  notes,
  melodyField,
  lyricsField,
  guards,
  fragment,
  seed,
  figureSchema,
  tempoAndFigure,
  timesSchema,
  restart,
  holdField,
  vocabularyField,
} from './requestFields'

/** The style, where it is not left to be read from the chords. */
const idiom = z.enum(IDIOM_NAMES as [string, ...string[]]).optional()

export const requestSchemas = {
  parse: z.strictObject({ do: z.literal('parse'), symbol: symbolField }),
  chart: z.strictObject({ do: z.literal('chart'), text: chartText }),
  analyse: z.strictObject({ do: z.literal('analyse'), text: chartText, numerals: numeralsField }),
  skeleton: z.strictObject({
    do: z.literal('skeleton'),
    text: chartText,
    level: z.union([z.literal(1), z.literal(2), z.literal(3)]),
  }),
  import: z.strictObject({
    do: z.literal('import'),
    content: z.string().max(4_000_000),
    format: z.enum([...PASTED_FORMATS, ...NOTES_FORMATS, 'backup']),
    /** MIDI and backups are base64 in any case; MusicXML where it is compressed. */
    encoding: z.enum(['utf-8', 'base64']).optional(),
    /** Of a score of several parts the one with the melody, from 1 in the order of the file. */
    part: z.int().min(1).max(1_000).optional(),
  }),
  name: z
    .strictObject({
      do: z.literal('name'),
      frets: fretsSchema.optional(),
      notes: z.array(pitch).min(1).max(12).optional(),
      tuning: z.array(pitch).min(4).max(8).optional(),
      over: note.optional(),
      key: key.optional(),
      chord: symbolField.optional(),
      before: symbolField.optional(),
      after: symbolField.optional(),
    })
    .refine(
      (request) => (request.frets === undefined) !== (request.notes === undefined),
      'give either frets or notes',
    ),
  finger: z.strictObject({ do: z.literal('finger'), frets: fretsSchema, limits: limitsSchema.optional() }),
  voicings: z.strictObject({
    do: z.literal('voicings'),
    symbol: symbolField,
    limits: limitsSchema.optional(),
    count: count.optional(),
    sort: z.enum(['easy', 'reach', 'low', 'high']).optional(),
  }),
  options: z.strictObject({
    do: z.literal('options'),
    text: chartText,
    bar: z.int().min(0),
    beat: z.number().min(1),
    melody: melodyField.optional(),
    rules: z.array(z.string().min(1).max(20)).min(1).max(100).optional(),
    depth: z.int().min(1).max(MOST_DEPTH).optional(),
    idiom,
  }),
  reharmonise: z.strictObject({
    do: z.literal('reharmonise'),
    text: chartText,
    distance: z.number().min(0).max(1),
    count: count.max(20).optional(),
    melody: melodyField.optional(),
    seed: z
      .int()
      .min(0)
      .max(2 ** 31)
      .optional(),
    guards,
    idiom,
  }),
  judge: z.strictObject({
    do: z.literal('judge'),
    text: chartText,
    new: chartText,
    melody: melodyField.optional(),
    idiom,
    asked: z.number().min(0).max(1).optional(),
  }),
  motion: z.strictObject({ do: z.literal('motion'), from: notes, to: notes }),
  lead: z
    .strictObject({
      do: z.literal('lead'),
      text: chartText.optional(),
      symbols: z.array(symbolField).min(1).max(1000).optional(),
      style: styleField.optional(),
      limits: limitsSchema.optional(),
      weights: z
        .partialRecord(z.enum(TERM_NAMES as [string, ...string[]]), z.number().min(0).max(1000))
        .optional(),
      count: count.max(50).optional(),
      melody: melodyField.optional(),
      /** The form repeats: the step from the last chord to the first counts. */
      loop: z.boolean().optional(),
      /** The shape of the top voice. */
      contour: z.enum(CONTOURS).optional(),
      /** The tempo and the figure the hand has to keep up with. */
      times: tempoAndFigure.optional(),
      /** The kind of grip; without it what the chart suggests. */
      texture: z.enum(LINE_TEXTURES).optional(),
      /** Chords may take the free tensions of their role. */
      colour: z.boolean().optional(),
      /** The exact best ones, however near to one another. */
      near: z.boolean().optional(),
      window: pairOf(z.int().min(1).max(36)).refine(isLowThenHigh, ORDER).optional(),
      drone: z
        .union([
          z
            .int()
            .min(1)
            .max(8)
            .transform((string) => ({ string })),
          pitch.transform((midi) => ({ midi })),
        ])
        .optional(),
      fixed: z.record(z.string().regex(/^\d+$/, 'an index of a chord, from 0'), fretsSchema).optional(),
      /** What a chord that lasts does. */
      hold: holdField.optional(),
      /** The grips it is held to, and how many more may be used. */
      only: vocabularyField.optional(),
      new: z.int().min(0).max(50).optional(),
    })
    .refine(
      (request) => (request.text === undefined) !== (request.symbols === undefined),
      'give either text or symbols',
    )
    .refine(({ only, new: more }) => only !== undefined || more === undefined, {
      path: ['new'],
      message: 'new grips are counted beside those of only',
    }),
  pull: z.strictObject({
    do: z.literal('pull'),
    symbols: z.array(symbolField).min(1).max(1000),
    voicings: z.array(fretsSchema).min(1).max(1000),
    index: z.int().min(0),
    string: z.int().min(1).max(8),
    to: z.union([
      z
        .int()
        .min(0)
        .max(36)
        .transform((fret) => ({ fret })),
      pitch.transform((midi) => ({ midi })),
    ]),
    limits: limitsSchema.optional(),
    key: key.optional(),
  }),
  arrange: z.strictObject({
    do: z.literal('arrange'),
    text: chartText,
    melody: melodyField.optional(),
    distance: z.number().min(0).max(1),
    style: styleField.optional(),
    limits: limitsSchema.optional(),
    count: count.max(20).optional(),
    guards,
    texture: z.enum(LINE_TEXTURES).optional(),
    colour: z.boolean().optional(),
    idiom,
    times: tempoAndFigure.optional(),
  }),
  harmonise: z.strictObject({
    do: z.literal('harmonise'),
    text: chartText,
    melody: melodyField.min(1),
    style: styleField.optional(),
    limits: limitsSchema.optional(),
    count: count.max(20).optional(),
    density: z.enum(DENSITIES).optional(),
    times: tempoAndFigure.optional(),
    texture: z.enum(MELODY_TEXTURE_NAMES).optional(),
    tempo: z.number().min(20).max(400).optional(),
  }),
  export: z.strictObject({
    do: z.literal('export'),
    text: chartText,
    voicings: z.array(fretsSchema).max(5_000).optional(),
    melody: melodyField.optional(),
    lyrics: lyricsField.optional(),
    format: z.enum([...EXPORT_FORMATS, 'backup']),
    limits: limitsSchema.optional(),
  }),
  scale: z.discriminatedUnion('kind', [
    z.strictObject({
      do: z.literal('scale'),
      kind: z.literal('sixth-diminished'),
      chord: symbolField,
      limits: limitsSchema.optional(),
    }),
    z.strictObject({
      do: z.literal('scale'),
      kind: z.literal('sevenths'),
      key,
      tone: z.union([z.literal(1), z.literal(3), z.literal(5), z.literal(7)]).optional(),
      family: z.enum(VOICING_FAMILIES).optional(),
      notes: fragment.optional(),
      limits: limitsSchema.optional(),
    }),
    z.strictObject({
      do: z.literal('scale'),
      kind: z.literal('fourths'),
      key,
      notes: fragment.optional(),
      limits: limitsSchema.optional(),
    }),
  ]),
  ends: z.strictObject({ do: z.literal('ends'), key }),
  bassline: z.strictObject({
    do: z.literal('bassline'),
    text: chartText,
    kind: z.enum(BASS_KINDS),
    seed,
  }),
  figures: z.strictObject({ do: z.literal('figures'), meter: z.string().max(10).optional() }),
  rhythm: z.strictObject({
    do: z.literal('rhythm'),
    text: chartText,
    figure: figureSchema,
    restart,
    density: z.number().min(0).max(1).optional(),
    melody: melodyField.optional(),
    seed,
    phrase: z.union([z.literal(2), z.literal(4)]).optional(),
    times: timesSchema.optional(),
  }),
  ladder: z.strictObject({
    do: z.literal('ladder'),
    start: tempoField,
    goal: tempoField,
    passes: z.array(z.enum(GRADES)).max(10_000),
  }),
  plan: z.strictObject({
    do: z.literal('plan'),
    text: chartText,
    voicings: z.array(fretsSchema).min(1).max(1000),
    minutes: z.number().min(1).max(600),
    log: z
      .array(
        z.strictObject({
          kind: z.enum(ITEM_KINDS),
          item: z.string().min(1).max(300),
          at: moment,
          tempo: tempoField.optional(),
          grade: z.enum(GRADES),
        }),
      )
      .max(100_000),
    now: moment,
    /** Beats a minute wanted; the chart's tempo where it is not said. */
    goal: tempoField.optional(),
    zone: z.string().refine(isZone, 'an IANA time zone such as Europe/Vienna').optional(),
    limits: limitsSchema.optional(),
  }),
  question: z.strictObject({
    do: z.literal('question'),
    kind: z.enum(QUESTION_KINDS),
    symbols: z.array(symbolField).min(1).max(64),
    voicings: z.array(fretsSchema).min(1).max(64).optional(),
    key: key.optional(),
    seed: z
      .int()
      .min(0)
      .max(2 ** 31 - 1),
    limits: limitsSchema.optional(),
  }),
  keys: z.strictObject({ do: z.literal('keys'), text: chartText, order: z.enum(KEY_ORDERS), seed }),
  walk: z.strictObject({
    do: z.literal('walk'),
    frets: fretsSchema.refine(
      (frets) => frets.some((fret) => fret !== null),
      'at least one string that sounds',
    ),
    by: z.enum(WALK_WAYS),
    scale: scaleField.optional(),
    key: key.optional(),
    roots: z.array(note).min(1).max(48).optional(),
    /** How often it goes on; down where it is below 0. */
    steps: z.int().min(-24).max(24).optional(),
    /** Strings, by number, that ring on as they are. */
    ringing: z.array(z.int().min(1).max(8)).max(8).optional(),
    over: note.optional(),
    limits: limitsSchema.optional(),
  }),
  ring: z.strictObject({
    do: z.literal('ring'),
    text: chartText,
    string: z.int().min(1).max(8).optional(),
    limits: limitsSchema.optional(),
  }),
  capo: z.strictObject({ do: z.literal('capo'), text: chartText }),
  tempo: z
    .strictObject({
      do: z.literal('tempo'),
      text: chartText.optional(),
      symbols: z.array(symbolField).min(1).max(1000).optional(),
      voicings: z.array(fretsSchema).min(1).max(1000),
      figure: figureSchema.optional(),
      restart,
      limits: limitsSchema.optional(),
    })
    .refine(
      (request) => (request.text === undefined) !== (request.symbols === undefined),
      'give either text or symbols',
    ),
} as const
