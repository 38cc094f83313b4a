import { itemAt } from '../lists'
import { stringNumber } from '../neck/instrument'
import { degreeBetween } from '../pitch/degree'
import { pitchClass, plainPitchName, plainSpelling } from '../pitch/note'
import type { ChordSymbol } from '../chord/symbol'
import { voicingsOf } from '../voicing/enumerate'
import type { Limits } from '../voicing/gripLimits'
import type { SoundingGrip, Voicing } from '../voicing/voicing'

/**
 * Something the grips of some chords in a row have to keep to; `from` and `to` are indexes of the
 * first and the last of them.
 */
export type Constraint = { from: number; to: number } &
  /** This pitch is the highest. */
  (
    | { kind: 'top'; midi: number }
    /** This pitch sounds, in whatever voice. */
    | { kind: 'sounds'; midi: number }
    /** This string is silent, by index from the lowest. */
    | { kind: 'silent'; string: number }
    /** This string rings open. */
    | { kind: 'open'; string: number }
    /** The hand stays within these frets; open strings are free. */
    | { kind: 'frets'; low: number; high: number }
    /** Nothing sounds lower or higher. */
    | { kind: 'range'; low: number; high: number }
    /**
     * A thumb that goes from one low string to another has two chord tones there; a chord without
     * such a grip goes without.
     */
    | { kind: 'thumb' }
  )

/** @param tuning MIDI numbers of the open strings, so that strings have their numbers and names */
export function constraintInWords(constraint: Constraint, tuning: readonly number[]): string {
  const stringOf = (string: number) =>
    `string ${stringNumber(string, tuning.length)} (${plainPitchName(itemAt(tuning, string))})`
  switch (constraint.kind) {
    case 'top':
      return `${plainPitchName(constraint.midi)} on top`
    case 'sounds':
      return `${plainPitchName(constraint.midi)} sounding`
    case 'silent':
      return `${stringOf(constraint.string)} silent`
    case 'open':
      return `${stringOf(constraint.string)} open`
    case 'frets':
      return `frets ${constraint.low} to ${constraint.high}`
    case 'range':
      return `notes from ${plainPitchName(constraint.low)} to ${plainPitchName(constraint.high)}`
    case 'thumb':
      return 'two chord tones on low strings'
  }
}

/**
 * A chord with one more tone that may sound, named by its distance from the root; the same chord
 * where it has the tone.
 */
export function withTone(chord: ChordSymbol, sound: number): ChordSymbol {
  if (chord.tones.some((tone) => pitchClass(tone.note) === sound)) return chord
  const note = plainSpelling(sound)
  return {
    ...chord,
    tones: [...chord.tones, { degree: degreeBetween(chord.root, note), note, need: 'free' }],
  }
}

/**
 * Every grip of a chord that keeps to the limits and to what is asked of it. A pitch that has to
 * sound may be no chord tone: it is then allowed beside them.
 */
export function constrained(
  chord: ChordSymbol,
  limits: Limits,
  asked: readonly Constraint[],
  accept?: (grip: SoundingGrip) => boolean,
  acceptSounds?: (sounds: number) => boolean,
): Voicing[] {
  let target = chord
  let within = limits
  let thumb = false
  const tests: ((grip: SoundingGrip) => boolean)[] = accept ? [accept] : []
  for (const one of asked) {
    switch (one.kind) {
      case 'top':
        // Two notes cannot both be the highest.
        if (within.top !== null && within.top !== one.midi) return []
        target = withTone(target, one.midi % 12)
        within = { ...within, top: one.midi }
        break
      case 'sounds':
        target = withTone(target, one.midi % 12)
        tests.push(({ midis }) => midis.includes(one.midi))
        break
      case 'silent':
        within = {
          ...within,
          strings: (within.strings ?? within.instrument.tuning.map((_, string) => string)).filter(
            (string) => string !== one.string,
          ),
        }
        break
      case 'open':
        target = withTone(
          target,
          (itemAt(within.instrument.tuning, one.string) + within.instrument.capo) % 12,
        )
        within = { ...within, open: true }
        tests.push(({ frets }) => frets[one.string] === 0)
        break
      case 'frets':
        within = {
          ...within,
          frets: [Math.max(within.frets[0], one.low), Math.min(within.frets[1], one.high)],
        }
        break
      case 'range':
        within = {
          ...within,
          range: [
            Math.max(within.range?.[0] ?? -Infinity, one.low),
            Math.min(within.range?.[1] ?? Infinity, one.high),
          ],
        }
        break
      case 'thumb':
        thumb = true
        break
    }
  }
  const found = (more: readonly ((grip: SoundingGrip) => boolean)[]) =>
    voicingsOf(
      target,
      within,
      more.length > 0 ? (grip) => more.every((test) => test(grip)) : undefined,
      acceptSounds,
    )
  const forThumb = thumb ? found([...tests, hasThumbNotes]) : []
  return forThumb.length > 0 ? forThumb : found(tests)
}

/** Strings a thumb plays, counted from the lowest, and those its first note lies on. */
const THUMB_STRINGS = 4
const FIRST_NOTE_STRINGS = 3

/** The lowest note on a low string, and another one below the highest for the thumb to go to. */
function hasThumbNotes({ strings, midis }: SoundingGrip): boolean {
  const low = strings.filter(({ string }) => string < THUMB_STRINGS)
  return (
    low.some(({ string, midi }) => string < FIRST_NOTE_STRINGS && midi === midis[0]) &&
    low.some(({ midi }) => midi !== midis[0] && midi !== midis.at(-1))
  )
}
