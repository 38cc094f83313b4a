import { z } from 'zod'
import { BASS_KINDS } from '../rhythm/bassLine'
import { ACCENTS, HIT_PARTS, STROKES } from '../rhythm/figures'
import { RESTARTS } from '../rhythm/hit'
import { SWING_RANGE } from '../rhythm/swing'
import { place } from './slotPlaces'

/**
 * How a tune is accompanied: figure, space, feel and band. Places of a cycle are in beats from 0;
 * places of the tune are `bar:beat`, as written.
 */

/** Beats a cycle, or a hit, can have. */
export const MOST_BEATS = 64
const beats = z.number().positive().max(MOST_BEATS)
const hit = {
  length: z.union([z.enum(['short', 'held']), beats]),
  part: z.enum(HIT_PARTS),
  accent: z.enum(ACCENTS),
  stroke: z.enum(STROKES),
  push: z.boolean(),
}
/** A hit put in, or another in its place, by hand. */
export const handHit = z.strictObject(hit)
export type HandHit = z.infer<typeof handHit>

const ownFigure = z
  .strictObject({
    cycle: z.number().min(0.5).max(MOST_BEATS),
    hits: z
      .array(z.strictObject({ at: z.number().min(0).max(MOST_BEATS), ...hit }))
      .min(1)
      .max(256),
  })
  .refine(({ cycle, hits }) => hits.every(({ at }) => at < cycle), 'hits that begin within the cycle')
  .refine(({ cycle, hits }) => hits.length <= 24 * cycle, 'at most 24 hits a beat')
/**
 * A figure of the table, by its name, or one of the player's own. A name that the table has no
 * longer is kept, and then each chord is struck once.
 */
export const figure = z.union([z.string().min(1).max(60), ownFigure])

/** What marks the time beside guitar and bass. */
export const TIMES = ['none', 'every beat', 'two and four', 'one', 'brushes'] as const
export const BAND_PARTS = ['guitar', 'bass', 'time'] as const
export type BandPart = (typeof BAND_PARTS)[number]
const level = z.number().min(0).max(1)
/** How far the guitar can be laid back or ahead, in ms. */
export const BEHIND_MS = 60
/** Hits by hand that one chart can have. */
const MOST_HAND_HITS = 4_000

export const rhythmSchema = z.strictObject({
  /** Null: each chord is struck once and held. */
  figure: figure.nullable(),
  /** Other figures, by the name of the section. */
  sections: z.record(z.string().max(40), figure.nullable()),
  /** Other figures for single bars, by number, over those of their section. */
  bars: z.record(z.string().regex(/^\d{1,4}$/, 'the number of a bar'), figure.nullable()),
  restart: z.enum(RESTARTS),
  density: z.number().min(0).max(1),
  /** As the figure is made, or as set; a number is long : short. */
  feel: z.union([
    z.enum(['figure', 'straight', 'swing', 'shuffle']),
    z.number().min(SWING_RANGE[0]).max(SWING_RANGE[1]),
  ]),
  /** The guitar after the beat (laid back), or below 0 ahead of it, in ms. */
  behindMs: z.number().min(-BEHIND_MS).max(BEHIND_MS),
  /**
   * How loosely the guitar is struck, 0 (also where it is not said) exact to 1; always the same for
   * the same tune.
   */
  loose: z.number().min(0).max(1).optional(),
  /** 0: the figure as it is; else phrases with one thing varied and a fill. */
  seed: z
    .int()
    .min(0)
    .max(2 ** 31 - 1),
  phrase: z.union([z.literal(2), z.literal(4)]),
  /** The guitar answers the melody in its gaps. */
  listens: z.boolean(),
  bass: z.enum(['none', ...BASS_KINDS]),
  /** The chords the bass plays from. */
  band: z.enum(['plain', 'new']),
  time: z.enum(TIMES),
  levels: z.strictObject({ guitar: level, bass: level, time: level }),
  muted: z.array(z.enum(BAND_PARTS)).max(BAND_PARTS.length),
  /** Hits by hand over the figure; null where one of the figure is left out. */
  byHand: z
    .record(place, handHit.nullable())
    .refine((all) => Object.keys(all).length <= MOST_HAND_HITS, `at most ${MOST_HAND_HITS} hits by hand`),
})
export type Rhythm = z.infer<typeof rhythmSchema>

export const PLAIN_RHYTHM: Rhythm = {
  figure: null,
  sections: {},
  bars: {},
  restart: 'section',
  density: 1,
  feel: 'figure',
  behindMs: 0,
  seed: 0,
  phrase: 4,
  listens: false,
  bass: 'none',
  band: 'new',
  time: 'none',
  levels: { guitar: 1, bass: 0.8, time: 0.5 },
  muted: [],
  byHand: {},
}
