import type { Voicing } from '../voicing/voicing'
import type { Limits } from '../voicing/gripLimits'
import { fingersAnew, handPlace, handTravelMm } from './measures'

/**
 * What a change of grip takes, in ms. Common practice, no source; sized so that open C to A minor
 * is at ease at 200 beats a minute and open A minor to a full barre on F at about 105, with a chord
 * struck once and held.
 */
export const HAND_TIMES = {
  /** To let go and to press again, whatever the grip. */
  release: 45,
  /** Each mm that the hand travels along the neck: 100 mm in less than a tenth of a second. */
  perMm: 0.8,
  /**
   * Each finger set down anew; one that slides along its string counts half, one that stays
   * nothing.
   */
  perFinger: 42,
  /**
   * Each point of difficulty of the grip to be taken beyond EASY: what is wide or barred is formed
   * more slowly.
   */
  perPoint: 26,
  /** Points up to which a grip falls into the hand. */
  easy: 1.5,
} as const

/** What it takes to let go and to form a grip, wherever it lies, in ms. */
export const formMs = ({ fingering }: Pick<Voicing, 'fingering'>): number =>
  HAND_TIMES.release + HAND_TIMES.perPoint * Math.max(0, fingering.difficulty - HAND_TIMES.easy)

/** What it takes to get there, in ms. */
export const wayMs = (mm: number, fingers: number): number =>
  HAND_TIMES.perMm * mm + HAND_TIMES.perFinger * fingers

/**
 * What the hand needs for a change, in ms: never less for a longer way, more fingers or a harder
 * grip.
 */
export function needsMs(from: Voicing, to: Voicing, { instrument }: Pick<Limits, 'instrument'>) {
  const [a, b] = [handPlace(from, instrument), handPlace(to, instrument)]
  const mm = handTravelMm(a, b)
  const fingers = fingersAnew(a, b)
  return { mm, fingers, ms: formMs(to) + wayMs(mm, fingers) }
}
