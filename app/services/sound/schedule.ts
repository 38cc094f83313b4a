import { firstOf } from '../../../core/lists'
import type { Stroke } from '../../../core/rhythm/figures'
import { NEAR, sameBeat } from '../../../core/chart/beats'
/**
 * One of the lines that can be heard: the home line, the new one, and a kept version shown beside
 * it.
 */
export type HeardLine = 'plain' | 'new' | 'beside'
/**
 * What the player wants to hear: one line, the plain one and then the new, or the new one and then
 * the one beside it.
 */
export type Version = 'plain' | 'new' | 'both' | 'turn'

export const LINES_OF: Readonly<Record<Version, readonly HeardLine[]>> = {
  plain: ['plain'],
  new: ['new'],
  both: ['plain', 'new'],
  turn: ['new', 'beside'],
}

/** A chord to be struck or passed over in silence. */
export interface Played {
  index: number
  /** In beats of the metre the tune begins with. */
  lasts: number
  /** Sounding MIDI numbers, lowest first; null for silence. */
  midis: readonly number[] | null
  /** How loud each of them is, from 0 silent to 1; all alike where it is not said. */
  levels?: readonly number[]
}

/** Who plays a strike. */
export type SoundPart = 'guitar' | 'melody' | 'bass'

/** One chord struck in the course of a playing, in beats from its beginning. */
export interface Strike {
  beat: number
  beats: number
  /** Sounding MIDI numbers, lowest first. */
  midis: readonly number[]
  levels?: readonly number[]
  /** Index of the chord in its line. */
  index: number
  version: HeardLine
  part: SoundPart
  /** How hard it is struck, above 0 to 1. */
  velocity: number
  /** How the right hand makes it. */
  stroke: Stroke
}

/** A strike as the guitar plays it where nothing else is said: a down stroke of usual strength. */
export const struck = (strike: Omit<Strike, 'part' | 'velocity' | 'stroke'> & Partial<Strike>): Strike => ({
  part: 'guitar',
  velocity: 0.8,
  stroke: 'down',
  ...strike,
})

/** A few chords, or notes, one after the other, that are no part of a tune: something tried. */
export function excerptOf(chords: readonly { beats: number; midis: readonly number[] }[]): Schedule {
  let beat = 0
  const strikes = chords.map(({ beats, midis }) => {
    beat += beats
    return struck({ beat: beat - beats, beats, midis, index: -1, version: 'new' })
  })
  return { strikes, clicks: [], countIn: 0, length: beat, pass: beat }
}

export interface Schedule {
  strikes: Strike[]
  /**
   * Metronome clicks before the music, in beats from the beginning; the first of a bar is strong.
   */
  clicks: { beat: number; strong: boolean }[]
  /** What marks the time in the music itself, in beats from the beginning. */
  beats?: { beat: number; strong: boolean; brush: 'sweep' | 'tap' | null }[]
  /** Beats before the music begins. */
  countIn: number
  /** Beats in all, the count-in among them. */
  length: number
  /** Beats of the music once through: where several lines are heard in turn, of each of them. */
  pass: number
}

/**
 * Clicks before the music, the first of each bar strong. The last click is the last beat before the
 * music.
 */
export const clicksFor = (countInBeats: number, barBeats: number): Schedule['clicks'] =>
  Array.from({ length: countInBeats }, (_, at) => ({ beat: at, strong: at % Math.max(1, barBeats) === 0 }))

/**
 * The same place of the music in another schedule: where a beat of the one is in the other, on its
 * first time through.
 */
export function placeIn(next: Schedule, from: Schedule, beat: number): number {
  if (beat < from.countIn) return Math.max(0, next.countIn - (from.countIn - beat))
  return next.countIn + (from.pass > 0 ? (beat - from.countIn) % from.pass : 0)
}

/**
 * The chord that has been sounding at a beat, cut to what is left of it; null where one is struck
 * just there, or nothing sounds.
 */
export function ringingAt({ strikes }: Schedule, beat: number): Strike | null {
  const begun = strikes.filter(
    (strike) =>
      strike.part !== 'bass' && strike.beat < beat - NEAR && strike.beat + strike.beats > beat + NEAR,
  )
  const last = begun.at(-1)
  return last && !strikes.some((strike) => strike.part !== 'bass' && sameBeat(strike.beat, beat))
    ? { ...last, beat, beats: last.beat + last.beats - beat }
    : null
}

/**
 * Lays out what is heard.
 * @param lines for each line its chords in the order in which they are played
 * @param countInBeats beats clicked before the music, 0 for none
 * @param barBeats beats in a bar, of which the first is stressed
 */
export function scheduleOf(
  lines: Readonly<Record<HeardLine, readonly Played[]>>,
  version: Version,
  countInBeats: number,
  barBeats = countInBeats,
): Schedule {
  const strikes: Strike[] = []
  let beat = countInBeats
  for (const which of LINES_OF[version])
    for (const { index, lasts, midis, levels } of lines[which]) {
      if (midis)
        strikes.push(
          struck({ beat, beats: lasts, midis, index, version: which, ...(levels ? { levels } : {}) }),
        )
      beat += lasts
    }
  return {
    strikes,
    countIn: countInBeats,
    length: beat,
    clicks: clicksFor(countInBeats, barBeats),
    pass: lines[firstOf(LINES_OF[version])].reduce((sum, { lasts }) => sum + lasts, 0),
  }
}
