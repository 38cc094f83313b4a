import { hasDegree, type ChordSymbol } from '../chord/symbol'
import type { FingerOrThumb } from '../neck/hand'
import { fretMm, type Instrument } from '../neck/instrument'
import { modulo, pitchClass } from '../pitch/note'
import type { Degree } from '../pitch/degree'
import { mudIn, soursIn } from '../voicing/clashes'
import type { Family } from '../voicing/family'
import type { Voicing } from '../voicing/voicing'
import { voiceSteps } from '../pitch/motion'
import type { Term } from './weights'

/** A whole step: voices that move no further are said to move by step. */
const STEP = 2
/** A major third: further than that an inner voice is said to leap. */
const THIRD = 4
/** A grip of four different sounds is full for any chord (common practice). */
const FULL_GRIP = 4
/** Middle of the six-string comping register (A3), and how far from it (a fifth) costs nothing. */
const MIDDLE = 57
const MIDDLE_SPREAD = 7

/** From this fret up an open string stands apart from the fretted ones (common practice). */
const HIGH_FRET = 6

/** Measures of one grip by itself. */
export function gripMeasures(voicing: Voicing, chord: ChordSymbol): Pick<Record<Term, number>, 'grip' | 'mud' | 'sour' | 'fullness' | 'open' | 'register'> {
  const { midis } = voicing
  const sounds = new Set(midis.map((midi) => midi % 12))
  const wanted = Math.min(FULL_GRIP, chord.tones.length)
  const mean = midis.reduce((sum, midi) => sum + midi, 0) / midis.length
  return {
    grip: voicing.fingering.difficulty,
    mud: mudIn(midis).length, sour: soursIn(midis, chord).length,
    open: Math.max(...voicing.frets.map((fret) => fret ?? 0)) >= HIGH_FRET ? voicing.frets.filter((fret) => fret === 0).length : 0,
    fullness: Math.max(0, wanted - sounds.size) + 0.25 * (midis.length - sounds.size),
    register: Math.max(0, Math.abs(mean - MIDDLE) - MIDDLE_SPREAD),
  }
}

/** What a tone wants when the root falls a fifth or a half step: the semitones it may move and still keep its tendency. */
const TENDENCIES: Partial<Record<Degree, readonly number[]>> = {
  b7: [-1, -2, 0],
  b9: [-1, -2],
  b13: [-1, -2, 0],
  '4': [-1, -2, 0],
}
const LEADING_NOTE: readonly number[] = [1, 0, -1]

/** The sounds of a chord that pull somewhere when the next chord comes, with the moves that satisfy them. */
export function tendenciesOf(chord: ChordSymbol, next: ChordSymbol): (readonly number[] | undefined)[] {
  const fall = modulo(pitchClass(chord.root) - pitchClass(next.root), 12)
  const wants: (readonly number[] | undefined)[] = []
  if (fall !== 7 && fall !== 1) return wants
  const dominant = hasDegree(chord, '3') && hasDegree(chord, 'b7')
  for (const { degree, note } of chord.tones) {
    const moves = degree === '3' && dominant ? LEADING_NOTE : TENDENCIES[degree]
    if (moves) wants[pitchClass(note)] = moves
  }
  return wants
}

/** What the outer voices and the number of voices say of a step: cheap, and enough to rule most steps out. */
export function outlineMeasures(a: readonly number[], b: readonly number[]): Pick<Record<Term, number>, 'bass' | 'top' | 'outer' | 'voices'> {
  const bass = b[0]! - a[0]!
  const top = b.at(-1)! - a.at(-1)!
  return {
    bass: Math.max(0, Math.abs(bass) - STEP),
    top: Math.max(0, Math.abs(top) - STEP),
    outer: bass * top > 0 ? 1 : 0,
    voices: Math.abs(a.length - b.length),
  }
}

/** Sounds of a chord that are tensions, as a set of pitch classes in a mask. */
export const tensionsOf = (chord: ChordSymbol): number =>
  chord.tones.reduce((bits, { degree, note }) => (TENSIONS.includes(degree) ? bits | (1 << pitchClass(note)) : bits), 0)
const TENSIONS: readonly Degree[] = ['b9', '9', '#9', '11', '#11', 'b5', 'b13', '13', '#5']

/** What each voice does in a step: parallels, tendencies, tendencies kept where a tension lay above, common tones not held, and inner leaps. */
export function voiceMeasures(
  a: readonly number[], b: readonly number[], wants: readonly (readonly number[] | undefined)[], tensions: number,
): Pick<Record<Term, number>, 'parallels' | 'tendency' | 'tame' | 'held' | 'leaps'> {
  const steps = voiceSteps(a, b)
  let [sounds, stays] = [0, 0]
  for (const from of a) for (const to of b) if ((from - to) % 12 === 0) { sounds |= 1 << (from % 12); if (from === to) stays |= 1 << (from % 12) }
  let held = 0
  for (let left = sounds & ~stays; left > 0; left &= left - 1) held += 1
  let leaps = 0
  for (const { from, to, semitones } of steps) if (from !== a[0] && to !== b[0] && from !== a.at(-1) && to !== b.at(-1)) leaps += Math.max(0, Math.abs(semitones) - THIRD)
  let parallels = 0
  for (let i = 0; i < steps.length; i += 1)
    for (let j = i + 1; j < steps.length; j += 1) {
      const [low, high] = [steps[i]!, steps[j]!]
      if (low.semitones === 0 || low.semitones !== high.semitones) continue
      const interval = (high.from - low.from) % 12
      if (interval === 7 || (interval === 0 && high.from !== low.from)) parallels += 1
    }
  let [tendency, tame] = [0, 0]
  a.forEach((from, voice) => {
    const moves = wants[from % 12]
    if (!moves || a[voice - 1] === from) return
    const tensionAbove = (tensions & ((1 << ((from + 1) % 12)) | (1 << ((from + 2) % 12)))) !== 0
    if (tensionAbove && steps.some((step) => step.from === from && step.semitones < 0)) tame += 1
    if (!steps.some((step) => step.from === from && moves.includes(step.semitones))) tendency += 1
  })
  return { parallels, tendency, tame, held, leaps }
}

/** How four voices are laid out: close or dropped; null for anything else. */
export const layoutOf = ({ families }: Pick<Voicing, 'families'>): Family | null => LAYOUTS.find((family) => families.includes(family)) ?? null
const LAYOUTS = ['close', 'drop 2', 'drop 3', 'drop 2 and 4'] as const

/** Where a hand is and what it holds, in the form the search compares quickly. */
export interface HandPlace {
  /** Distance of the index finger's place from the nut in mm, or null when nothing is held. */
  mm: number | null
  /** For index, middle, ring, little, thumb: the fret held, 0 for none. */
  fret: readonly number[]
  /** For the same: the strings held, as a bit mask. */
  strings: readonly number[]
}

const SLOT: Readonly<Record<FingerOrThumb, number>> = { 1: 0, 2: 1, 3: 2, 4: 3, T: 4 }

/** The index finger's place is where it lies or would lie, one fret for each finger below the lowest one that is down. */
export function handPlace(voicing: Pick<Voicing, 'fingering'>, instrument: Instrument): HandPlace {
  const fret = [0, 0, 0, 0, 0]
  const strings = [0, 0, 0, 0, 0]
  for (const press of voicing.fingering.presses) {
    fret[SLOT[press.finger]] = press.fret
    strings[SLOT[press.finger]] = press.strings.reduce((mask, string) => mask | (1 << string), 0)
  }
  const lowest = [0, 1, 2, 3].find((slot) => fret[slot]! > 0)
  const index = lowest !== undefined ? Math.max(1, fret[lowest]! - lowest) : fret[4]! > 0 ? fret[4]! : null
  return { mm: index === null ? null : fretMm(index, instrument.scaleLengthMm), fret, strings }
}

/** Millimetres the hand travels; none when one of the grips needs no finger. */
export const handTravelMm = (a: HandPlace, b: HandPlace): number =>
  a.mm === null || b.mm === null ? 0 : Math.abs(a.mm - b.mm)

/** Fingers set down anew: one that stays is free, one that slides along a string it is on counts half. */
export function fingersAnew(a: HandPlace, b: HandPlace): number {
  let anew = 0
  for (let slot = 0; slot < 5; slot += 1) {
    if (b.fret[slot] === 0) continue
    if (a.fret[slot] === 0 || (a.strings[slot]! & b.strings[slot]!) === 0) anew += 1
    else if (a.fret[slot] !== b.fret[slot]) anew += 0.5
    else if (a.strings[slot] !== b.strings[slot]) anew += 0.25
  }
  return anew
}
