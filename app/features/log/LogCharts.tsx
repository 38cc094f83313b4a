import { useCallback } from 'react'
import { dateOf } from '../../../core/practice/days'
import type { Grade } from '../../../core/practice/grade'
import type { Climbed } from '../../../db/practice'
import { axisOf, PlotlyChart, type Colours, type Drawn } from '../../services/charts/PlotlyChart'

const SHAPES: Readonly<Record<Grade, string>> = { clean: 'circle', nearly: 'circle-open', failed: 'x' }

/** Minutes of each day. */
export function MinutesChart({ days }: { days: readonly { day: number; minutes: number }[] }) {
  const draw = useCallback(
    (colours: Colours): Drawn => ({
      traces: [
        {
          type: 'bar',
          x: days.map(({ day }) => dateOf(day)),
          y: days.map(({ minutes }) => Math.round(minutes * 10) / 10),
          marker: { color: colours.pond },
          hovertemplate: '%{x}: %{y} minutes<extra></extra>',
        },
      ],
      layout: {
        xaxis: { ...axisOf('', colours), type: 'date' },
        yaxis: { ...axisOf('minutes', colours), rangemode: 'tozero' },
      },
    }),
    [days],
  )
  const total = days.reduce((sum, { minutes }) => sum + minutes, 0)
  return (
    <PlotlyChart
      label={`Minutes a day: ${days.length} days, ${Math.round(total)} minutes; ${days
        .slice(-7)
        .map(({ day, minutes }) => `${dateOf(day)} ${Math.round(minutes)}`)
        .join(', ')}`}
      draw={draw}
    />
  )
}

/**
 * The tempo of one thing over the weeks, pass by pass: clean as a full point, nearly as a ring,
 * failed as a cross; the goal as a line.
 */
export function TempoChart({ passes, name }: { passes: readonly Climbed[]; name: string }) {
  const draw = useCallback(
    (colours: Colours): Drawn => {
      const at = passes.map(({ at: when }) => new Date(when).toISOString())
      const goals = passes.map(({ goal }) => goal)
      return {
        traces: [
          {
            type: 'scatter',
            mode: 'lines+markers',
            x: at,
            y: passes.map(({ tempo }) => tempo),
            text: passes.map(({ grade }) => grade),
            line: { color: colours.mist, width: 1.5 },
            marker: {
              size: 9,
              symbol: passes.map(({ grade }) => SHAPES[grade]),
              color: passes.map(({ grade }) => (grade === 'failed' ? colours.clay : colours.pond)),
            },
            hovertemplate: '%{x|%d %b}: %{y} beats a minute, %{text}<extra></extra>',
          },
          {
            type: 'scatter',
            mode: 'lines',
            x: at,
            y: goals,
            line: { color: colours.reed, width: 2, dash: 'dash' },
            hovertemplate: 'goal %{y}<extra></extra>',
          },
        ],
        layout: {
          xaxis: { ...axisOf('', colours), type: 'date' },
          yaxis: axisOf('beats a minute', colours),
        },
      }
    },
    [passes],
  )
  const clean = passes.filter(({ grade }) => grade === 'clean').map(({ tempo }) => tempo)
  return (
    <PlotlyChart
      label={`Tempo of ${name}: ${passes.length} passes${clean.length > 0 ? `, clean from ${Math.min(...clean)} to ${Math.max(...clean)}` : ''}`}
      draw={draw}
    />
  )
}

/** The bars of a tune by how doubtful they are: the share of their passes that were not clean. */
export function DoubtChart({ bars }: { bars: readonly { bar: number; share: number; passes: number }[] }) {
  const draw = useCallback(
    (colours: Colours): Drawn => ({
      traces: [
        {
          type: 'bar',
          x: bars.map(({ bar }) => bar),
          y: bars.map(({ share }) => Math.round(share * 100)),
          customdata: bars.map(({ passes }) => Math.round(passes)),
          marker: { color: bars.map(({ share }) => (share > DOUBTFUL ? colours.clay : colours.pond)) },
          hovertemplate: 'Bar %{x}: %{y} of 100 passes not clean, about %{customdata} passes<extra></extra>',
        },
      ],
      layout: {
        xaxis: { ...axisOf('bar', colours), dtick: 4, tick0: 1 },
        yaxis: { ...axisOf('not clean, of 100', colours), range: [0, 100] },
      },
    }),
    [bars],
  )
  const worst = [...bars].sort((a, b) => b.share - a.share).slice(0, 4)
  return (
    <PlotlyChart
      label={`Bars by doubt: ${worst.map(({ bar, share }) => `bar ${bar}, ${Math.round(share * 100)} of 100 not clean`).join('; ')}`}
      draw={draw}
    />
  )
}
const DOUBTFUL = 0.5

/** Days since each key was played; keys never played stand at the end, open. */
export function KeysChart({ keys }: { keys: readonly { key: string; ago: number | null }[] }) {
  const draw = useCallback(
    (colours: Colours): Drawn => {
      const longest = Math.max(1, ...keys.map(({ ago }) => ago ?? 0))
      return {
        traces: [
          {
            type: 'bar',
            x: keys.map(({ key }) => key.replace(/b/g, '♭').replace(/#/g, '♯')),
            y: keys.map(({ ago }) => (ago === null ? longest * 1.15 : Math.max(ago, longest / 60))),
            text: keys.map(({ ago }) => (ago === null ? 'never' : String(ago))),
            textposition: 'outside',
            textfont: { color: colours.ink },
            marker: {
              color: keys.map(({ ago }) => (ago === null ? 'transparent' : colours.pond)),
              line: {
                color: keys.map(({ ago }) => (ago === null ? colours.clay : colours.pond)),
                width: 1.5,
              },
            },
            hovertemplate: '%{x}: %{text}<extra></extra>',
          },
        ],
        layout: {
          xaxis: { ...axisOf('', colours), type: 'category' },
          yaxis: { ...axisOf('days ago', colours), rangemode: 'tozero' },
          margin: { l: 52, r: 16, t: 22, b: 40 },
        },
      }
    },
    [keys],
  )
  return (
    <PlotlyChart
      label={`Keys by when they were last played: ${keys.map(({ key, ago }) => `${key} ${ago === null ? 'never' : `${ago} days ago`}`).join(', ')}`}
      draw={draw}
    />
  )
}
