import type { BassRule, Limits } from '../voicing/gripLimits'
import { limitsFor, type PlayerBody } from './playerLimits'

/**
 * What the grips under a melody keep to, for this player.
 * @param window frets the hand stays in; null for the whole neck
 * @param topString the highest string in use, counted from 1
 */
export function melodyLimits(
  body: PlayerBody,
  capo: number,
  bass: BassRule,
  window: readonly [number, number] | null = null,
  topString = 1,
): Limits {
  const limits = limitsFor(body, capo, bass)
  const strings = limits.instrument.tuning.length
  return {
    ...limits,
    frets: window ?? [0, Math.max(limits.frets[1], body.instrument.cutaway)],
    notes: [2, limits.notes[1]],
    strings: topString > 1 ? Array.from({ length: strings - topString + 1 }, (_, at) => at) : null,
  }
}
