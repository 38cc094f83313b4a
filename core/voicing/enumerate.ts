import type { ChordSymbol } from '../chord/symbol'
import { easiestFingering } from '../neck/fingering'
import { reachMm, soundAt } from '../neck/instrument'
import { pitchClass } from '../pitch/note'
import type { Limits } from './gripLimits'
import { requirementOf, type Requirement } from './requirement'
import { soundingOf, ToneNames, type SoundingGrip, type Voicing } from './voicing'

/**
 * Every grip of a chord that keeps to the limits and that the hand can hold: complete, in a fixed
 * order (by lowest held fret, then string by string).
 * @param accept further limits by what a grip sounds, asked before it is known who could hold it
 * @param acceptSounds the same by its pitch classes alone, as a mask of twelve bits: asked first,
 *   since it is quickest
 */
export function voicingsOf(
  chord: ChordSymbol,
  limits: Limits,
  accept?: (grip: SoundingGrip) => boolean,
  acceptSounds?: (sounds: number) => boolean,
): Voicing[] {
  const requirement = requirementOf(chord, limits)
  const names = new ToneNames(chord)
  const found: Voicing[] = []
  for (const frets of gripsOf(chord, requirement, limits, acceptSounds)) {
    // What a grip sounds is known sooner than who could hold it.
    const sounding = soundingOf(frets, names, limits.instrument)
    if (limits.families && !limits.families.some((family) => sounding.families.includes(family))) continue
    if (accept && !accept({ frets, ...sounding })) continue
    const fingering = easiestFingering(frets, limits.instrument, limits.hand)
    if (fingering) found.push({ frets, fingering, ...sounding })
  }
  return found
}

/**
 * Every set of frets whose sounds meet the requirement within the limits, before asking whether
 * fingers can hold it. Goes through the neck window by window: each window begins at the lowest
 * held fret and ends where the hand does.
 */
export function* gripsOf(
  chord: ChordSymbol,
  requirement: Requirement,
  limits: Limits,
  acceptSounds: (sounds: number) => boolean = () => true,
): Generator<(number | null)[]> {
  const { instrument, hand } = limits
  const lowest = Math.max(limits.frets[0], instrument.capo + 1)
  yield* windowGrips(chord, requirement, limits, acceptSounds, null, lowest)
  for (let first = lowest; first <= limits.frets[1]; first += 1) {
    let last = first
    while (last < limits.frets[1] && reachMm(first, last + 1, instrument.scaleLengthMm) <= hand.reachMm)
      last += 1
    yield* windowGrips(chord, requirement, limits, acceptSounds, first, last)
  }
}

/** A way to stop one string, or to leave it; with what it sounds. */
interface StringChoice {
  fret: number | null
  /** MIDI number; NaN where the string is not played. */
  midi: number
  /** The pitch class as a bit; 0 where the string is not played. */
  sound: number
}
const NOT_PLAYED: StringChoice = { fret: null, midi: NaN, sound: 0 }

/** Frets of one string that sound an allowed tone inside a window. */
function choicesFor(
  string: number,
  requirement: Requirement,
  limits: Limits,
  first: number | null,
  last: number,
): StringChoice[] {
  const { instrument, range, top } = limits
  const choices = [NOT_PLAYED]
  if (limits.strings && !limits.strings.includes(string)) return choices
  const offer = (fret: number) => {
    const midi = soundAt(instrument, string, fret)
    const sound = 1 << (midi % 12)
    if (
      (requirement.allowed & sound) !== 0 &&
      (range === null || (midi >= range[0] && midi <= range[1])) &&
      (top === null || midi <= top)
    )
      choices.push({ fret, midi, sound })
  }
  if (limits.open) offer(0)
  if (first !== null) for (let fret = first; fret <= last; fret += 1) offer(fret)
  // The thumb reaches behind the window only as far as the window's own frets: grips keep one
  // position.
  return choices
}

/**
 * Grips whose lowest held fret is exactly `first` (null: nothing is held), the rest up to `last`.
 */
function windowGrips(
  chord: ChordSymbol,
  requirement: Requirement,
  limits: Limits,
  acceptSounds: (sounds: number) => boolean,
  first: number | null,
  last: number,
): (number | null)[][] {
  const { instrument, notes, top, openAtLeast = 0 } = limits
  const count = instrument.tuning.length
  const choices = instrument.tuning.map((_, string) => choicesFor(string, requirement, limits, first, last))
  // What strings from here up could still bring, to leave a branch as soon as it is hopeless.
  const later = new Array<number>(count + 1).fill(0)
  const laterFirst = new Array<boolean>(count + 1).fill(first === null)
  for (let string = count - 1; string >= 0; string -= 1) {
    later[string] = choices[string]!.reduce((bits, { sound }) => bits | sound, later[string + 1]!)
    laterFirst[string] = laterFirst[string + 1]! || choices[string]!.some(({ fret }) => fret === first)
  }
  const bassChord = 1 << pitchClass(chord.bass ?? chord.root)
  const bassOnlyAtBottom =
    limits.bass === 'chord' &&
    chord.bass !== null &&
    !chord.tones.some((tone) => 1 << pitchClass(tone.note) === bassChord)

  const found: (number | null)[][] = []
  const grip: StringChoice[] = []
  /** @param touches whether a string is held at the window's first fret already */
  const place = (string: number, sounding: number, sounds: number, touches: boolean): void => {
    if ((requirement.required & ~(sounds | later[string]!)) !== 0) return
    if (sounding > notes[1] || sounding + count - string < notes[0]) return
    if (!touches && !laterFirst[string]!) return
    if (string === count) {
      if (fitsAsAWhole(sounds)) found.push(grip.map(({ fret }) => fret))
      return
    }
    for (const choice of choices[string]!) {
      grip[string] = choice
      if (choice.fret === null) place(string + 1, sounding, sounds, touches)
      else place(string + 1, sounding + 1, sounds | choice.sound, touches || choice.fret === first)
    }
  }

  const fitsAsAWhole = (sounds: number): boolean => {
    if (requirement.oneOf.some((set) => (set & sounds) === 0) || !acceptSounds(sounds)) return false
    let low = Infinity
    let high = -Infinity
    let bassTones = 0
    let ringing = 0
    for (const { fret, midi, sound } of grip) {
      if (sound === 0) continue
      if (fret === 0) ringing += 1
      if (midi < low) low = midi
      if (midi > high) high = midi
      if (sound === bassChord) bassTones += 1
    }
    return (
      (requirement.bass & (1 << (low % 12))) !== 0 &&
      (top === null || high === top) &&
      ringing >= openAtLeast &&
      !(bassOnlyAtBottom && bassTones > 1)
    )
  }

  place(0, 0, 0, first === null)
  return found
}
