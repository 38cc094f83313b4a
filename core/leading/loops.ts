import { firstOf, itemAt, lastOf } from '../lists'
import type { Instrument } from '../neck/instrument'
import { bestPaths, type Path } from './search'
import { openStage, PriceBook, type Layer, type SearchStage } from './searchStage'
import { cheapest, columnInto, openColumn, type Column } from './table'
import type { Weights } from './weights'

/** Loops that begin with one of some grips: none of them costs less than the bound. */
interface Branch {
  grips: number[]
  bound: number
  /**
   * First and last grip of the cheapest way that gives the bound; it is a loop where they are the
   * same.
   */
  first: number
  last: number
}

/**
 * The exact `count` cheapest ways that lead back from the last layer to the first, the step back
 * counted. Branch and bound over the grips of the layer that has fewest: a way from any grip of a
 * set to any of the same set costs no more than the best loop through one of them, so a set whose
 * cheapest way does not close is parted between its ends, and sets are looked at from the least
 * bound up.
 * @param onLayer called with the sets looked at and those known of; returning false stops the
 *   search (null)
 */
export function bestLoops(
  layers: readonly Layer[],
  weights: Weights,
  instrument: Instrument,
  count: number,
  onLayer: (done: number, of: number) => boolean = () => true,
  book = new PriceBook(weights),
): Path[] | null {
  if (layers.length === 0 || layers.some((layer) => layer.voicings.length === 0)) return []
  const turn = layers.reduce(
    (least, layer, at) => (layer.voicings.length < itemAt(layers, least).voicings.length ? at : least),
    0,
  )
  const turned = [...layers.slice(turn), ...layers.slice(0, turn)]
  const stages = turned.map((layer) => openStage(layer, weights, instrument))
  const first = firstOf(stages)
  const order = first.own
    .map((_, node) => node)
    .sort((a, b) => meanPitch(first, a) - meanPitch(first, b) || a - b)

  const found: Path[] = []
  const open: Branch[] = branchOf(stages, order, weights, book)
  let done = 0
  for (let branch = takeLeast(open); branch; branch = takeLeast(open)) {
    if (found.length === count && branch.bound >= itemAt(found, count - 1).cost) break
    if (!onLayer(done, done + open.length + 1)) return null
    done += 1
    if (branch.grips.length > 1)
      for (const part of parted(branch)) open.push(...branchOf(stages, part, weights, book))
    else
      found.push(
        ...loopsFrom(
          turned,
          firstOf(branch.grips),
          itemAt(first.own, firstOf(branch.grips)),
          weights,
          instrument,
          count,
          book,
        ),
      )
    found.sort((a, b) => a.cost - b.cost).splice(count)
  }
  const back = layers.length - turn
  return found.map(({ cost, indexes }) => ({
    cost,
    indexes: [...indexes.slice(back), ...indexes.slice(0, back)],
  }))
}

function takeLeast(open: Branch[]): Branch | undefined {
  let least = 0
  open.forEach((branch, at) => {
    if (branch.bound < itemAt(open, least).bound) least = at
  })
  return open.splice(least, 1)[0]
}

const meanPitch = ({ sounds, soundOf }: SearchStage, node: number): number => {
  const notes = itemAt(sounds, itemAt(soundOf, node))
  return notes.reduce((sum, note) => sum + note, 0) / notes.length
}

/** The cheapest way from any of the grips round to any of them; none where no way leads. */
function branchOf(
  stages: readonly SearchStage[],
  grips: number[],
  weights: Weights,
  book: PriceBook,
): Branch[] {
  const [first, ...others] = stages
  const only = new Set(grips)
  const columns: Column[] = [openColumn(first!, only)]
  let before = first!
  for (const stage of others) {
    columns.push(columnInto(before, lastOf(columns), stage, weights, book))
    before = stage
  }
  // The first grip stands again at the end, where only the way to it counts.
  const closing = columnInto(before, lastOf(columns), first!, weights, book, only)
  closing.cost.forEach((cost, node) => {
    closing.cost[node] = cost - itemAt(first!.own, node)
  })
  const last = cheapest(closing)
  if (last < 0) return []
  let node = closing.by[last]!
  for (let at = columns.length - 1; at > 0; at -= 1) node = itemAt(columns, at).by[node]!
  return [{ grips, bound: closing.cost[last]!, first: node, last }]
}

/**
 * Two sets with the ends of the cheapest way in different ones; where it closes, its grip by
 * itself. The grips are in the order of their pitch.
 */
function parted({ grips, first, last }: Branch): number[][] {
  if (first === last) return [[first], grips.filter((grip) => grip !== first)]
  const cut = Math.ceil((grips.indexOf(first) + grips.indexOf(last)) / 2)
  return [grips.slice(0, cut), grips.slice(cut)]
}

function loopsFrom(
  turned: readonly Layer[],
  node: number,
  own: number,
  weights: Weights,
  instrument: Instrument,
  count: number,
  book: PriceBook,
): Path[] {
  const { chord, voicings, extra, only = '' } = firstOf(turned)
  const here: Layer = {
    chord,
    voicings: [itemAt(voicings, node)],
    only: `${only} ${node}`,
    ...(extra ? { extra: [itemAt(extra, node)] } : {}),
  }
  const ways =
    bestPaths(
      [here, ...turned.slice(1), { ...here, extra: [(extra?.[node] ?? 0) - own] }],
      weights,
      instrument,
      count,
      undefined,
      book,
    ) ?? []
  return ways.map(({ cost, indexes }) => ({ cost, indexes: [node, ...indexes.slice(1, -1)] }))
}
