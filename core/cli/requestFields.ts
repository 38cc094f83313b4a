import { z } from 'zod'
import { MOST_LYRIC, MOST_LYRICS } from '../melody/lyrics'
import { STAGES } from '../leading/vocabulary'
import { HOLD_STEPS, HOLD_TONES, HOLD_WAYS } from '../leading/holds/hold'
import { STYLE_NAMES, type StyleName } from '../leading/weights'
import { MOST_NOTES } from '../pitch/motion'
import { DEGREES, type Degree } from '../pitch/degree'
import { TEMPO_RANGE } from '../chart/parseChart'
import { parseKey } from '../pitch/key'
import { parseScale } from '../pitch/scale'
import { midiOf, parseNote, parsePitch } from '../pitch/note'
import { GUARD_NAMES } from '../reharm/guards'
import type { Result } from '../result'
import { ACCENTS, HIT_PARTS, STROKES } from '../rhythm/figures'
import { RESTARTS } from '../rhythm/hit'
import { SWING_RANGE } from '../rhythm/swing'
import { VOICING_FAMILIES } from '../voicing/family'

/** A Zod string read by one of the core's own readers; its fault becomes the message. */
const readBy = <T>(read: (text: string) => Result<T>) =>
  z
    .string()
    .max(100)
    .transform((text, context): T => {
      const result = read(text)
      if (result.ok) return result.value
      context.addIssue({
        code: 'custom',
        message: `${result.fault.message} Accepted: ${result.fault.accepted ?? 'another text'}.`,
      })
      return z.NEVER
    })

export const note = readBy(parseNote)
export const pitch = readBy(parsePitch).transform(midiOf)
export const key = readBy(parseKey)
/** A root and a name: `D dorian`. */
export const scaleField = readBy(parseScale)
export const pairOf = <T extends z.ZodType>(item: T) => z.tuple([item, item])
export const isLowThenHigh = ([low, high]: [number, number]) => low <= high
export const ORDER = 'the first must not be above the second'

const fret = z.int().min(0).max(36).nullable()
export const fretsSchema = z.array(fret).min(4).max(8)
const degree = z.enum(DEGREES as [Degree, ...Degree[]])

export const limitsSchema = z.strictObject({
  tuning: z.array(pitch).min(4).max(8).optional(),
  capo: z.int().min(0).max(12).optional(),
  scaleLength: z.number().min(300).max(1000).optional(),
  frets: pairOf(z.int().min(0).max(36)).refine(isLowThenHigh, ORDER).optional(),
  reach: z.number().min(10).max(250).optional(),
  strings: z.array(z.int().min(1).max(8)).min(1).max(8).optional(),
  notes: pairOf(z.int().min(1).max(8)).refine(isLowThenHigh, ORDER).optional(),
  range: pairOf(pitch).refine(isLowThenHigh, ORDER).optional(),
  open: z.boolean().optional(),
  thumb: z.boolean().optional(),
  barre: z.boolean().optional(),
  innerMutes: z.boolean().optional(),
  bass: z.enum(['root', 'chord', 'any', 'none']).optional(),
  omit: z.array(degree).max(18).optional(),
  families: z.array(z.enum(VOICING_FAMILIES)).min(1).optional(),
  top: pitch.optional(),
  /** Strings that ring open, at least. */
  openAtLeast: z.int().min(0).max(8).optional(),
})
export type LimitsInput = z.output<typeof limitsSchema>

export const chartText = z.string().max(100_000)
export const symbolField = z.string().max(200)
/** Beats a minute. */
export const tempoField = z.number().min(TEMPO_RANGE[0]).max(TEMPO_RANGE[1])
/** A moment: ms since 1970, or a date and time as ISO 8601 writes them. */
export const moment = z.union([
  z
    .number()
    .min(0)
    .max(8.64e15 / 2),
  z
    .string()
    .refine((text) => Number.isFinite(Date.parse(text)), 'a date such as 2026-05-04T18:30:00Z')
    .transform((text) => Date.parse(text)),
])
export const numeralsField = z.enum(['case', 'capitals']).optional()
export const count = z.int().min(1)
export const styleField = z.enum(STYLE_NAMES as [StyleName, ...StyleName[]])
/**
 * Notes are pitches (`G3`) or, all of them, sounds without octave (`G`); the answer tells them
 * apart.
 */
export const notes = z.array(z.string().max(10)).min(1).max(MOST_NOTES)

/** Bars and beats from 1; a pickup is bar 0. */
export const melodyField = z
  .array(
    z.strictObject({
      bar: z.int().min(0),
      beat: z.number().min(1).max(1_000),
      beats: z.number().positive().max(10_000),
      note: readBy(parsePitch),
    }),
  )
  .max(5_000)

export const lyricsField = z
  .array(
    z.strictObject({
      bar: z.int().min(0),
      beat: z.number().min(1).max(1_000),
      text: z.string().trim().min(1).max(MOST_LYRIC),
      joins: z.literal(true).optional(),
    }),
  )
  .max(MOST_LYRICS)

/** Guards of a reharmonisation, each on but where it is switched off (`false`). */
export const guards = z.partialRecord(z.enum(GUARD_NAMES), z.boolean()).optional()

/** Notes of a fragment to be harmonised in blocks. */
export const fragment = z.array(readBy(parsePitch)).min(1).max(500)

export const seed = z
  .int()
  .min(0)
  .max(2 ** 31 - 1)
  .optional()
/** A figure of the table by its name, or a cycle of hits. */
export const figureSchema = z.union([
  z.string().max(100),
  z
    .strictObject({
      cycle: z.number().min(0.25).max(64),
      hits: z
        .array(
          z
            .strictObject({
              at: z.number().min(0).max(64),
              beats: z.number().positive().max(64).optional(),
              length: z.union([z.enum(['short', 'held']), z.number().positive().max(64)]).optional(),
              part: z.enum(HIT_PARTS).default('all'),
              accent: z.enum(ACCENTS).default('plain'),
              stroke: z.enum(STROKES).default('down'),
              push: z.boolean().default(false),
            })
            .transform(({ beats, length, ...hit }) => ({ ...hit, length: length ?? beats ?? 'held' })),
        )
        .min(1)
        .max(256),
    })
    .refine(({ cycle, hits }) => hits.every(({ at }) => at < cycle), {
      message: 'every hit begins within the cycle: at from 0 to less than cycle',
      path: ['hits'],
    }),
])
export const timesSchema = z.strictObject({
  /** Beats a minute of the metre the chart begins with. */
  tempo: z.number().min(TEMPO_RANGE[0]).max(TEMPO_RANGE[1]),
  /** Long : short, or a feel; without it what the figure is made for. */
  swing: z
    .union([z.number().min(SWING_RANGE[0]).max(SWING_RANGE[1]), z.enum(['straight', 'swing', 'shuffle'])])
    .optional(),
})
/** The tempo and the figure that lines are played at: the hand has to be in time. */
export const tempoAndFigure = z.strictObject({
  /** Beats a minute of the metre the chart begins with. */
  tempo: tempoField,
  figure: figureSchema.optional(),
})
export const restart = z.enum(RESTARTS).optional()

const stringField = z.int().min(1).max(8)

/** What a chord that lasts does: which way its top goes, how often, on which strings, over what. */
export const holdField = z.strictObject({
  how: z.enum(HOLD_WAYS),
  every: z.enum(HOLD_STEPS),
  tones: z.enum(HOLD_TONES).optional(),
  strings: z.array(stringField).min(2).max(8).optional(),
  /** A string that rings open: its number, its pitch or its note; `true` finds one. */
  drone: z.union([stringField, z.strictObject({ string: stringField }), pitch, note, z.boolean()]).optional(),
})

/** The grips a line is held to: a stage by name, or shapes; one with an open string stays. */
export const vocabularyField = z.union([
  z.enum(STAGES),
  z
    .array(z.union([fretsSchema, z.strictObject({ frets: fretsSchema, movable: z.boolean().default(true) })]))
    .min(1)
    .max(1000),
])
