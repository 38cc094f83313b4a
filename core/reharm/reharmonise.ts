import { analyse } from '../analysis/analyse'
import { slotsOf } from '../chart/chart'
import { parseChart } from '../chart/parse'
import { applyChanges } from './apply'
import { putsKey, type Change } from './change'
import { CHARACTERS, directionInWords } from './direction'
import { isOn, type Guards } from './guards'
import { judgedCost } from './judging/judge'
import { between, lattice, mostWeight, PRICE, type Arc } from './lattice'
import type { MelodyNote } from './melodyFit'
import {
  bestPath,
  HALVINGS,
  HIGHEST_REWARD,
  pathAt,
  soundingsOf,
  standing,
  unlanded,
  waysOf,
  weightOfPath,
} from './paths'
import { repeatsOf, withRepeatsAlike } from './repeats'
import { random } from './random'
import { spotsOf, type Spot } from './spot'
import { DEFAULT_TASTE, type Liking, type Taste } from './taste'

export interface AskedFor {
  /** 0 plain to 1 far out. */
  distance: number
  count?: number
  seed?: number
  taste?: Taste
  liking?: Liking
  melody?: readonly MelodyNote[]
  /** Only one chord in the place of one: none are put in or left out. */
  oneForOne?: boolean
  /** Slots that stay as they are, by index. */
  keep?: ReadonlySet<number>
  /** Guards that are switched off (`false`). */
  guards?: Guards
  /** Called now and then with the share done; false stops the search with what was found. */
  onProgress?: (done: number, of: number) => boolean
  /** Called with each result as it is found. */
  onFound?: (result: Reharmonisation) => void
}

export interface Reharmonisation {
  text: string
  /** How far it went, 0 to 1: the mean of how much each beat was changed, against the most the rules could. */
  distance: number
  /** It went within a tenth of where it was asked to go. */
  reached: boolean
  /** What the way does, in a few words. */
  says: string
  /** The one idea that was carried through, in a few words. */
  idea: string
  changes: Change[]
}

/**
 * Different whole-tune reharmonisations at a wanted distance, chosen together: the best path through the lattice of changes,
 * where a chord that is led to has to come, neighbours have their price, and going far is worth as much as the wanted distance asks. Each further
 * result pays for what the ones before used. The same seed gives the same results; distance 0 is the plain chart.
 */
export function reharmonise(
  text: string,
  {
    distance,
    count = 1,
    seed = 1,
    taste = DEFAULT_TASTE,
    liking = {},
    melody = [],
    oneForOne = false,
    keep = new Set(),
    guards = {},
    onProgress = () => true,
    onFound,
  }: AskedFor,
): Reharmonisation[] {
  const chart = parseChart(text)
  const analysis = analyse(chart)
  const spots = spotsOf(chart, analysis)
  const known = { chart, analysis, spots }
  if (distance <= 0)
    return [{ text, distance: 0, reached: true, says: 'as it is', idea: 'as it is', changes: [] }]
  const allowed = (change: Change) => !oneForOne || (change.span === 1 && change.puts.length === 1)
  const { arcs, most } = lattice(chart, spots, { taste, liking, melody, keep, guards, allowed, distance })
  const ways = waysOf(arcs, taste)
  const slots = slotsOf(chart)
  const reachable = mostWeight(arcs, spots.length)
  const repeats = repeatsOf(chart)
  const used = new Map<string, number>()
  const results: Reharmonisation[] = []
  const found: (readonly Arc[])[] = []
  for (let round = 0; round < count; round += 1) {
    if (!onProgress(round, count)) break
    const chance = random(seed * 7919 + round)
    const character = CHARACTERS[round % CHARACTERS.length]!
    const goal = distance * most
    let wider = 1
    const banned = new Set<Arc>()
    let unlike = 1
    const extra = (arc: Arc) => {
      if (banned.has(arc)) return Infinity
      if (arc.change)
        return (
          (used.get(arc.key) ?? 0) * PRICE.usedBefore * unlike +
          chance() * PRICE.chance * wider +
          (character.drawnTo(arc.change) ? PRICE.drawn : 0)
        )
      return 0
    }
    const offBy = (path: readonly Arc[]) => Math.abs(weightOfPath(path) - goal)
    // Of several paths that go as far the judge of whole versions takes one.
    const costOf = (one: readonly Arc[]) =>
      judgedCost(
        known,
        applyChanges(
          text,
          one.flatMap((arc) => arc.change ?? []),
        ),
        melody,
      )
    const alike = (one: readonly Arc[]) => withRepeatsAlike(one, arcs, repeats, taste)
    let path: readonly Arc[] = alike(bestPath(ways, goal, extra))
    let cost = costOf(path)
    for (let tries = 1; tries < JUDGED; tries += 1) {
      const other = alike(bestPath(ways, goal, extra))
      if (offBy(other) > Math.max(offBy(path), NEAR_ENOUGH * most)) continue
      const others = costOf(other)
      if (others < cost) [path, cost] = [other, others]
    }
    // A short tune has few paths, and a price may have none near the goal: wider chances lead to others.
    for (let tries = 1; tries < TRIES && offBy(path) > NEAR_ENOUGH * most; tries += 1) {
      wider = 1 + tries
      const other = alike(bestPath(ways, goal, extra))
      if (offBy(other) < offBy(path)) path = other
    }
    // What leads back over a repeat has to land there too.
    const broken = (one: readonly Arc[]) => [
      ...unlanded(one, spots),
      ...(isOn(guards, 'moving') ? standing(one, spots) : []),
    ]
    for (let wrong = broken(path); wrong.length > 0; wrong = broken(path)) {
      wrong.forEach((arc) => banned.add(arc))
      path = alike(bestPath(ways, goal, extra))
    }
    // Far out there is little to choose between: what was used before becomes dearer until another way comes that goes nearly as far.
    for (let tries = 0; likeness(path, found) > MOST_ALIKE && tries < UNLIKE_PRICES.length; tries += 1) {
      unlike = UNLIKE_PRICES[tries]!
      wider = 1 + tries
      // At the very end of the scale there is one path; a little before it there are many.
      const other = alike(bestPath(ways, Math.min(goal, (MOST_ASKED - LESS_EACH * tries) * reachable), extra))
      if (
        broken(other).length === 0 &&
        (goal > MOST_ASKED * reachable
          ? weightOfPath(other) >= (MOST_ASKED - UNLIKE_AT_THE_END) * reachable
          : offBy(other) <= UNLIKE_WITHIN * most) &&
        likeness(other, found) < likeness(path, found)
      )
        path = other
    }
    found.push(path)
    const changes = path.flatMap((arc) => arc.change ?? [])
    for (const { change } of path) if (change) used.set(putsKey(change), (used.get(putsKey(change)) ?? 0) + 1)
    const weight = weightOfPath(path)
    const result = applyChanges(text, changes)
    if (results.some((other) => other.text === result)) continue
    const went = most > 0 ? Math.min(1, weight / most) : 0
    results.push({
      text: result,
      distance: went,
      reached: Math.abs(went - distance) <= REACHED,
      says: directionInWords(soundingsOf(path, slots), changes),
      // What it was drawn to and then did not do is not claimed.
      idea: (changes.filter(character.drawnTo).length >= CARRIED ? character : CHARACTERS[0]!).idea,
      changes,
    })
    onFound?.(results.at(-1)!)
  }
  return results
}

/** A way that comes within this of where it was asked to go has reached it. */
export const REACHED = 0.1

/** The greatest share of what a path changes, chord by chord, that another one changes in the same way. */
function likeness(path: readonly Arc[], others: readonly (readonly Arc[])[]): number {
  const changed = path.filter(({ change }) => change)
  const chords = (arcs: readonly Arc[]) => arcs.reduce((sum, { span }) => sum + span, 0)
  return Math.max(
    0,
    ...others.map((other) => {
      const theirs = new Set(other.map(({ key }) => key))
      return chords(changed.filter(({ key }) => theirs.has(key))) / Math.max(1, chords(changed))
    }),
  )
}
/** Ways that share more of their changes are looked for anew, at prices for what was used that rise, and within this share of the most from the goal, which at the very end no path may reach. */
const MOST_ALIKE = 0.6
const UNLIKE_PRICES = [2, 3, 4, 6, 9, 3, 5, 7]
const UNLIKE_WITHIN = 0.099
const UNLIKE_AT_THE_END = 0.3
const MOST_ASKED = 0.92
/** And each try asks for a little less. */
const LESS_EACH = 0.03

/** How near the wanted distance, as a share of the most, is near enough, and how often it is tried. */
const NEAR_ENOUGH = 0.02
const TRIES = 16
/** An idea that comes so often is carried through. */
const CARRIED = 2
/** Paths that are judged as a whole for each way. */
const JUDGED = 3

/** The lattice of a tune: what can begin at each slot, what lies between neighbours, and what weight is worth at a wanted distance. */
export interface Lattice {
  arcs: readonly (readonly Arc[])[]
  spots: readonly (Spot | null)[]
  /** The most the rules could change. */
  most: number
  between: (a: Arc, b: Arc) => number
  /** What a unit of weight is worth, in points, so that the best path goes the wanted distance. */
  reward: (distance: number) => number
}

/** For searches that choose chords together with something else. */
export function latticeOf(
  text: string,
  {
    taste = DEFAULT_TASTE,
    liking = {},
    melody = [],
    keep = new Set<number>(),
    guards = {},
    distance = 0.5,
  }: Pick<AskedFor, 'taste' | 'liking' | 'melody' | 'keep' | 'guards'> & { distance?: number },
): Lattice {
  const chart = parseChart(text)
  const spots = spotsOf(chart, analyse(chart))
  const { arcs, most } = lattice(chart, spots, {
    taste,
    liking,
    melody,
    keep,
    guards,
    allowed: () => true,
    distance,
  })
  const prices = arcs.map((list) => list.map((arc) => arc.price))
  const ways = waysOf(arcs, taste)
  return {
    arcs,
    spots,
    most,
    between: (a, b) => between(a, b, taste),
    reward: (distance) => {
      let [low, high] = [0, HIGHEST_REWARD]
      for (let step = 0; step < HALVINGS; step += 1) {
        const reward = (low + high) / 2
        if (pathAt(ways, prices, reward).weight < distance * most) low = reward
        else high = reward
      }
      return high
    },
  }
}
