import { useEffect, useRef } from 'react'
import type { Line } from '../../../core/leading/lead'
import { colourOf } from '../../../core/leading/words'
import { useThemeChoice } from '../../theme/useTheme'

interface Props {
  lines: readonly Line[]
  chosen: number
  onLine: (line: number) => void
}

/** Every line found as a point: how colourful its grips are against how far the hand travels. A touch takes the line and plays it. */
export function LinesChart({ lines, chosen, onLine }: Props) {
  const box = useRef<HTMLDivElement>(null)
  const take = useRef(onLine)
  take.current = onLine
  const { name: theme } = useThemeChoice()
  useEffect(() => {
    const here = box.current
    if (!here) return
    let gone = false
    let away = () => {}
    // The library is large and only wanted when the chart is shown.
    void import('plotly.js-basic-dist-min').then(async ({ default: Plotly }) => {
      if (gone) return
      const colour = (name: string) =>
        getComputedStyle(document.documentElement).getPropertyValue(name).trim()
      const [ink, soft, mist, reed, pond] = ['--ink', '--soft', '--mist', '--reed', '--pond'].map(colour)
      const axis = (title: string) => ({
        title: { text: title, font: { size: 12, color: soft! } },
        color: soft!,
        gridcolor: mist!,
        zeroline: false,
        fixedrange: true,
      })
      const plot = await Plotly.newPlot(
        here,
        [
          {
            type: 'scatter',
            mode: 'text+markers',
            x: lines.map((line) => line.measures.hand / 10),
            y: lines.map(colourOf),
            text: lines.map((_, at) => String(at + 1)),
            textposition: 'top center',
            textfont: { color: ink!, size: 13 },
            marker: {
              size: 15,
              color: lines.map((_, at) => (at === chosen ? reed! : pond!)),
              line: { color: ink!, width: lines.map((_, at) => (at === chosen ? 2 : 0)) },
            },
            hovertemplate: 'Line %{text}: hand travels %{x:.0f} cm, %{y:.1f} tensions a chord<extra></extra>',
          },
        ],
        {
          margin: { l: 52, r: 16, t: 10, b: 40 },
          height: 210,
          paper_bgcolor: 'transparent',
          plot_bgcolor: 'transparent',
          showlegend: false,
          hovermode: 'closest',
          xaxis: axis('how far the hand travels, cm'),
          yaxis: axis('tensions a chord'),
          font: { family: 'Source Sans 3 Variable, sans-serif' },
        },
        { displayModeBar: false, responsive: true },
      )
      plot.on('plotly_click', ({ points }) => {
        const at = points[0]?.pointNumber
        if (at !== undefined) take.current(at)
      })
      away = () => Plotly.purge(here)
    })
    return () => {
      gone = true
      away()
    }
  }, [lines, chosen, theme])
  return (
    <div
      ref={box}
      className="lines-chart"
      role="img"
      aria-label={`Chart of the lines: ${lines.map((line, at) => `line ${at + 1}, hand travels ${Math.round(line.measures.hand / 10)} cm, ${colourOf(line).toFixed(1)} tensions a chord`).join('; ')}`}
    />
  )
}
