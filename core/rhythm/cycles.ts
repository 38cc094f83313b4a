import { NEAR } from '../chart/beats'
import { meterName, type Bar, type Meter } from '../chart/chart'
import type { Cycle } from './figures'
import type { RawHit, Restart } from './hit'
import type { PlayedBar } from './playedTime'

/** The hits of one bar's worth of a cycle: those at `offset` beats into it, for so many beats. */
function hitsWithin({ cycle, hits }: Cycle, offset: number, beats: number) {
  const found: { at: number; hit: Cycle['hits'][number] }[] = []
  for (let round = Math.floor((offset + NEAR) / cycle) * cycle; round < offset + beats - NEAR; round += cycle)
    for (const hit of hits) {
      const at = round + hit.at - offset
      if (at > -NEAR && at < beats - NEAR) found.push({ at: Math.max(0, at), hit })
    }
  return found.sort((a, b) => a.at - b.at)
}

/**
 * The hits of the figure over all bars as they are played, before chords are known. The cycle
 * begins again where `restart` says, where another figure begins and where the metre changes; where
 * the note that is a beat changes too, the plainest figure of that metre stands in, if the table
 * has one. A pickup has the end of a cycle.
 */
export function cyclesOf(
  bars: readonly PlayedBar[],
  meter: Meter,
  figureOf: (bar: Bar) => Cycle | null,
  restart: Restart,
  standIn: (meter: Meter) => Cycle | null,
): { hits: RawHit[]; notes: string[] } {
  const hits: RawHit[] = []
  const notes = new Set<string>()
  let offset = 0
  let before: { bar: Bar; cycle: Cycle | null } | null = null
  for (const { bar, from, scale } of bars) {
    const asked = figureOf(bar)
    const other = asked !== null && bar.meter.unit !== meter.unit ? standIn(bar.meter) : null
    if (other)
      notes.add(`In ${meterName(bar.meter)} another figure stands in: this one is made for another beat.`)
    const cycle: Cycle | null = other ?? asked
    const beginsAgain: boolean =
      before === null ||
      before.cycle !== cycle ||
      meterName(before.bar.meter) !== meterName(bar.meter) ||
      before.bar.number === 0 ||
      restart === 'bar' ||
      (restart === 'section' && bar.opensSection)
    if (beginsAgain) {
      // The end of a cycle stands in a pickup, so that the first bar has its beginning.
      offset = bar.number === 0 && cycle ? (cycle.cycle - (bar.beats % cycle.cycle)) % cycle.cycle : 0
    }
    if (cycle)
      for (const { at, hit } of hitsWithin(cycle, offset, bar.beats)) {
        const { length, part, accent, stroke, push } = hit
        hits.push({ time: from + at * scale, scale, length, part, accent, stroke, push })
      }
    offset = cycle ? (offset + bar.beats) % cycle.cycle : 0
    before = { bar, cycle }
  }
  return { hits, notes: [...notes] }
}
