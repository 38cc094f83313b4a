/** One of the lines that can be heard: the home line, the new one, and a kept version shown beside it. */
export type Heard = 'plain' | 'new' | 'beside'
/** What the player wants to hear: one line, the plain one and then the new, or the new one and then the one beside it. */
export type Version = 'plain' | 'new' | 'both' | 'turn'

const LINES_OF: Readonly<Record<Version, readonly Heard[]>> = { plain: ['plain'], new: ['new'], both: ['plain', 'new'], turn: ['new', 'beside'] }

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

/** One chord struck in the course of a playing, in beats from its beginning. */
export interface Strike {
  beat: number
  beats: number
  /** Sounding MIDI numbers, lowest first. */
  midis: readonly number[]
  levels?: readonly number[]
  /** Index of the chord in its line. */
  index: number
  version: Heard
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
 * @param lines for each line its chords in the order in which they are played
 * @param countInBeats beats clicked before the music, 0 for none
 */
export function scheduleOf(lines: Readonly<Record<Heard, readonly Played[]>>, version: Version, countInBeats: number): Schedule {
  const strikes: Strike[] = []
  let beat = countInBeats
  for (const which of LINES_OF[version])
    for (const { index, lasts, midis, levels } of lines[which]) {
      if (midis) strikes.push({ beat, beats: lasts, midis, index, version: which, ...(levels ? { levels } : {}) })
      beat += lasts
    }
  return {
    strikes, countIn: countInBeats, length: beat,
    clicks: Array.from({ length: countInBeats }, (_, at) => ({ beat: at, strong: at === 0 })),
  }
}
