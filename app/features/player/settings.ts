import { z } from 'zod'
import { SCHOOL_NAMES, type School } from '../../../core/reharm/schools'
import { DEFAULT_TASTE, LEANINGS } from '../../../core/reharm/taste'

/** From 0 to 1. */
const share = z.number().min(0).max(1)
const leaning = z.enum(LEANINGS)

export const tasteSettings = z.strictObject({
  far: share, busy: share, bassSteps: share,
  schools: z.strictObject(Object.fromEntries(SCHOOL_NAMES.map((school) => [school, leaning])) as Record<School, typeof leaning>),
})

/** What the player sets once for all tunes. */
export const playerSettings = z.strictObject({
  taste: tasteSettings,
  /** How many rules the drawer puts on top of one another, 1 to 3. */
  depth: z.int().min(1).max(3),
})
export type PlayerSettings = z.infer<typeof playerSettings>

export const DEFAULT_PLAYER: PlayerSettings = { taste: DEFAULT_TASTE, depth: 1 }
