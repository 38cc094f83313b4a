import type { Key, Mode } from '../pitch/key'
import { modulo, pitchClass } from '../pitch/note'
import type { Kind } from './kind'

/**
 * The scales a key is made of, as bits above its tonic. Minor has three: natural, harmonic,
 * melodic. A chord is inside the key when one of them holds all its tones.
 */
const bits = (...steps: number[]) => steps.reduce((sum, step) => sum | (1 << step), 0)
export const SCALE_FORMS: Readonly<Record<Mode, readonly { name: string; bits: number }[]>> = {
  major: [{ name: 'major', bits: bits(0, 2, 4, 5, 7, 9, 11) }],
  minor: [
    { name: 'natural minor', bits: bits(0, 2, 3, 5, 7, 8, 10) },
    { name: 'harmonic minor', bits: bits(0, 2, 3, 5, 7, 8, 11) },
    { name: 'melodic minor', bits: bits(0, 2, 3, 5, 7, 9, 11) },
  ],
}

/** Pitch classes as bits, counted from another sound. */
export const above = (sounds: number, tonic: number): number =>
  ((sounds >> tonic) | (sounds << (12 - tonic))) & 0xfff

/** The scale of a key that holds all these sounds, or null when they lie outside it. */
export const scaleHolding = (sounds: number, key: Key): string | null =>
  scaleHoldingAt(sounds, pitchClass(key.tonic), key.mode)

function scaleHoldingAt(sounds: number, tonic: number, mode: Mode): string | null {
  const turned = above(sounds, tonic)
  return SCALE_FORMS[mode].find((form) => (turned & ~form.bits) === 0)?.name ?? null
}

/** What is known of a chord to judge a key by. */
export interface Judged {
  root: number
  kind: Kind
  sounds: number
}

/**
 * How much a chord, going on to the next, speaks for a key, in points. Common practice, no source;
 * the sizes were chosen so that a ii-V-I in passing does not move the home key and a passage of
 * four or more chords with its own I does.
 */
const POINTS = {
  /** All tones in the key. */
  inside: 1,
  /** The tonic chord itself. */
  home: 0.5,
  /** V7 going to I is the strongest sign there is. */
  cadence: 1,
  /** The ii before its V. */
  preparation: 0.5,
  /** Inside, but only by a raised step of minor that the V does not ask for: IV7, ii7. */
  raised: 0.3,
  /** I7 and IV7 in major: the blues. */
  blues: 0.6,
  /** A dominant that leads to a chord of the key. */
  secondary: 0.3,
  /** A borrowed or a passing diminished chord: usual visitors. */
  visitor: -0.2,
  /** A chord the key does not explain. */
  stranger: -1.5,
} as const

/**
 * Roots of chords often borrowed in major, with the kinds they come in (common practice: borrowed
 * from the parallel key).
 */
const BORROWED: Partial<Record<number, readonly Kind[]>> = {
  0: ['minor'],
  2: ['half-diminished'],
  3: ['major'],
  5: ['minor'],
  8: ['major', 'dominant'],
  10: ['major', 'dominant'],
}

export function keyFit(chord: Judged, next: Judged | undefined, tonic: number, mode: Mode): number {
  const rel = modulo(chord.root - tonic, 12)
  const tonicKind: Kind = mode === 'major' ? 'major' : 'minor'
  const falls = next ? modulo(chord.root - next.root, 12) : -1
  const nextRel = next ? modulo(next.root - tonic, 12) : -1
  let points: number = POINTS.stranger
  const scale = scaleHoldingAt(chord.sounds, tonic, mode)
  if (scale) points = scale === 'melodic minor' && rel !== 0 && rel !== 7 ? POINTS.raised : POINTS.inside
  else if (mode === 'major' && chord.kind === 'dominant' && (rel === 0 || rel === 5)) points = POINTS.blues
  else if (
    next &&
    chord.kind === 'dominant' &&
    (falls === 7 || falls === 1) &&
    scaleHoldingAt(next.sounds, tonic, mode)
  )
    points = POINTS.secondary
  else if (mode === 'major' ? BORROWED[rel]?.includes(chord.kind) : rel === 0 && chord.kind === 'major')
    points = POINTS.visitor
  else if (chord.kind === 'diminished') points = POINTS.visitor
  if (rel === 0 && chord.kind === tonicKind) points += POINTS.home
  // A V with altered tones is still the V.
  if (rel === 7 && chord.kind === 'dominant') points = Math.max(points, POINTS.inside)
  if (
    rel === 7 &&
    nextRel === 0 &&
    next!.kind === tonicKind &&
    (chord.kind === 'dominant' || chord.kind === 'major')
  )
    points += POINTS.cadence
  if (
    rel === 2 &&
    nextRel === 7 &&
    next!.kind === 'dominant' &&
    chord.kind === (mode === 'major' ? 'minor' : 'half-diminished')
  )
    points += POINTS.preparation
  return points
}
