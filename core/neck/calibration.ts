import type { Hand } from './hand'
import { reachMm } from './instrument'

/** A stretch a player tries, index finger to little finger. */
export interface Stretch {
  from: number
  to: number
}

/**
 * Three stretches from easy to wide on any neck of usual length (common practice, no source for the
 * order of ease).
 */
export const STRETCHES: readonly Stretch[] = [
  { from: 9, to: 12 },
  { from: 5, to: 9 },
  { from: 1, to: 5 },
]

export const ANSWERS = ['comfortable', 'just', 'too wide'] as const
export type ReachAnswer = (typeof ANSWERS)[number]

/** What a limit lies beyond a comfortable stretch, and under one that is too wide, as a share. */
const BEYOND = 1.12
const UNDER = 0.94
/** Reaches a hand can be given, in mm. */
export const REACH_RANGE_MM = [50, 160] as const

/**
 * The comfortable reach of a hand, in mm, from what was said of the three stretches: one that just
 * goes is the limit itself; else the limit lies between the widest comfortable one and the
 * narrowest that is too wide.
 */
export function reachFrom(answers: readonly ReachAnswer[], scaleLengthMm: number): Hand['reachMm'] {
  const mm = STRETCHES.map(({ from, to }) => reachMm(from, to, scaleLengthMm))
  const widths = (answer: ReachAnswer) => mm.filter((_, at) => answers[at] === answer)
  const [comfortable, just, tooWide] = [
    Math.max(0, ...widths('comfortable')),
    widths('just'),
    Math.min(Infinity, ...widths('too wide')),
  ]
  const between = () => {
    if (comfortable === 0) return tooWide * UNDER
    return tooWide === Infinity ? comfortable * BEYOND : (comfortable + tooWide) / 2
  }
  const limit = just.length > 0 ? Math.max(...just) : between()
  return Math.round(Math.min(REACH_RANGE_MM[1], Math.max(REACH_RANGE_MM[0], limit)))
}
