import { firstOf, itemAt } from '../lists'
import { good, type Result } from '../result'
import { weightsOf, type LeadProblem } from './lineProblem'
import { layersOf } from './layers'
import { lineOf, type Line } from './line'
import { openStage, PriceBook, type Layer, type SearchStage } from './searchStage'
import { cheapest, columnFrom, columnInto, openColumn, type Column } from './table'

/** One chord of the line as it was searched last. */
interface KeptPlace {
  layer: Layer
  stage: SearchStage
  /** Least costs of ways from the first chord to its grips. */
  into: Column | null
  /** Least costs of ways from its grips to the last chord. */
  onward: Column | null
}

type Problem = Omit<LeadProblem, 'count' | 'loop' | 'onProgress'>

/**
 * The best line of a problem that changes little from question to question: a grip is fixed, a
 * condition added. What lies before the first changed chord and after the last is known from the
 * search before, so that only the chords between are searched again. The answer costs exactly what
 * `bestLines` finds.
 */
export class KeptSearch {
  private places: KeptPlace[] = []
  private asked = ''
  private book: PriceBook | null = null

  best(problem: Problem): Result<Line | null> {
    const asked = JSON.stringify([
      problem.limits,
      problem.weights,
      problem.texture,
      problem.inversions,
      problem.usual,
    ])
    if (asked !== this.asked || !this.book) {
      this.asked = asked
      this.places = []
      this.book = new PriceBook(weightsOf(problem))
    }
    const found = layersOf(problem)
    if (!found.ok) return found
    const layers = found.value
    if (layers.length === 0) return good(null)
    const { same, rest } = alike(
      this.places.map(({ layer }) => layer),
      layers,
    )
    const before = this.places.slice(0, same)
    const after = this.places.slice(this.places.length - rest)
    const changed = layers.slice(same, layers.length - rest).map((layer): KeptPlace => ({
      layer,
      stage: openStage(layer, weightsOf(problem), problem.limits.instrument),
      into: null,
      onward: null,
    }))
    this.places = [...before, ...changed, ...after]
    // Ways into what follows a change, and on from what stands before it, are no longer those that
    // were known.
    for (const place of [...changed, ...after]) place.into = null
    for (const place of [...before, ...changed]) place.onward = null
    if (rest > 0 && !firstOf(after).onward) this.knowOnward(same + changed.length)
    this.knowInto(same + changed.length - 1)
    const way = this.way(same + changed.length)
    return good(
      lineOf(
        way.map((node, at) => itemAt(itemAt(layers, at).voicings, node)),
        problem,
        way.map((node, at) => itemAt(layers, at).chords?.[node] ?? itemAt(layers, at).chord),
      ),
    )
  }

  /**
   * Works out one more column that the next question may want; false when all are known. To be
   * called while nobody waits.
   */
  settle(): boolean {
    const into = this.places.findIndex((place) => !place.into)
    if (into >= 0) {
      this.knowInto(into)
      return true
    }
    const onward = this.places.findLastIndex((place) => !place.onward)
    if (onward >= 0) {
      this.knowOnward(onward)
      return true
    }
    return false
  }

  private knowInto(upTo: number): void {
    for (let at = 0; at <= upTo; at += 1) {
      const [before, here] = [this.places[at - 1], itemAt(this.places, at)]
      here.into ??= before
        ? columnInto(before.stage, before.into!, here.stage, this.book!.weights, this.book!)
        : openColumn(here.stage)
    }
  }

  private knowOnward(downTo: number): void {
    for (let at = this.places.length - 1; at >= downTo; at -= 1) {
      const [here, after] = [itemAt(this.places, at), this.places[at + 1]]
      here.onward ??= after
        ? columnFrom(here.stage, after.stage, after.onward!, this.book!.weights, this.book!)
        : openColumn(here.stage)
    }
  }

  /** The cheapest way, joined where the part known from behind begins. */
  private way(join: number): number[] {
    const [left, right] = [this.places[join - 1], this.places[join]]
    if (!right) return this.backFrom(join - 1, cheapest(left!.into!))
    if (!left) return this.onFrom(join, cheapest(right.onward!))
    // What the step costs is in neither column: the ways on are priced from the left grips, and
    // both halves added up.
    const across = columnFrom(left.stage, right.stage, right.onward!, this.book!.weights, this.book!)
    const whole = across.cost.map(
      (cost, node) => cost + left.into!.cost[node]! - itemAt(left.stage.own, node),
    )
    const node = cheapest({ cost: whole, by: across.by })
    return [...this.backFrom(join - 1, node), ...this.onFrom(join, across.by[node]!)]
  }

  private backFrom(at: number, node: number): number[] {
    const way: number[] = []
    for (let [place, here] = [at, node]; place >= 0; place -= 1) {
      way.unshift(here)
      here = itemAt(this.places, place).into!.by[here]!
    }
    return way
  }

  private onFrom(at: number, node: number): number[] {
    const way: number[] = []
    for (let [place, here] = [at, node]; place < this.places.length; place += 1) {
      way.push(here)
      here = itemAt(this.places, place).onward!.by[here]!
    }
    return way
  }
}

/** How many layers at the beginning, and then at the end, are the same in both. */
function alike(a: readonly Layer[], b: readonly Layer[]): { same: number; rest: number } {
  const most = Math.min(a.length, b.length)
  let same = 0
  while (same < most && equal(itemAt(a, same), itemAt(b, same))) same += 1
  let rest = 0
  while (rest < most - same && equal(itemAt(a, a.length - 1 - rest), itemAt(b, b.length - 1 - rest)))
    rest += 1
  return { same, rest }
}

const equal = (a: Layer, b: Layer): boolean =>
  a.chord.canonical === b.chord.canonical &&
  a.only === b.only &&
  a.contour === b.contour &&
  a.time === b.time &&
  a.topGoes === b.topGoes &&
  (a.voicings === b.voicings ||
    a.voicings.map(({ frets }) => frets.join()).join(' ') ===
      b.voicings.map(({ frets }) => frets.join()).join(' '))
