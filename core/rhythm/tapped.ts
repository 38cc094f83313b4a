import type { Meter } from '../chart/chart'
import type { Cycle, FigureHit } from './figures'

/**
 * What taps are put on, in beats: eighths in metres of quarters, the beat itself in metres of
 * eighths.
 */
export const tapGrid = ({ unit }: Meter): number => (unit >= 8 ? 1 : 0.5)

/**
 * A figure from taps. Bars that are tapped alike become one bar; a tap just before the first beat
 * belongs to it.
 * @param taps in beats from the first beat of the first bar
 * @param bars how many were listened to
 * @returns null where nothing was tapped
 */
export function tapped(
  taps: readonly number[],
  meter: Meter,
  bars: number,
): (Cycle & { hits: FigureHit[] }) | null {
  const grid = tapGrid(meter)
  const whole = bars * meter.beats
  const places = [...new Set(taps.map((tap) => (Math.round(tap / grid) * grid + whole) % whole))].sort(
    (a, b) => a - b,
  )
  if (places.length === 0) return null
  const inBar = (bar: number) =>
    places.filter((at) => Math.floor(at / meter.beats) === bar).map((at) => at - bar * meter.beats)
  const alike = Array.from({ length: bars }, (_, bar) => inBar(bar).join()).every(
    (one, _, [first]) => one === first,
  )
  const cycle = alike ? meter.beats : whole
  return {
    cycle,
    hits: (alike ? inBar(0) : places).map((at) => ({
      at,
      length: 'held',
      part: 'all',
      accent: 'plain',
      stroke: Number.isInteger(at) ? 'down' : 'up',
      push: false,
    })),
  }
}
