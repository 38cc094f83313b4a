import { lastOf } from '../lists'
import { NEAR } from '../chart/beats'
import type { Bar, Chart } from '../chart/chart'

const BARS_A_LINE = 4
/**
 * The bars of a chart in lines of text: four to a line, a new one for each section, and where else
 * one begins.
 */
export const textLinesOf = (chart: Chart, begins: (bar: Bar) => boolean = () => false): Bar[][] => {
  const lines: Bar[][] = []
  for (const bar of chart.bars) {
    if (lines.length === 0 || lastOf(lines).length === BARS_A_LINE || bar.opensSection || begins(bar))
      lines.push([])
    lastOf(lines).push(bar)
  }
  return lines
}

/** The first chord comes after the first bar has begun. */
export const beginsSilent = ({ bars: [first] }: Chart): boolean =>
  first !== undefined && (first.slots[0]?.beat ?? Infinity) > first.from + NEAR

const barlineBehind = (bar: Bar, next: Bar | undefined): string => {
  if (next?.opensRepeat) return bar.played > 0 ? '::' : '|:'
  return bar.played > 0 ? ':|' : '|'
}

const opening = (bar: Bar): string => (bar.opensRepeat ? '|: ' : '| ')

/** Bars with the lines between them; a passage that is repeated is written so. */
export const withBarLines = (bars: readonly Bar[], written: (bar: Bar) => string): string =>
  bars
    .map(
      (bar, at) =>
        `${at === 0 ? opening(bar) : ''}${written(bar)} ${barlineBehind(bar, bars[at + 1])}${at < bars.length - 1 ? ' ' : ''}`,
    )
    .join('')
