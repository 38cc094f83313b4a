import { firstOf, itemAt } from '../lists'
import { bad, good, type Result } from '../result'
import { layersOf } from './layers'
import { lineAlong, STOPPED } from './lead'
import type { Line } from './line'
import { bestLoops } from './loops'
import { weightsOf, type LeadProblem } from './lineProblem'
import { bestPaths } from './search'
import { PriceBook, type Layer } from './searchStage'
import type { TextureName } from './textureNames'

/** Lines are called different when they share no more than this of their grips. */
const MOST_SHARED = 0.5
/**
 * What a line pays for each chord on which it holds the grip of an earlier line, in semitones:
 * first about a shift, so that a way of nearly equal quality is preferred, then more until the
 * lines are different.
 */
const REPEATED_GRIP = [4, 9, 20, 60]
/**
 * What sounding the notes of an earlier line counts against holding its grip: another place on the
 * neck is another grip.
 */
const SAME_SOUND = 0.3
/**
 * What each grip of a texture that is not the first choice pays, in changes of texture: so that the
 * first choice is the first answer.
 */
const NOT_FIRST = 2

/** A kind of grip that lines may be led in; its grips are looked for when its turn comes. */
class GripKind {
  private found: Result<Layer[]> | null = null
  readonly book: PriceBook

  constructor(readonly problem: LeadProblem) {
    this.book = new PriceBook(weightsOf(problem))
  }
  get layers(): Result<Layer[]> {
    return (this.found ??= layersOf(this.problem))
  }
}

/**
 * `count` lines that a player would call different: the best one, then each time the best line when
 * repeating grips of earlier lines has a price, which rises until no more than half of them are
 * shared. Each is exact for that price; the costs reported are without it. Best first.
 * @param textures the kinds of grip the lines take in turn, where the problem names none
 * @param onlyThese no other kinds where they have no more ways
 */
export function differentLines(
  problem: LeadProblem,
  textures: readonly (TextureName | undefined)[] = [problem.texture],
  onlyThese = true,
): Result<Line[]> {
  const { turns, others } = kindsOf(problem, textures, onlyThese)
  const used = problem.chords.map(() => new Set<string>())
  const found: Line[] = []
  let fault: Result<Line[]> | null = null
  let stopped = false
  const onLayer = (done: number): boolean => {
    const size = problem.chords.length
    const lines = Math.min(found.length, problem.count - 1) * size + Math.min(done, size)
    stopped ||= problem.onProgress?.(lines, problem.count * size) === false
    return !stopped
  }
  /** The best line of a kind unlike those found, or the best that is at least not the same. */
  const next = ({ problem: own, layers, book }: GripKind, isLast: boolean): Line | null => {
    if (!layers.ok) {
      fault ??= layers
      return null
    }
    let line: Line | null = null
    for (const price of found.length === 0 ? [0] : REPEATED_GRIP) {
      const priced =
        price === 0 ? layers.value : layers.value.map((layer, at) => dearer(layer, itemAt(used, at), price))
      const search = problem.loop ? bestLoops : bestPaths
      const paths = search(priced, book.weights, problem.limits.instrument, 1, onLayer, book)
      line = paths?.[0] ? lineAlong(paths[0].indexes, layers.value, own) : null
      if (!line || mostShared(line, found) <= MOST_SHARED) break
    }
    const most = line ? mostShared(line, found) : 1
    return most < 1 && (most <= MOST_SHARED || isLast) ? line : null
  }
  const take = (line: Line) => {
    found.push(line)
    line.voicings.forEach(({ midis, frets }, at) => itemAt(used, at).add(midis.join()).add(frets.join(' ')))
  }
  // Turn by turn, until a whole turn gives nothing; then the others, each as long as it gives
  // something; at last what is at least not the same.
  for (let [round, idle] = [0, 0]; found.length < problem.count && idle < turns.length; round += 1) {
    const line = next(itemAt(turns, round % turns.length), false)
    if (stopped) break
    if (line) take(line)
    idle = line ? 0 : idle + 1
  }
  for (const [kind, isLast] of [
    ...others.map((kind) => [kind, false] as const),
    [firstOf(turns), true] as const,
  ])
    while (found.length < problem.count && !stopped) {
      const line = next(kind, isLast)
      if (!line) break
      take(line)
    }
  if (stopped) return bad({ code: STOPPED, message: 'The search was stopped.' })
  return found.length === 0 && fault ? fault : good(found.sort((a, b) => a.cost - b.cost))
}

/**
 * The kinds that take turns; and what there is beyond them: any grip that players take, then grips
 * of the first kind that they do not, then any at all.
 */
function kindsOf(
  problem: LeadProblem,
  textures: readonly (TextureName | undefined)[],
  onlyThese: boolean,
): { turns: GripKind[]; others: GripKind[] } {
  const turns = textures.map(
    (texture, at) =>
      new GripKind({ ...problem, ...(texture ? { texture } : {}), aside: at === 0 ? 0 : NOT_FIRST }),
  )
  const any =
    onlyThese || textures.includes('as it comes')
      ? []
      : [new GripKind({ ...problem, texture: 'as it comes', aside: NOT_FIRST })]
  const unusual = problem.usual
    ? [firstOf(turns), ...any].map(
        (kind) =>
          new GripKind({ ...kind.problem, usual: false, aside: (kind.problem.aside ?? 0) + NOT_FIRST }),
      )
    : []
  return { turns, others: [...any, ...unusual] }
}

/** A layer whose grips pay for having been used. */
const dearer = (layer: Layer, used: ReadonlySet<string>, price: number): Layer => ({
  ...layer,
  extra: layer.voicings.map(({ frets, midis }) => {
    if (used.has(frets.join(' '))) return price
    return used.has(midis.join()) ? SAME_SOUND * price : 0
  }),
})

/** The largest share of its grips that a line has in common with another. */
const mostShared = (line: Line, others: readonly Line[]): number =>
  Math.max(
    0,
    ...others.map(
      ({ voicings }) =>
        line.voicings.filter((voicing, at) => voicing.frets.join() === itemAt(voicings, at).frets.join())
          .length / Math.max(1, line.voicings.length),
    ),
  )
