import { useCallback } from 'react'
import type { Line } from '../../../core/leading/line'
import { colourOf } from '../../../core/leading/lineWords'
import { axisOf, PlotlyChart, type Colours, type Drawn } from '../../services/charts/PlotlyChart'

interface Props {
  lines: readonly Line[]
  chosen: number
  onLine: (line: number) => void
}

/**
 * Every line found as a point: how colourful its grips are against how far the hand travels. A
 * touch takes the line and plays it.
 */
export function LinesChart({ lines, chosen, onLine }: Props) {
  const draw = useCallback(
    (colours: Colours): Drawn => ({
      traces: [
        {
          type: 'scatter',
          mode: 'text+markers',
          x: lines.map((line) => line.measures.hand / 10),
          y: lines.map(colourOf),
          text: lines.map((_, at) => String(at + 1)),
          textposition: 'top center',
          textfont: { color: colours.ink, size: 13 },
          marker: {
            size: 15,
            color: lines.map((_, at) => (at === chosen ? colours.reed : colours.pond)),
            line: { color: colours.ink, width: lines.map((_, at) => (at === chosen ? 2 : 0)) },
          },
          hovertemplate: 'Line %{text}: hand travels %{x:.0f} cm, %{y:.1f} tensions a chord<extra></extra>',
        },
      ],
      layout: {
        xaxis: axisOf('how far the hand travels, cm', colours),
        yaxis: axisOf('tensions a chord', colours),
      },
    }),
    [lines, chosen],
  )
  return (
    <PlotlyChart
      label={`Chart of the lines: ${lines.map((line, at) => `line ${at + 1}, hand travels ${Math.round(line.measures.hand / 10)} cm, ${colourOf(line).toFixed(1)} tensions a chord`).join('; ')}`}
      draw={draw}
      onPoint={onLine}
    />
  )
}
