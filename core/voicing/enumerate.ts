import type { ChordSymbol } from '../chord/symbol'
import { easiestFingering } from '../neck/fingering'
import { reachMm, soundAt } from '../neck/instrument'
import { pitchClass } from '../pitch/note'
import type { Limits } from './limits'
import { requirementOf, type Requirement } from './requirement'
import { soundingOf, ToneNames, type SoundingGrip, type Voicing } from './voicing'

/**
 * Every grip of a chord that keeps to the limits and that the hand can hold: complete, in a fixed order (by lowest
 * held fret, then string by string).
 * @param accept further limits by what a grip sounds, asked before it is known who could hold it
 */
export function voicingsOf(
  chord: ChordSymbol,
  limits: Limits,
  accept?: (grip: SoundingGrip) => boolean,
): Voicing[] {
  const requirement = requirementOf(chord, limits)
  const names = new ToneNames(chord)
  const found: Voicing[] = []
  for (const frets of gripsOf(chord, requirement, limits)) {
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
 * Every set of frets whose sounds meet the requirement within the limits, before asking whether fingers can hold it.
 * Goes through the neck window by window: each window begins at the lowest held fret and ends where the hand does.
 */
export function* gripsOf(
  chord: ChordSymbol,
  requirement: Requirement,
  limits: Limits,
): Generator<(number | null)[]> {
  const { instrument, hand } = limits
  const lowest = Math.max(limits.frets[0], instrument.capo + 1)
  yield* windowGrips(chord, requirement, limits, null, lowest)
  for (let first = lowest; first <= limits.frets[1]; first += 1) {
    let last = first
    while (last < limits.frets[1] && reachMm(first, last + 1, instrument.scaleLengthMm) <= hand.reachMm)
      last += 1
    yield* windowGrips(chord, requirement, limits, first, last)
  }
}

/** Frets of one string that sound an allowed tone inside a window. */
function choicesFor(
  string: number,
  requirement: Requirement,
  limits: Limits,
  first: number | null,
  last: number,
): (number | null)[] {
  const { instrument, range, top } = limits
  const choices: (number | null)[] = [null]
  if (limits.strings && !limits.strings.includes(string)) return choices
  const fits = (fret: number) => {
    const midi = soundAt(instrument, string, fret)
    return (
      (requirement.allowed & (1 << (midi % 12))) !== 0 &&
      (range === null || (midi >= range[0] && midi <= range[1])) &&
      (top === null || midi <= top)
    )
  }
  if (limits.open && fits(0)) choices.push(0)
  if (first !== null) for (let fret = first; fret <= last; fret += 1) if (fits(fret)) choices.push(fret)
  // The thumb reaches behind the window only as far as the window's own frets: grips keep one position.
  return choices
}

/** Grips whose lowest held fret is exactly `first` (null: nothing is held), the rest up to `last`. */
function* windowGrips(
  chord: ChordSymbol,
  requirement: Requirement,
  limits: Limits,
  first: number | null,
  last: number,
): Generator<(number | null)[]> {
  const { instrument, notes, top } = limits
  const count = instrument.tuning.length
  const choices = instrument.tuning.map((_, string) => choicesFor(string, requirement, limits, first, last))
  // Sounds that strings from here up could still bring, to leave a branch as soon as it is hopeless.
  const later = new Array<number>(count + 1).fill(0)
  for (let string = count - 1; string >= 0; string -= 1)
    later[string] = choices[string]!.reduce<number>(
      (bits, fret) => (fret === null ? bits : bits | (1 << (soundAt(instrument, string, fret) % 12))),
      later[string + 1]!,
    )
  const bassChord = pitchClass(chord.bass ?? chord.root)
  const bassOnlyAtBottom =
    limits.bass === 'chord' &&
    chord.bass !== null &&
    !chord.tones.some((tone) => pitchClass(tone.note) === bassChord)

  const frets: (number | null)[] = []
  function* place(string: number, sounding: number, sounds: number): Generator<(number | null)[]> {
    if ((requirement.required & ~(sounds | later[string]!)) !== 0) return
    if (sounding > notes[1] || sounding + count - string < notes[0]) return
    if (string === count) {
      if (fitsAsAWhole(frets, sounds)) yield [...frets]
      return
    }
    for (const fret of choices[string]!) {
      frets.push(fret)
      yield* fret === null
        ? place(string + 1, sounding, sounds)
        : place(string + 1, sounding + 1, sounds | (1 << (soundAt(instrument, string, fret) % 12)))
      frets.pop()
    }
  }

  const fitsAsAWhole = (grip: readonly (number | null)[], sounds: number): boolean => {
    if (requirement.oneOf.some((set) => (set & sounds) === 0)) return false
    let low = Infinity
    let high = -Infinity
    let touchesFirst = first === null
    let bassTones = 0
    for (let string = 0; string < count; string += 1) {
      const fret = grip[string]
      if (fret === null || fret === undefined) continue
      if (fret === first) touchesFirst = true
      const midi = soundAt(instrument, string, fret)
      if (midi < low) low = midi
      if (midi > high) high = midi
      if (midi % 12 === bassChord) bassTones += 1
    }
    return (
      touchesFirst &&
      (requirement.bass & (1 << (low % 12))) !== 0 &&
      (top === null || high === top) &&
      !(bassOnlyAtBottom && bassTones > 1)
    )
  }

  yield* place(0, 0, 0)
}
