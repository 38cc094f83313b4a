import { useMemo } from 'react'
import { analyse } from '../../../core/analysis/analyse'
import { parseChart } from '../../../core/chart/parseChart'
import type { PlayerBody } from '../../../core/player/playerLimits'
import type { TuneDocument } from '../../../core/tune/document'
import { readLines, type TuneReading } from '../../../core/tune/tuneReading'
import { useNumerals } from '../notation/numeralCookie'

/**
 * The reading of a document as it changes: the chart is read anew only when its text is another.
 */
export function useTuneReading(document: TuneDocument, body: PlayerBody): TuneReading {
  const { text, colour, choices, fixed, gripsOn, called } = document
  const { school } = useNumerals()
  const read = useMemo(() => {
    const chart = parseChart(text)
    return { chart, analysis: analyse(chart, school) }
  }, [text, school])
  return useMemo(
    () => ({
      ...read,
      ...readLines(read.chart, read.analysis, { colour, choices, fixed, gripsOn, called }, body),
    }),
    [read, colour, choices, fixed, gripsOn, called, body],
  )
}
