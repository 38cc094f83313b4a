import { createHash } from 'node:crypto'
import { homeKey } from '../core/analysis/analyse'
import { soughtIn } from '../core/analysis/sought'
import type { Chart } from '../core/chart/chart'
import { parseChart } from '../core/chart/parseChart'
import { keyName } from '../core/pitch/key'
import { PLAIN_LEADING, type TuneDocument } from '../core/tune/document'
import type { HowFarATune, TuneSummary } from './schema'

/** What the songbook says of a chart. @param sought what it is found by, where that is known */
export function summaryOf(document: TuneDocument, sought?: TuneSummary['sought']): TuneSummary {
  const chart = parseChart(document.text)
  const key = chart.key ?? (chart.bars.length > 0 ? homeKey(chart) : null)
  return {
    key: key && keyName(key),
    meter: `${chart.meter.beats}/${chart.meter.unit}`,
    bars: chart.bars.length,
    far: howFarIs(document, chart.bars.length),
    sought: sought === undefined ? foundBy(chart) : sought,
  }
}

/** The changes are only compared with others: a digest says as much. */
function foundBy(chart: Chart): NonNullable<TuneSummary['sought']> | null {
  const sought = soughtIn(chart)
  return sought && { ...sought, changes: sought.changes && digest(sought.changes) }
}
const digest = (text: string) => createHash('sha256').update(text).digest('base64url').slice(0, 16)

/** The last thing the player did; grips that a search found by itself are nobody's work. */
function howFarIs(
  { colour, choices, style, leading, line, fixed, conditions, melody, rhythm }: TuneDocument,
  bars: number,
): HowFarATune {
  if (bars === 0) return 'empty'
  if (rhythm.figure !== null || Object.keys(rhythm.byHand).length > 0) return 'with rhythm'
  if (melody.length > 0) return 'with melody'
  if (
    style !== 'smooth' ||
    line !== 0 ||
    conditions.length > 0 ||
    Object.keys(fixed).length > 0 ||
    JSON.stringify(leading) !== JSON.stringify(PLAIN_LEADING)
  )
    return 'led'
  return colour > 0 || Object.keys(choices).length > 0 ? 'coloured' : 'typed'
}
