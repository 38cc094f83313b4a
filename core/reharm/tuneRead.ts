import { analyse } from '../analysis/analyse'
import type { Analysis } from '../analysis/chordReading'
import type { Chart } from '../chart/chart'
import { parseChart } from '../chart/parseChart'
import { spotsOf, type Spot } from './spot'

/** A tune as the searches have it read. */
export interface TuneRead {
  chart: Chart
  analysis: Analysis
  spots: readonly (Spot | null)[]
}
/**
 * The tune that was read last: the same is asked for at another distance in the next moment, and
 * its changes are known by then.
 */
let last: { text: string; tune: TuneRead } | null = null
export function knownTune(text: string): TuneRead {
  if (last?.text !== text) {
    const chart = parseChart(text)
    const analysis = analyse(chart)
    last = { text, tune: { chart, analysis, spots: spotsOf(chart, analysis) } }
  }
  return last.tune
}
