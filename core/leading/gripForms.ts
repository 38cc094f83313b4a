import { firstOf, itemAt, lastOf } from '../lists'
import { hasDegree, type ChordSymbol } from '../chord/symbol'
import { reachMm } from '../neck/instrument'
import { pitchClass } from '../pitch/note'
import { mudIn } from '../voicing/clashes'
import { hasUsualForm, isKnownShape, isWritten, toneClass } from '../voicing/gripIdiom'
import { DEFAULT_LIMITS, type Limits } from '../voicing/gripLimits'
import type { SoundingGrip } from '../voicing/voicing'

/** What kind a grip is by how it lies: shells, barre chords, chords of open position. */

/** Strings counted from the lowest of six, so that a seventh string below does not move them. */
export const stringFromSixth = (string: number, limits: Limits): number =>
  string - (limits.instrument.tuning.length - 6)
export const neighbours = ({ strings }: SoundingGrip): boolean =>
  lastOf(strings).string - firstOf(strings).string === strings.length - 1
export const classesOf = (voicing: SoundingGrip) =>
  new Set(voicing.strings.map(({ degree }) => toneClass(degree)))
export const classesAbove = ({ strings }: SoundingGrip) =>
  new Set(strings.slice(1).map(({ degree }) => toneClass(degree)))
export const distinct = ({ midis }: SoundingGrip): number => new Set(midis.map((midi) => midi % 12)).size
/** D3 to F3: the roots that may lie on the fourth string. */
const FOURTH_STRING_ROOTS = [50, 53] as const
/** E3: barre chords with higher roots are out of their register. */
const HIGHEST_ROOT = 52

/**
 * The bass lies where a guitarist plays it: on the sixth or fifth string, from D to F also on the
 * fourth (common practice).
 */
export function lowBass(voicing: SoundingGrip, limits: Limits): boolean {
  const { string, midi } = voicing.strings.reduce((low, one) => (one.midi < low.midi ? one : low))
  const place = stringFromSixth(string, limits)
  return place <= 1 || (place === 2 && midi >= FOURTH_STRING_ROOTS[0] && midi <= FOURTH_STRING_ROOTS[1])
}
export const guitarHasBass = ({ bass }: Pick<Limits, 'bass'>): boolean => bass === 'root' || bass === 'chord'
/**
 * Tones without which a grip of a chord is not itself: all but the natural fifth and what a higher
 * tension implies.
 */
export const needed = (chord: ChordSymbol): number => chord.tones.filter(({ need }) => need !== 'free').length

/**
 * Above a root on the sixth string a shell goes on at the fifth or fourth, above one on the fifth
 * or fourth at the next.
 */
export const isNextAbove = (low: number, next: number, limits: Limits): boolean =>
  next - low === 1 || (next - low === 2 && stringFromSixth(low, limits) <= 0)

/**
 * The shell of a chord: bass, third and seventh (or sixth), and where the symbol names more, that;
 * nothing twice.
 */
export function isShell(voicing: SoundingGrip, chord: ChordSymbol, limits: Limits): boolean {
  if (voicing.strings.length < 3) return false
  const size = Math.max(
    3,
    Math.min(needed(chord), 5) +
      (chord.bass && !chord.tones.some(({ note }) => pitchClass(note) === pitchClass(chord.bass!)) ? 1 : 0),
  )
  const [low, next] = [firstOf(voicing.strings).string, itemAt(voicing.strings, 1).string]
  // An open root belongs to open position; above it nothing rings.
  const far = voicing.frets[low] === 0 && lowestHeld(voicing) - limits.instrument.capo > OPEN_POSITION
  const ringing = far || voicing.frets.some((fret, string) => fret === 0 && string > low)
  // On the fifth string beside a root on the sixth lies a guide tone: 8 7 8 7.
  const beside =
    next - low === 1 &&
    stringFromSixth(low, limits) === 0 &&
    !['third', 'seventh'].includes(toneClass(itemAt(voicing.strings, 1).degree))
  return (
    !ringing &&
    !beside &&
    voicing.midis.length === size &&
    distinct(voicing) === size &&
    stringFromSixth(low, limits) <= 1 &&
    mudIn(voicing.midis).length === 0 &&
    isNextAbove(low, next, limits) &&
    lastOf(voicing.strings).string - next === size - 2 &&
    !(size > 3 && classesAbove(voicing).has('fifth') && hasDegree(chord, '5'))
  )
}

export const lowestHeld = ({ frets }: SoundingGrip): number =>
  frets.reduce<number>((low, fret) => (fret !== null && fret > 0 && fret < low ? fret : low), Infinity)

/** A grip for the strings of the left hand to ring in open position. */
const OPEN_POSITION = 4
export const ringsOpen = (voicing: SoundingGrip, limits: Limits): boolean =>
  voicing.frets.includes(0) &&
  voicing.frets.every((fret) => fret === null || fret === 0 || fret - limits.instrument.capo <= OPEN_POSITION)

export const isGuitarTuning = ({ instrument }: Limits): boolean =>
  instrument.tuning.join() === DEFAULT_LIMITS.instrument.tuning.join()

/** A form that is learned, or written down for the chord. */
export const isForm = (voicing: SoundingGrip, chord: ChordSymbol, { instrument }: Limits): boolean =>
  hasUsualForm(voicing, chord, instrument) || isKnownShape(voicing.frets, chord, instrument)

/**
 * Notes of a full chord; four do where the chord has as many tones, or its root is an open string.
 */
const FULL = 5

/** A chord of open position that is learned: plain triads have few of them, and all are full. */
export function isCampfire(voicing: SoundingGrip, chord: ChordSymbol, limits: Limits): boolean {
  const { instrument } = limits
  const full =
    voicing.midis.length >= FULL ||
    chord.tones.length > 3 ||
    voicing.frets[firstOf(voicing.strings).string] === 0
  return (
    full &&
    lowBass(voicing, limits) &&
    (hasUsualForm(voicing, chord, instrument) ||
      (chord.tones.length > 3 && isWritten(voicing.frets, chord, instrument)))
  )
}

/** The widest a barre chord reaches, in mm: the forms of E and A, not those of C and G. */
const BARRE_REACH_MM = 72

/** A full chord that is moved about the neck, its root in the bass register under the index. */
export function isBarre(voicing: SoundingGrip, chord: ChordSymbol, { instrument }: Limits): boolean {
  const lowest = lowestHeld(voicing)
  const highest = Math.max(...voicing.frets.map((fret) => fret ?? 0))
  return (
    voicing.midis.length >= (chord.bass ? FULL - 1 : FULL) &&
    firstOf(voicing.midis) <= HIGHEST_ROOT &&
    (chord.bass !== null || voicing.frets[firstOf(voicing.strings).string] === lowest) &&
    reachMm(lowest, highest, instrument.scaleLengthMm) <= BARRE_REACH_MM
  )
}

/** A triad has no shell: among shells stand barre chords, and triads spread over a tenth. */
export function amongShells(voicing: SoundingGrip, chord: ChordSymbol, limits: Limits): 0 | 1 | 2 {
  if (stringFromSixth(firstOf(voicing.strings).string, limits) > 1) return 2
  const spread = voicing.midis.length === 3 && voicing.families.includes('spread')
  if (spread || (isForm(voicing, chord, limits) && voicing.midis.length >= FULL - 1)) return 0
  return mudIn(voicing.midis).length === 0 ? 1 : 2
}
