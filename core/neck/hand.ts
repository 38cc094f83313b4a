/** What a player's fretting hand can and may do. */
export interface Hand {
  /**
   * Widest comfortable distance in mm along the neck, index to little finger; the other pairs
   * follow in proportion.
   */
  reachMm: number
  /** The thumb may come over the neck and hold the lowest string (and the one beside it). */
  thumb: boolean
  /** Fingers may lie across several strings. */
  barre: boolean
  /** Strings between sounding ones may be silenced by a neighbouring finger. */
  innerMutes: boolean
  /**
   * The other hand plucks just the strings that sound, so that those between need no muting (common
   * practice: right hand, fingers); strummed where it is not said.
   */
  plucked?: boolean
  /** Fingers that cannot be used. */
  missing: readonly Finger[]
  /** Fingers that hold, but tire: grips that use them count as harder. */
  weak: readonly Finger[]
}

/**
 * 100 mm lets a hand hold four frets in first position (97 mm) and five from the sixth fret up.
 * Common practice; a player's own calibration replaces it.
 */
export const DEFAULT_HAND: Hand = {
  reachMm: 100,
  thumb: false,
  barre: true,
  innerMutes: true,
  missing: [],
  weak: [],
}

export type Finger = 1 | 2 | 3 | 4
export type FingerOrThumb = Finger | 'T'

/**
 * Reach of each pair of fingers as a share of the hand's whole reach (index to little finger).
 * Middle, ring and little finger part less than index and middle do: at 100 mm the ring and little
 * finger manage 55 mm, two frets from about the fifth fret up. Common practice, no source.
 */
const PAIR_SHARE: Readonly<Record<string, number>> = {
  '12': 0.7,
  '13': 0.88,
  '14': 1,
  '23': 0.55,
  '24': 0.8,
  '34': 0.55,
}

/** The widest distance in mm that two fingers of a hand can hold. */
export const pairReachMm = (hand: Hand, a: Finger, b: Finger): number =>
  hand.reachMm * PAIR_SHARE[a < b ? `${a}${b}` : `${b}${a}`]!

export const FINGER_NAMES: Readonly<Record<FingerOrThumb, string>> = {
  1: 'index',
  2: 'middle',
  3: 'ring',
  4: 'little finger',
  T: 'thumb',
}
