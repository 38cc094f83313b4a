import { NEAR, NEAR_WRITTEN } from '../chart/beats'
import type { HandHit, RawHit } from './hit'
import type { PlayedBar } from './playedTime'

export type HandHits = ReadonlyMap<string, HandHit | null>

/** Hits by hand in each bar as written: beat, and what stands there. */
function byBar(byHand: HandHits): Map<number, { beat: number; hit: HandHit | null }[]> {
  const found = new Map<number, { beat: number; hit: HandHit | null }[]>()
  for (const [place, hit] of byHand) {
    const [bar, beat] = place.split(':').map(Number) as [number, number]
    const known = found.get(bar) ?? []
    known.push({ beat, hit })
    found.set(bar, known)
  }
  return found
}

/** The hits of a figure with those by hand in their places. A repeated bar has them each time. */
export function overHand(hits: readonly RawHit[], bars: readonly PlayedBar[], byHand: HandHits): RawHit[] {
  if (byHand.size === 0) return [...hits]
  const inBar = byBar(byHand)
  const made: { from: number; hit: HandHit | null; scale: number }[] = bars.flatMap(
    ({ bar, from, to, scale }) =>
      (inBar.get(bar.number) ?? []).flatMap(({ beat, hit }) => {
        const time = from + (beat - bar.from) * scale
        return time > from - NEAR && time < to - NEAR ? [{ from: time, hit, scale }] : []
      }),
  )
  const stays = hits.filter(({ time }) => !made.some(({ from }) => Math.abs(from - time) < NEAR_WRITTEN))
  const put = made.flatMap(({ from, hit, scale }): RawHit[] =>
    hit ? [{ ...hit, time: from, scale, why: 'by hand' }] : [],
  )
  return [...stays, ...put].sort((a, b) => a.time - b.time)
}

/** Whether something was left out by hand between two times. */
export function leftOutBetween(
  byHand: HandHits,
  bars: readonly PlayedBar[],
  from: number,
  to: number,
): boolean {
  if (byHand.size === 0) return false
  const inBar = byBar(byHand)
  return bars.some(
    ({ bar, from: begins, to: ends, scale }) =>
      ends > from &&
      begins < to &&
      (inBar.get(bar.number) ?? []).some(({ beat, hit }) => {
        const time = begins + (beat - bar.from) * scale
        return hit === null && time > from - NEAR && time < to - NEAR
      }),
  )
}
