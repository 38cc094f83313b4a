import { NEAR } from '../chart/beats'
import type { OwnHit, RawHit } from './hit'
import type { PlayedBar } from './playedTime'

export type HandHits = ReadonlyMap<string, OwnHit | null>

/** A place for maps: places that were written with three decimals are one. */
const nearly = (time: number): number => Math.round(time * 1000)

/** The times at which something was decided by hand, in order. A repeated bar has it each time. */
function decided(bars: readonly PlayedBar[], byHand: HandHits) {
  const inBar = new Map<number, { beat: number; hit: OwnHit | null }[]>()
  for (const [place, hit] of byHand) {
    const [bar, beat] = place.split(':').map(Number) as [number, number]
    const known = inBar.get(bar)
    if (known) known.push({ beat, hit })
    else inBar.set(bar, [{ beat, hit }])
  }
  return bars
    .flatMap(({ bar, from, to, scale }) =>
      (inBar.get(bar.number) ?? []).flatMap(({ beat, hit }) => {
        const time = from + (beat - bar.from) * scale
        return time > from - NEAR && time < to - NEAR ? [{ time, hit, scale }] : []
      }),
    )
    .sort((a, b) => a.time - b.time)
}

/** The hits of a figure with those by hand in their places, and when one was left out. */
export function overHand(
  hits: readonly RawHit[],
  bars: readonly PlayedBar[],
  byHand: HandHits,
): { hits: RawHit[]; leftOutAt: readonly number[] } {
  if (byHand.size === 0) return { hits: [...hits], leftOutAt: [] }
  const made = decided(bars, byHand)
  const taken = new Set(made.map(({ time }) => nearly(time)))
  const put = made.flatMap(({ time, hit, scale }): RawHit[] =>
    hit ? [{ ...hit, time, scale, why: 'by hand' }] : [],
  )
  return {
    hits: [...hits.filter(({ time }) => !taken.has(nearly(time))), ...put].sort((a, b) => a.time - b.time),
    leftOutAt: made.flatMap(({ time, hit }) => (hit === null ? [time] : [])),
  }
}
