import type { Voicing } from '../voicing/voicing'

/**
 * Minutes of playing after which a rest is due: the usual ten, and fewer where the hand has barres
 * and wide grips to hold. Common practice, no source.
 */
export const REST_AFTER = { usual: 10, heavy: 6 } as const
/** A grip this near the player's reach, as a share of it, is heavy. */
const NEAR_REACH = 0.85
/** So many of the grips are heavy in what is called heavy. */
const HEAVY_SHARE = 0.4

/**
 * Share of the grips that tire a hand: barres, and what is near its reach. @param reachMm the
 * player's comfortable reach
 */
export function loadOf(voicings: readonly Pick<Voicing, 'fingering'>[], reachMm: number): number {
  if (voicings.length === 0) return 0
  const heavy = voicings.filter(
    ({ fingering }) => fingering.barres.length > 0 || fingering.reachMm >= NEAR_REACH * reachMm,
  )
  return heavy.length / voicings.length
}

/** A rest is due after so many minutes without one. */
export const restAfter = (load: number): number => (load >= HEAVY_SHARE ? REST_AFTER.heavy : REST_AFTER.usual)
