import { firstOf, lastOf, theOne } from '../lists'
import type { Weights } from '../leading/weights'
import type { Family } from '../voicing/family'
import type { Limits } from '../voicing/gripLimits'
import type { Voicing } from '../voicing/voicing'

interface TextureOf {
  says: string
  /** Fewest and most notes; those of the limits where it is not said. */
  notes?: readonly [number, number]
  families?: readonly Family[]
}

/** How full the grips under a melody are, and how they are built (common practice). */
export const MELODY_TEXTURE_NAMES = [
  'full',
  'shells',
  'drop 2',
  'fourths',
  'two voices',
  'two lines',
] as const
export type MelodyTexture = (typeof MELODY_TEXTURE_NAMES)[number]
// prettier-ignore
export const MELODY_TEXTURES: Readonly<Record<MelodyTexture, TextureOf>> = {
  full: { says: 'Three to five notes, the bass with them where there is time.' },
  shells: { says: 'Three notes: the melody over the third and the seventh.', notes: [3, 3] },
  'drop 2': { says: 'Four notes in drop 2 wherever the melody note allows it.', families: ['drop 2'], notes: [4, 4] },
  fourths: { says: 'Stacked fourths under the melody wherever the chord has them.', families: ['quartal'], notes: [3, 4] },
  'two voices': { says: 'The melody and one voice below it: thirds, sixths, tenths and guide tones.', notes: [2, 2] },
  'two lines': { says: 'The melody and a line below it in a rhythm of its own: suspensions, passing notes, contrary motion.', notes: [2, 2] },
}

/** Two voices are plucked, whatever strings lie between them. */
export const pluckedWhereThin = (limits: Limits, texture: MelodyTexture): Limits =>
  MELODY_TEXTURES[texture].notes?.[1] === 2 ? { ...limits, hand: { ...limits.hand, plucked: true } } : limits

export function melodyTextureLimits(limits: Limits, texture: MelodyTexture): Limits {
  const { families = null, notes = limits.notes } = MELODY_TEXTURES[texture]
  if (texture === 'full') return limits
  if (texture === 'two voices')
    return {
      ...limits,
      notes,
      bass: 'any',
      omit: [
        ...limits.omit,
        '1',
        '3',
        'b3',
        '4',
        '5',
        'b5',
        '#5',
        '6',
        '7',
        'b7',
        'bb7',
        'b9',
        '9',
        '#9',
        '11',
        '#11',
        'b13',
        '13',
        '2',
      ],
    }
  return {
    ...limits,
    notes,
    families,
    bass: 'any',
    omit: [...limits.omit, '1', '5', ...(families ? (['9', '11', '13'] as const) : [])],
  }
}

/**
 * What a bass above its register costs under a melody, which takes the high strings, against a line
 * of comping grips.
 */
const LOW_UNDER_MELODY = 0.4

/**
 * What motion counts under a melody: the tune is heard, and good grips below it before near ones.
 */
const LED = 0.5

/** What a thin texture leaves out is no fault of it. */
export const textureWeights = (weights: Weights, texture: MelodyTexture): Weights => ({
  ...weights,
  low: weights.low * LOW_UNDER_MELODY,
  motion: weights.motion * LED,
  upper: weights.upper * LED,
  ...(texture === 'full' || texture === 'drop 2'
    ? {}
    : { fullness: 0, voices: texture === 'two voices' ? 1.5 : weights.voices }),
})

const SWEET = [3, 4, 8, 9]
const GUIDES: readonly string[] = ['3', 'b3', '4', '7', 'b7', 'bb7', '6']

/**
 * Two voices: thirds, sixths and their octaves cost nothing, fourths and fifths a little, seconds
 * and sevenths more; a guide tone below is liked (common practice, no source).
 */
export function twoVoicePrice(voicing: Voicing): number {
  const [low, high] = [firstOf(voicing.midis), lastOf(voicing.midis)]
  const apart = (high - low) % 12
  const lower = theOne(voicing.strings, ({ midi }) => midi === low)
  const bare = apart === 5 || apart === 7 ? 1 : 2
  return (SWEET.includes(apart) ? 0 : bare) + (GUIDES.includes(lower.degree) ? 0 : 0.5)
}
