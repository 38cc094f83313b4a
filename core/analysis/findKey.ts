import { firstOf, itemAt, lastOf } from '../lists'
import { keyName, signatureOf, type Key, type Mode } from '../pitch/key'
import { pitchClass, plainSpelling, type Note } from '../pitch/note'
import { keyFit } from './keyFit'
import type { Kind } from './kind'
import type { Sounding } from './chordPlaces'

/** A key a progression could be in, and how sure that is. */
export interface KeyGuess {
  key: Key
  /** 0 to 1; all 24 together make 1. A share of the evidence, not a measured probability. */
  confidence: number
}

/**
 * What speaks for a key besides its chords, in points: a tune usually begins and usually ends at
 * home. Common practice.
 */
const BEGINS_AT_HOME = 1.5
const ENDS_AT_HOME = 1.5
/** And a tune that does both is at home there, whatever it visits between. */
const BOTH_AT_HOME = 2.5
/** A dominant seventh at the end leads back to the top. */
const ENDS_ON_FIVE = 1
/** This many points between two keys make one of them e times as likely. */
const POINTS_PER_E = 1.5

export const C_MAJOR: Key = { tonic: { letter: 0, alter: 0 }, mode: 'major' }
export const MODES: readonly Mode[] = ['major', 'minor']

/**
 * Every key a progression could be in, the likeliest first. C major for no chords, with confidence
 * 0.
 */
export function rankKeys(sounding: readonly Sounding[]): KeyGuess[] {
  if (sounding.length === 0) return [{ key: C_MAJOR, confidence: 0 }]
  const judged = sounding.map((one) => ({ ...one, root: pitchClass(one.chord.root) }))
  const roots = sounding.map((one) => one.chord.root)
  const scored = MODES.flatMap((mode) =>
    Array.from({ length: 12 }, (_, tonic) => {
      const home = (one: { root: number; kind: Kind } | undefined) =>
        one !== undefined &&
        one.root === tonic &&
        (one.kind === 'minor') === (mode === 'minor') &&
        one.kind !== 'diminished' &&
        one.kind !== 'half-diminished'
      const chords = judged.reduce(
        (sum, one, at) => sum + keyFit(one, judged[at + 1], tonic, mode) * weightOf(one.slot.beats),
        0,
      )
      const last = lastOf(judged)
      const onFive = last.kind === 'dominant' && (last.root - tonic + 12) % 12 === 7
      return {
        tonic,
        mode,
        score:
          chords +
          (home(judged[0]) ? BEGINS_AT_HOME : 0) +
          (home(last) ? ENDS_AT_HOME : 0) +
          (home(judged[0]) && home(last) ? BOTH_AT_HOME : 0) +
          (onFive ? ENDS_ON_FIVE : 0),
      }
    }),
  )
  scored.sort((a, b) => b.score - a.score)
  const shares = scored.map(({ score }) => Math.exp((score - firstOf(scored).score) / POINTS_PER_E))
  const all = shares.reduce((sum, share) => sum + share, 0)
  return scored.map(({ tonic, mode }, at) => ({
    key: spelledKey(tonic, mode, roots),
    confidence: itemAt(shares, at) / all,
  }))
}

/** The home key of a progression that names none. */
export const findKey = (sounding: readonly Sounding[]): KeyGuess => firstOf(rankKeys(sounding))

/** A long chord says more than a short one, but not in proportion. */
export const weightOf = (beats: number): number => Math.sqrt(Math.min(beats, 8) / 4)

/** A key on a sound, spelled as the chart spells that root, else with fewest accidentals. */
export function spelledKey(sound: number, mode: Mode, roots: readonly Note[]): Key {
  const fits = (key: Key) => Math.abs(signatureOf(key)) <= 7
  const written = roots.find((root) => pitchClass(root) === sound && fits({ tonic: root, mode }))
  if (written) return { tonic: written, mode }
  const spellings = [plainSpelling(sound), plainSpelling(sound, true)]
    .map((tonic): Key => ({ tonic, mode }))
    .filter(fits)
  spellings.sort(
    (a, b) => Math.abs(signatureOf(a)) - Math.abs(signatureOf(b)) || keyName(a).length - keyName(b).length,
  )
  return firstOf(spellings)
}
