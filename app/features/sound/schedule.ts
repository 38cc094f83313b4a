import type { TuneChord } from '../workspace/useTuneReading'

/** What the player wants to hear. */
export type Version = 'plain' | 'new' | 'both'

/** One chord struck in the course of a playing, in beats from its beginning. */
export interface Strike {
  beat: number
  beats: number
  /** Sounding MIDI numbers, lowest first. */
  midis: readonly number[]
  /** Index of the chord in the tune. */
  index: number
  version: 'plain' | 'new'
}

export interface Schedule {
  strikes: Strike[]
  /** Metronome clicks before the music, in beats from the beginning; the first of a bar is strong. */
  clicks: { beat: number; strong: boolean }[]
  /** Beats before the music begins. */
  countIn: number
  /** Beats in all, the count-in among them. */
  length: number
}

/**
 * Lays out what is heard.
 * @param chords in the order in which they are played
 * @param countInBeats beats clicked before the music, 0 for none
 */
export function scheduleOf(
  chords: readonly TuneChord[], version: Version, countInBeats: number,
  grips: { plain: ReadonlyMap<string, readonly number[]>; new: ReadonlyMap<string, readonly number[]> },
): Schedule {
  const strikes: Strike[] = []
  let beat = countInBeats
  for (const which of version === 'both' ? (['plain', 'new'] as const) : [version])
    for (const { key, index, lasts } of chords) {
      const midis = grips[which].get(key)
      if (midis) strikes.push({ beat, beats: lasts, midis, index, version: which })
      beat += lasts
    }
  return {
    strikes, countIn: countInBeats, length: beat,
    clicks: Array.from({ length: countInBeats }, (_, at) => ({ beat: at, strong: at === 0 })),
  }
}
