import { z } from 'zod'
import { REACH_RANGE_MM } from '../neck/calibration'
import { DEFAULT_HAND } from '../neck/hand'
import { INSTRUMENTS, SCALE_LENGTH_RANGE_MM, STRINGS_RANGE } from '../neck/instruments'
import { parsePitch } from '../pitch/note'
import { SCHOOL_NAMES, type School } from '../reharm/schools'
import { DEFAULT_TASTE, LEANINGS } from '../reharm/taste'
import { ownStyle } from './ownStyle'

/** From 0 to 1. */
const share = z.number().min(0).max(1)
const leaning = z.enum(LEANINGS)

export const tasteSettings = z.strictObject({
  far: share,
  busy: share,
  bassSteps: share,
  schools: z.strictObject(
    Object.fromEntries(SCHOOL_NAMES.map((school) => [school, leaning])) as Record<School, typeof leaning>,
  ),
})

const pitch = z
  .string()
  .max(5)
  .refine((text) => parsePitch(text).ok, 'a pitch such as E2')
const instrumentShape = z.strictObject({
  name: z.string().trim().min(1, 'a name of 1 to 60 letters').max(60, 'a name of 1 to 60 letters'),
  /** Open strings from the lowest, in scientific pitch. */
  tuning: z
    .array(pitch)
    .min(STRINGS_RANGE[0], `${STRINGS_RANGE[0]} to ${STRINGS_RANGE[1]} strings`)
    .max(STRINGS_RANGE[1], `${STRINGS_RANGE[0]} to ${STRINGS_RANGE[1]} strings`),
  scaleLengthMm: z.number().min(SCALE_LENGTH_RANGE_MM[0]).max(SCALE_LENGTH_RANGE_MM[1]),
  frets: z.int().min(5).max(36),
  /** The highest fret the hand gets to at ease. */
  cutaway: z.int().min(5).max(36),
})
export const instrumentSettings = instrumentShape.refine(({ frets, cutaway }) => cutaway <= frets, {
  message: 'a highest fret that the neck has',
  path: ['cutaway'],
})

const finger = z.union([z.literal(1), z.literal(2), z.literal(3), z.literal(4)])
export const handSettings = z.strictObject({
  reachMm: z.number().min(REACH_RANGE_MM[0]).max(REACH_RANGE_MM[1]),
  thumb: z.boolean(),
  barre: z.boolean(),
  innerMutes: z.boolean(),
  missing: z.array(finger).max(3),
  weak: z.array(finger).max(4),
})

/** Styles of their own a player can keep. */
export const MOST_STYLES = 24

/**
 * How far a player is through the first steps: not begun, at the colours or at the lines of a first
 * tune of their own, or done with them.
 */
export const FIRST_STEPS = ['offered', 'colour', 'lines', 'away'] as const

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
  firstSteps: z.enum(FIRST_STEPS),
})
export type PlayerSettings = z.infer<typeof playerSettings>

export const DEFAULT_PLAYER: PlayerSettings = {
  taste: DEFAULT_TASTE,
  depth: 1,
  instrument: { ...INSTRUMENTS.standard!, tuning: [...INSTRUMENTS.standard!.tuning] },
  hand: { ...DEFAULT_HAND, missing: [...DEFAULT_HAND.missing], weak: [...DEFAULT_HAND.weak] },
  leftHanded: false,
  styles: [],
  // A new book offers them; whoever has one knows.
  firstSteps: 'away',
}

/**
 * Some settings, field by field, so that two tabs change different things without undoing one
 * another's. Styles are kept and given up by name.
 */
export const playerChange = z
  .strictObject({
    taste: tasteSettings.extend({ schools: tasteSettings.shape.schools.partial() }).partial(),
    depth: playerSettings.shape.depth,
    instrument: instrumentShape.partial(),
    hand: handSettings.partial(),
    leftHanded: z.boolean(),
    firstSteps: playerSettings.shape.firstSteps,
    styles: z.strictObject({
      kept: z.array(ownStyle).max(MOST_STYLES),
      gone: z.array(z.string().max(40)).max(MOST_STYLES),
    }),
  })
  .partial()
export type PlayerChange = z.infer<typeof playerChange>

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b)
const changedFields = <T extends object>(before: T, after: T): Partial<T> =>
  Object.fromEntries(
    Object.entries(after).filter(([name, value]) => !same(value, before[name as keyof T])),
  ) as Partial<T>

/** What one state of the settings has that another has not. */
export function differences(before: PlayerSettings, after: PlayerSettings): PlayerChange {
  const change: PlayerChange = {}
  const taste = changedFields(before.taste, after.taste)
  if (Object.keys(taste).length > 0)
    change.taste = {
      ...taste,
      ...(taste.schools ? { schools: changedFields(before.taste.schools, after.taste.schools) } : {}),
    }
  const instrument = changedFields(before.instrument, after.instrument)
  if (Object.keys(instrument).length > 0) change.instrument = instrument
  const hand = changedFields(before.hand, after.hand)
  if (Object.keys(hand).length > 0) change.hand = hand
  if (before.depth !== after.depth) change.depth = after.depth
  if (before.leftHanded !== after.leftHanded) change.leftHanded = after.leftHanded
  if (before.firstSteps !== after.firstSteps) change.firstSteps = after.firstSteps
  const kept = after.styles.filter((style) => !before.styles.some((one) => same(one, style)))
  const gone = before.styles
    .filter(({ name }) => !after.styles.some((one) => one.name === name))
    .map(({ name }) => name)
  if (kept.length > 0 || gone.length > 0) change.styles = { kept, gone }
  return change
}

/** Two changes as one, the second on top. */
export function bothChanges(first: PlayerChange, second: PlayerChange): PlayerChange {
  const taste = {
    ...first.taste,
    ...second.taste,
    ...(first.taste?.schools || second.taste?.schools
      ? { schools: { ...first.taste?.schools, ...second.taste?.schools } }
      : {}),
  }
  const names = new Set([
    ...(second.styles?.kept.map(({ name }) => name) ?? []),
    ...(second.styles?.gone ?? []),
  ])
  const styles = {
    kept: [
      ...(first.styles?.kept.filter(({ name }) => !names.has(name)) ?? []),
      ...(second.styles?.kept ?? []),
    ],
    gone: [...(first.styles?.gone.filter((name) => !names.has(name)) ?? []), ...(second.styles?.gone ?? [])],
  }
  return {
    ...first,
    ...second,
    ...(first.taste || second.taste ? { taste } : {}),
    ...(first.instrument || second.instrument
      ? { instrument: { ...first.instrument, ...second.instrument } }
      : {}),
    ...(first.hand || second.hand ? { hand: { ...first.hand, ...second.hand } } : {}),
    ...(first.styles || second.styles ? { styles } : {}),
  }
}

/** The settings after a change. */
export function changedBy(settings: PlayerSettings, change: PlayerChange): PlayerSettings {
  const { taste, instrument, hand, styles, depth, leftHanded, firstSteps } = change
  const names = new Set([...(styles?.kept.map(({ name }) => name) ?? []), ...(styles?.gone ?? [])])
  return {
    taste: {
      ...settings.taste,
      ...taste,
      schools: { ...settings.taste.schools, ...taste?.schools },
    } as PlayerSettings['taste'],
    instrument: { ...settings.instrument, ...instrument } as PlayerSettings['instrument'],
    hand: { ...settings.hand, ...hand } as PlayerSettings['hand'],
    depth: depth ?? settings.depth,
    leftHanded: leftHanded ?? settings.leftHanded,
    firstSteps: firstSteps ?? settings.firstSteps,
    styles: [...settings.styles.filter(({ name }) => !names.has(name)), ...(styles?.kept ?? [])],
  }
}
