import { itemAt } from '../lists'
import { NEAR } from '../chart/beats'
import type { Bar, Chart, Slot } from '../chart/chart'
import { playOrder } from '../chart/form'
import type { ChordSymbol } from '../chord/symbol'

/**
 * A bar at the time at which it is played. Times are in beats of the metre the tune begins with,
 * from 0 at the first bar (or pickup).
 */
export interface PlayedBar {
  bar: Bar
  from: number
  to: number
  /** Beats of the first metre in a beat of this bar. */
  scale: number
  /** Its place among the bars as they are played. */
  turn: number
}

/** A chord, or a silence, for as long as it is played. A hold belongs to the chord it holds. */
export interface Span {
  slot: Slot
  /** Null for `N.C.` and for what could not be read. */
  chord: ChordSymbol | null
  from: number
  to: number
}

/**
 * The bars of a chart in the order in which they are played, repeats, endings and jumps followed;
 * or each once, as they are written.
 */
export function playedBars(chart: Chart, order: 'played' | 'written' = 'played'): PlayedBar[] {
  let from = 0
  const bars = order === 'played' ? playOrder(chart) : chart.bars.map((_, at) => at)
  return bars.map((at, turn) => {
    const bar = itemAt(chart.bars, at)
    const scale = chart.meter.unit / bar.meter.unit
    const begin = from
    from += bar.beats * scale
    return { bar, from: begin, to: from, scale, turn }
  })
}

/** The chords of a tune at their times, silences among them. */
export function spansOf(bars: readonly PlayedBar[]): Span[] {
  const spans: Span[] = []
  for (const { bar, from, scale } of bars)
    for (const slot of bar.slots) {
      const begins = from + (slot.beat - bar.from) * scale
      const before = spans.at(-1)
      if (slot.held && before && Math.abs(before.to - begins) < NEAR) before.to = begins + slot.beats * scale
      else
        spans.push({
          slot,
          chord: slot.symbol?.kind === 'chord' ? slot.symbol.chord : null,
          from: begins,
          to: begins + slot.beats * scale,
        })
    }
  return spans
}

/** The bar that is played at a time; the last one past the end. */
export const barAt = (bars: readonly PlayedBar[], time: number): PlayedBar => {
  let [low, high] = [0, bars.length - 1]
  while (low < high) {
    const middle = (low + high + 1) >> 1
    if (itemAt(bars, middle).from <= time + NEAR) low = middle
    else high = middle - 1
  }
  return itemAt(bars, low)
}

/** Bar and beat, as written, of a time. */
export function writtenPlaceAt(bars: readonly PlayedBar[], time: number): { bar: number; beat: number } {
  const { bar, from, scale } = barAt(bars, time)
  return { bar: bar.number, beat: bar.from + (time - from) / scale }
}
