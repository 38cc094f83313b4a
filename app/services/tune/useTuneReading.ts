import { useMemo } from 'react'
import { analyse } from '../../../core/analysis/analyse'
import { parseChart } from '../../../core/chart/parse'
import type { PlayerBody } from '../../../core/player/limits'
import type { TuneDocument } from '../../../core/tune/document'
import { linesOf, type TuneReading } from '../../../core/tune/reading'
import { useNumerals } from '../notation/numerals'

/** The reading of a document as it changes: the chart is read anew only when its text is another. */
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
      ...linesOf(read.chart, read.analysis, { colour, choices, fixed, gripsOn, called }, body),
    }),
    [read, colour, choices, fixed, gripsOn, called, body],
  )
}
