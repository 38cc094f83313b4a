import { itemAt } from '../lists'
import { bad, good, type Result } from '../result'
import { layersOf } from './layers'
import { lineOf, type Line } from './line'
import { bestLoops } from './loops'
import { weightsOf, type LeadProblem } from './lineProblem'
import { bestPaths } from './search'
import type { Layer } from './searchStage'

/** What the search says when it is stopped. */
export const STOPPED = 'stopped'

/** The exact `count` best lines by the weights, best first; they may be near to one another. */
export function bestLines(problem: LeadProblem): Result<Line[]> {
  const layers = layersOf(problem)
  if (!layers.ok) return layers
  const weights = weightsOf(problem)
  const search = problem.loop ? bestLoops : bestPaths
  const paths = search(layers.value, weights, problem.limits.instrument, problem.count, problem.onProgress)
  if (!paths) return bad({ code: STOPPED, message: 'The search was stopped.' })
  return good(paths.map((path) => lineAlong(path.indexes, layers.value, problem)))
}

/** The line along a path through layers. */
export const lineAlong = (indexes: readonly number[], layers: readonly Layer[], problem: LeadProblem): Line =>
  lineOf(
    indexes.map((index, at) => itemAt(itemAt(layers, at).voicings, index)),
    problem,
    indexes.map((index, at) => itemAt(layers, at).chords?.[index] ?? itemAt(layers, at).chord),
  )
