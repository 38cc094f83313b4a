import { z } from 'zod'
import { REACH_RANGE_MM } from '../../../core/neck/calibration'
import { DEFAULT_HAND } from '../../../core/neck/hand'
import { INSTRUMENTS, SCALE_LENGTH_RANGE_MM, STRINGS_RANGE } from '../../../core/neck/instruments'
import { parsePitch } from '../../../core/pitch/note'
import { SCHOOL_NAMES, type School } from '../../../core/reharm/schools'
import { DEFAULT_TASTE, LEANINGS } from '../../../core/reharm/taste'
import { ownStyle } from '../tune/document'

/** From 0 to 1. */
const share = z.number().min(0).max(1)
const leaning = z.enum(LEANINGS)

export const tasteSettings = z.strictObject({
  far: share, busy: share, bassSteps: share,
  schools: z.strictObject(Object.fromEntries(SCHOOL_NAMES.map((school) => [school, leaning])) as Record<School, typeof leaning>),
})

const pitch = z.string().max(5).refine((text) => parsePitch(text).ok, 'a pitch such as E2')
export const instrumentSettings = z.strictObject({
  name: z.string().trim().min(1, 'a name of 1 to 60 letters').max(60, 'a name of 1 to 60 letters'),
  /** Open strings from the lowest, in scientific pitch. */
  tuning: z.array(pitch).min(STRINGS_RANGE[0], `${STRINGS_RANGE[0]} to ${STRINGS_RANGE[1]} strings`).max(STRINGS_RANGE[1], `${STRINGS_RANGE[0]} to ${STRINGS_RANGE[1]} strings`),
  scaleLengthMm: z.number().min(SCALE_LENGTH_RANGE_MM[0]).max(SCALE_LENGTH_RANGE_MM[1]),
  frets: z.int().min(5).max(36),
  /** The highest fret the hand gets to at ease. */
  cutaway: z.int().min(5).max(36),
}).refine(({ frets, cutaway }) => cutaway <= frets, { message: 'a highest fret that the neck has', path: ['cutaway'] })

const finger = z.union([z.literal(1), z.literal(2), z.literal(3), z.literal(4)])
export const handSettings = z.strictObject({
  reachMm: z.number().min(REACH_RANGE_MM[0]).max(REACH_RANGE_MM[1]),
  thumb: z.boolean(), barre: z.boolean(), innerMutes: z.boolean(),
  missing: z.array(finger).max(3), weak: z.array(finger).max(4),
})

/** Styles of their own a player can keep. */
export const MOST_STYLES = 24

/** What the player sets once for all tunes. */
export const playerSettings = z.strictObject({
  taste: tasteSettings,
  /** How many rules the drawer puts on top of one another, 1 to 3. */
  depth: z.int().min(1).max(3),
  instrument: instrumentSettings,
  hand: handSettings,
  /** Grips and necks are drawn mirrored. */
  leftHanded: z.boolean(),
  /** Styles of leading lines that the player mixed. */
  styles: z.array(ownStyle).max(MOST_STYLES),
})
export type PlayerSettings = z.infer<typeof playerSettings>

export const DEFAULT_PLAYER: PlayerSettings = {
  taste: DEFAULT_TASTE, depth: 1,
  instrument: { ...INSTRUMENTS.standard!, tuning: [...INSTRUMENTS.standard!.tuning] },
  hand: { ...DEFAULT_HAND, missing: [...DEFAULT_HAND.missing], weak: [...DEFAULT_HAND.weak] },
  leftHanded: false, styles: [],
}
