import { bad, good, type Result } from '../result'
import { layersOf } from './layers'
import { lineOf, type Line } from './line'
import { bestLoops } from './loops'
import { weightsOf, type LeadProblem } from './problem'
import { bestPaths } from './search'
import { PriceBook, type Layer } from './stage'
import type { TextureName } from './textureNames'

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

/** Lines are called different when they share no more than this of their grips. */
const MOST_SHARED = 0.5
/**
 * What a line pays for each chord on which it holds the grip of an earlier line, or sounds its notes, in semitones: first about a shift, so that a
 * way of nearly equal quality is preferred, then more until the lines are different.
 */
const REPEATED_GRIP = [4, 9, 20, 60]
/** What sounding the notes of an earlier line counts against holding its grip: another place on the neck is another grip. */
const SAME_SOUND = 0.3
/** What each grip of a texture that is not the first choice pays, in changes of texture: so that the first choice is the first answer. */
const NOT_FIRST = 2

/**
 * `count` lines that a player would call different: the best one, then each time the best line when repeating grips of earlier lines has a
 * price, which rises until no more than half of them are shared. Each is exact for that price; the costs reported are without it. Best first.
 * @param textures the kinds of grip the lines take in turn, where the problem names none
 * @param onlyThese no other kinds where they have no more ways
 */
export function differentLines(
  problem: LeadProblem,
  textures: readonly (TextureName | undefined)[] = [problem.texture],
  onlyThese = true,
): Result<Line[]> {
  const problems = textures.map((texture, at): LeadProblem => ({
    ...problem,
    ...(texture ? { texture } : {}),
    aside: at === 0 ? 0 : NOT_FIRST,
  }))
  const named = problems.length
  // Where the kinds of grip have no more ways: any grip that players take, then grips of the first kind that they do not, then any at all.
  const mixed = !onlyThese && !textures.includes('as it comes')
  if (mixed) problems.push({ ...problem, texture: 'as it comes', aside: NOT_FIRST })
  if (problem.usual) {
    problems.push({ ...problems[0]!, usual: false, aside: NOT_FIRST })
    if (mixed) problems.push({ ...problem, texture: 'as it comes', usual: false, aside: 2 * NOT_FIRST })
  }
  const layersIn = problems.map((one) => layersOf(one))
  const usable = layersIn.flatMap((layers, at) =>
    layers.ok ? [{ layers: layers.value, problem: problems[at]!, isNamed: at < named }] : [],
  )
  if (usable.length === 0) return layersIn[0] as Result<never>
  const used = usable[0]!.layers.map(() => new Set<string>())
  const found: Line[] = []
  const books = problems.map((one) => new PriceBook(weightsOf(one)))
  const size = usable[0]!.layers.length
  // The others come when a whole turn of the named kinds gave nothing, one after the other.
  const turn = Math.max(1, usable.filter(({ isNamed }) => isNamed).length)
  let idle = 0
  for (let round = 0; found.length < problem.count && idle <= usable.length; round += 1) {
    // At last a line that is at least not the same is still an answer.
    const isLast = idle === usable.length
    const inTurn = idle >= turn ? usable[idle]! : usable[round % turn]!
    const { layers, problem: own } = isLast ? usable[0]! : inTurn
    const book = books[problems.indexOf(own)]!
    let line: Line | null = null
    for (const price of found.length === 0 ? [0] : REPEATED_GRIP) {
      const priced =
        price === 0
          ? layers
          : layers.map((layer, at) => ({
              ...layer,
              extra: layer.voicings.map(({ frets, midis }) => {
                if (used[at]!.has(frets.join(' '))) return price
                return used[at]!.has(midis.join()) ? SAME_SOUND * price : 0
              }),
            }))
      const onLayer = (done: number) =>
        problem.onProgress?.(
          Math.min(found.length, problem.count - 1) * size + Math.min(done, size),
          problem.count * size,
        ) ?? true
      const paths = problem.loop
        ? bestLoops(priced, book.weights, problem.limits.instrument, 1, onLayer, book)
        : bestPaths(priced, book.weights, problem.limits.instrument, 1, onLayer, book)
      if (!paths) return bad({ code: STOPPED, message: 'The search was stopped.' })
      line = paths[0] ? lineAlong(paths[0].indexes, layers, own) : null
      if (!line || !found.some((other) => shared(other, line!) > MOST_SHARED)) break
    }
    const most = line ? Math.max(0, ...found.map((other) => shared(other, line!))) : 1
    if (!line || most === 1 || (most > MOST_SHARED && !isLast)) {
      idle += 1
      continue
    }
    if (idle < turn) idle = 0
    found.push(line)
    line.voicings.forEach((voicing, at) => {
      used[at]!.add(voicing.midis.join())
      used[at]!.add(voicing.frets.join(' '))
    })
  }
  return good(found.sort((a, b) => a.cost - b.cost))
}

/** The share of its grips a line has in common with another. */
const shared = (a: Line, b: Line): number =>
  a.voicings.filter((voicing, at) => voicing.frets.join() === b.voicings[at]!.frets.join()).length /
  Math.max(1, a.voicings.length)

/** The line along a path through layers. */
const lineAlong = (indexes: readonly number[], layers: readonly Layer[], problem: LeadProblem): Line =>
  lineOf(
    indexes.map((index, at) => layers[at]!.voicings[index]!),
    problem,
    indexes.map((index, at) => layers[at]!.chords?.[index] ?? layers[at]!.chord),
  )
