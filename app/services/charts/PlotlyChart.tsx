import type { Data, Layout } from 'plotly.js'
import { useEffect, useRef } from 'react'
import { useThemeChoice } from '../../theme/useTheme'
import { useLatest } from '../words/stable'

/** The colours of the page, by their names there. */
export interface Colours {
  ink: string
  soft: string
  mist: string
  reed: string
  pond: string
  clay: string
}

/** What is drawn: traces, and what of the layout is not as in every chart. */
export interface Drawn {
  traces: Data[]
  layout?: Partial<Layout>
}

interface Props {
  /** Said to those who listen: what the picture shows, with its numbers. */
  label: string
  /** Made anew where what it depends on changes. */
  draw: (colours: Colours) => Drawn
  height?: number
  onPoint?: (point: number) => void
}

const colour = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim()

/** An axis in the look of the page. */
export const axisOf = (title: string, { soft, mist }: Colours): Partial<Layout['xaxis']> => ({
  title: { text: title, font: { size: 12, color: soft } },
  color: soft,
  gridcolor: mist,
  zeroline: false,
  fixedrange: true,
})

/**
 * A chart in the look of the page, in both themes. The library is large and only loaded where one
 * is shown.
 */
export function PlotlyChart({ label, draw, height = 210, onPoint }: Props) {
  const box = useRef<HTMLDivElement>(null)
  const take = useLatest(onPoint)
  const { name: theme } = useThemeChoice()
  useEffect(() => {
    const here = box.current
    if (!here) return
    let gone = false
    let away = () => {}
    void import('plotly.js-basic-dist-min').then(async ({ default: Plotly }) => {
      if (gone) return
      const colours: Colours = {
        ink: colour('ink'),
        soft: colour('soft'),
        mist: colour('mist'),
        reed: colour('reed'),
        pond: colour('pond'),
        clay: colour('clay'),
      }
      const { traces, layout } = draw(colours)
      const plot = await Plotly.newPlot(
        here,
        traces,
        {
          margin: { l: 52, r: 16, t: 10, b: 40 },
          height,
          paper_bgcolor: 'transparent',
          plot_bgcolor: 'transparent',
          showlegend: false,
          hovermode: 'closest',
          font: { family: '"Source Sans 3 Variable", sans-serif' },
          ...layout,
        },
        { displayModeBar: false, responsive: true },
      )
      plot.on('plotly_click', ({ points }) => {
        const at = points[0]?.pointNumber
        if (at !== undefined) take.current?.(at)
      })
      away = () => Plotly.purge(here)
    })
    return () => {
      gone = true
      away()
    }
  }, [draw, height, theme, take])
  return <div ref={box} className="lines-chart" role="img" aria-label={label} />
}
