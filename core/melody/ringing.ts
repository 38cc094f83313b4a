import { lastOf } from '../lists'
import type { Chart } from '../chart/chart'
import type { Voicing } from '../voicing/voicing'
import { Clock } from './clock'
import type { HarmonisedNote } from './melodyLine'

/**
 * Strings of a grip that are struck together and ring for a time. Times in beats of the metre the
 * tune begins with, from its first bar.
 */
export interface Layered {
  from: number
  to: number
  /** The event it belongs to, by its place in the line. */
  at: number
  voicing: Voicing
  /** Indexes into `voicing.strings`. */
  struck: readonly number[]
}

/**
 * A chord melody as two layers: the melody above, and under it the grips, which ring on while the
 * melody moves over them.
 */
export function ringingLayers(
  chart: Chart,
  notes: readonly HarmonisedNote[],
): { upper: Layered[]; lower: Layered[] } {
  const clock = new Clock(chart)
  const upper: Layered[] = []
  const lower: Layered[] = []
  notes.forEach(({ note, bar, beat, beats, under, voicing }, at) => {
    const from = clock.at({ bar, beat })
    const highest = lastOf(voicing.midis)
    const top = note ? voicing.strings.findIndex(({ midi }) => midi === highest) : -1
    const sung = upper.at(-1)
    if (under === 'line' && sung && top >= 0) sung.to = Math.max(sung.to, from + beats)
    else if (top >= 0) upper.push({ from, to: from + beats, at, voicing, struck: [top] })
    if (under === 'held') return
    // A grip rings until something else is struck; a note alone ends it too.
    const before = lower.at(-1)
    if (before) before.to = Math.min(before.to, from)
    const struck = voicing.strings.flatMap((_, index) => (index === top ? [] : [index]))
    if (struck.length > 0) lower.push({ from, to: clock.end, at, voicing, struck })
  })
  return { upper, lower }
}
