import { type Chart } from '../chart/chart'
import { FIGURES, figureNamed, type Cycle, type Figure } from '../rhythm/figures'
import { timesInto } from '../rhythm/handTempo'
import { playedBars } from '../rhythm/playedTime'
import { bad, good, type Result } from '../result'
import type { z } from 'zod'
import type { figureSchema, tempoAndFigure } from './requestFields'

/** A figure of the table by its name, or one that is given hit by hit. */
export function figureFrom(asked: z.output<typeof figureSchema>): Result<Cycle | Figure> {
  if (typeof asked !== 'string') return good(asked)
  const found = figureNamed(asked)
  if (found) return good(found)
  return bad({
    code: 'no-figure',
    message: `There is no figure "${asked}".`,
    accepted: FIGURES.map(({ name }) => name).join('; '),
    text: 'figure',
  })
}

/** Hits that one answer can have. */
const MOST_HITS = 100_000

/** What would be laid is more than can be answered. */
export function tooMany(chart: Chart, { cycle, hits }: Cycle): Result<never> | null {
  const beats = playedBars(chart).reduce((sum, { bar }) => sum + bar.beats, 0)
  const count = Math.ceil((beats / cycle) * hits.length)
  if (count <= MOST_HITS) return null
  return bad({
    code: 'too-long',
    message: `This figure has about ${count} hits on this chart.`,
    accepted: `at most ${MOST_HITS} hits: fewer in the cycle, a longer cycle, or a shorter chart`,
    text: 'figure',
  })
}

/**
 * The time the hand has to get to each chord of a chart at the tempo asked for, in ms; null where
 * it has all it wants.
 */
export function timesAsked(
  chart: Chart,
  { tempo, figure: asked }: z.output<typeof tempoAndFigure>,
): Result<(number | null)[]> {
  const figure = asked === undefined ? good(null) : figureFrom(asked)
  if (!figure.ok) return figure
  const beyond = figure.value && tooMany(chart, figure.value)
  return beyond ?? good(timesInto(chart, figure.value, tempo))
}
