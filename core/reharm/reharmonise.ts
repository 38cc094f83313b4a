import { analyse } from '../analysis/analyse'
import { parseChart } from '../chart/parse'
import { pitchClass } from '../pitch/note'
import { applyChanges } from './apply'
import { putsKey, type Change, type Put } from './change'
import { reachOf } from './distance'
import { heardOver, type MelodyNote } from './melodyFit'
import { changesAt } from './options'
import { random } from './random'
import { spotsOf, type Spot } from './spot'
import { DEFAULT_TASTE, leaningWorth, likingOf, type Liking, type Taste } from './taste'

export interface Asked {
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
  /** Called now and then with the share done; false stops the search with what was found. */
  onProgress?: (done: number, of: number) => boolean
  /** Called with each result as it is found. */
  onFound?: (result: Reharmonisation) => void
}

export interface Reharmonisation {
  text: string
  /** How far it went, 0 to 1: the mean of how much each beat was changed, against the most the rules could. */
  distance: number
  changes: Change[]
}

/**
 * Prices of the search, in points a beat-for-beat change is worth. Common practice, no source; what forbids is a rule (a landing
 * must land), what costs is taste.
 */
const PRICE = {
  /** Any change at all, so that a few that say something win over many that say little; a bass or a texture says least. */
  change: 0.5,
  texture: 0.8,
  /** Two changed chords in a row that are both swapped: they begin to hide the tune. */
  swapsInARow: 1.2,
  /** A chord put in, at no liking for busy playing. */
  addedChord: 1.6,
  /** The bass leaping, at full liking for steps. */
  bassLeap: 0.5,
  /** A special colour, which the player should ask for. */
  special: 1.5,
  /** What a school leaned to, or a rule often kept, is worth: taste of 0.3 is half a point. */
  liked: 1.6,
  /** Plainer than the chart. */
  simpler: 3,
  /** A melody note to avoid, and a sour one. */
  avoid: 2,
  sour: 12,
  /** How unlike results become: what one result used costs the next. */
  usedBefore: 2.5,
  /** Size of the seeded chance between things as good as each other. */
  chance: 0.8,
} as const

/** A change, or the plain chord, as the search sees it. */
export interface Arc {
  change: Change | null
  index: number
  span: number
  key: string
  /** Reach times beats. */
  weight: number
  price: number
  firstRoot: number
  lastBass: number
  firstBass: number
  landsOn: number | null
  swaps: boolean
  /** What stands behind it on the page is what is played behind it, at least once. */
  goesOn: boolean
}

/**
 * Different whole-tune reharmonisations at a wanted distance, chosen together: the best path through the lattice of changes,
 * where a chord that is led to has to come, neighbours have their price, and going far is worth as much as the wanted distance asks. Each further
 * result pays for what the ones before used. The same seed gives the same results; distance 0 is the plain chart.
 */
export function reharmonise(text: string, { distance, count = 1, seed = 1, taste = DEFAULT_TASTE, liking = {}, melody = [], oneForOne = false, keep = new Set(), onProgress = () => true, onFound }: Asked): Reharmonisation[] {
  const chart = parseChart(text)
  const spots = spotsOf(chart, analyse(chart))
  if (distance <= 0) return [{ text, distance: 0, changes: [] }]
  const allowed = (change: Change) => !oneForOne || (change.span === 1 && change.puts.length === 1)
  const arcs = lattice(spots, taste, liking, melody, keep, allowed)
  const most = mostWeight(arcs, spots.length)
  const used = new Map<string, number>()
  const results: Reharmonisation[] = []
  const found: (readonly Arc[])[] = []
  for (let round = 0; round < count; round += 1) {
    if (!onProgress(round, count)) break
    const chance = random(seed * 7919 + round)
    const goal = distance * most
    let wider = 1
    const banned = new Set<Arc>()
    let unlike = 1
    const extra = (arc: Arc) => (banned.has(arc) ? Infinity : arc.change ? (used.get(arc.key) ?? 0) * PRICE.usedBefore * unlike + chance() * PRICE.chance * wider : 0)
    const offBy = (path: readonly Arc[]) => Math.abs(weightOfPath(path) - goal)
    let path = bestPath(arcs, spots.length, goal, taste, extra)
    // A short tune has few paths, and a price may have none near the goal: wider chances lead to others.
    for (let tries = 1; tries < TRIES && offBy(path) > NEAR_ENOUGH * most; tries += 1) {
      wider = 1 + tries
      const other = bestPath(arcs, spots.length, goal, taste, extra)
      if (offBy(other) < offBy(path)) path = other
    }
    // What leads back over a repeat has to land there too.
    for (let wrong = unlanded(path, spots); wrong.length > 0; wrong = unlanded(path, spots)) {
      wrong.forEach((arc) => banned.add(arc))
      path = bestPath(arcs, spots.length, goal, taste, extra)
    }
    // Far out there is little to choose between: what was used before becomes dearer until another way comes that goes nearly as far.
    for (let tries = 0; likeness(path, found) > MOST_ALIKE && tries < UNLIKE_PRICES.length; tries += 1) {
      unlike = UNLIKE_PRICES[tries]!
      wider = 1 + tries
      // At the very end of the scale there is one path; a little before it there are many.
      const other = bestPath(arcs, spots.length, Math.min(goal, MOST_ASKED * most), taste, extra)
      if (unlanded(other, spots).length === 0 && offBy(other) <= (goal > MOST_ASKED * most ? UNLIKE_AT_THE_END : UNLIKE_WITHIN) * most && likeness(other, found) < likeness(path, found)) path = other
    }
    found.push(path)
    const changes = path.flatMap((arc) => arc.change ?? [])
    for (const { change } of path) if (change) used.set(putsKey(change), (used.get(putsKey(change)) ?? 0) + 1)
    const weight = weightOfPath(path)
    const result = applyChanges(text, changes)
    if (results.some((other) => other.text === result)) continue
    results.push({ text: result, distance: most > 0 ? Math.min(1, weight / most) : 0, changes })
    onFound?.(results.at(-1)!)
  }
  return results
}

/** Changes of a path that promise what is then not played: where the form goes somewhere else than on over the page, what they lead to has to stand there. */
export function unlanded(path: readonly Arc[], spots: readonly (Spot | null)[]): Arc[] {
  const beginning = new Map(path.map((arc) => [arc.index, arc]))
  return path.filter(({ landsOn, index, span }) => {
    if (landsOn === null) return false
    const end = index + span
    return spots[end - 1]?.nexts.some((next) => next.index !== end && beginning.get(next.index)?.firstRoot !== landsOn)
  })
}

const weightOfPath = (path: readonly Arc[]): number => path.reduce((sum, arc) => sum + arc.weight, 0)

/** The greatest share of the changes of a path that another one has too. */
function likeness(path: readonly Arc[], others: readonly (readonly Arc[])[]): number {
  const keys = path.flatMap(({ change, key }) => (change ? [key] : []))
  return Math.max(0, ...others.map((other) => { const theirs = new Set(other.map(({ key }) => key)); return keys.filter((key) => theirs.has(key)).length / Math.max(1, keys.length) }))
}
/** Ways that share more of their changes are looked for anew, at prices for what was used that rise, and within this share of the most from the goal, which at the very end no path may reach. */
const MOST_ALIKE = 0.6
const UNLIKE_PRICES = [2, 3, 4, 6, 9, 3, 5, 7]
const UNLIKE_WITHIN = 0.099
const UNLIKE_AT_THE_END = 0.135
const MOST_ASKED = 0.92

/** How near the wanted distance, as a share of the most, is near enough, and how often it is tried. */
const NEAR_ENOUGH = 0.02
const TRIES = 16

/** For every slot what can begin there. */
function lattice(spots: readonly (Spot | null)[], taste: Taste, liking: Liking, melody: readonly MelodyNote[], keep: ReadonlySet<number>, allowed: (change: Change) => boolean): Arc[][] {
  return spots.map((spot, index): Arc[] => {
    if (!spot) return [{ change: null, index, span: 1, key: '', weight: 0, price: 0, firstRoot: -1, firstBass: -1, lastBass: -1, landsOn: null, swaps: false, goesOn: true }]
    const sounds = melodyOver(spot, melody)
    const plain = arcOf(null, [spot], [{ chord: spot.chord, beats: spot.beats }], taste, liking, sounds)
    if (keep.has(index)) return [plain]
    const changes = changesAt(spot).filter((change) => {
      const { span, index: from } = change
      if (!allowed(change) || leaningWorth(change.rule, taste) === -Infinity) return false
      for (let at = from + 1; at < from + span; at += 1) if (keep.has(at)) return false
      return true
    })
    return [plain, ...changes.map((change) => arcOf(change, spots.slice(index, index + change.span) as Spot[], change.puts, taste, liking, change.span === 1 ? sounds : []))]
  })
}

const melodyOver = (spot: Spot, melody: readonly MelodyNote[]): { at: number; sound: number }[] =>
  melody.filter((one) => one.bar === spot.slot.bar && one.beat >= spot.slot.beat - 1e-6 && one.beat < spot.slot.beat + spot.beats - 1e-6)
    .map((one) => ({ at: one.beat - spot.slot.beat, sound: pitchClass(one.note) }))

function arcOf(change: Change | null, replaced: readonly Spot[], puts: readonly Put[], taste: Taste, liking: Liking, melody: readonly { at: number; sound: number }[]): Arc {
  const beats = replaced.reduce((sum, spot) => sum + spot.beats, 0)
  const plain = replaced.map((spot): Put => ({ chord: spot.chord, beats: spot.beats }))
  const bassOf = ({ chord }: Put) => pitchClass(chord.bass ?? chord.root)
  const added = Math.max(0, puts.length - replaced.length)
  let price = added * PRICE.addedChord * (1 - taste.busy)
  if (change) price += PRICE.change
  if (change?.intent === 'bass and texture') price += PRICE.texture
  if (change?.name === 'special colour') price += PRICE.special
  if (change?.intent === 'simplify') price += PRICE.simpler
  if (change) price -= PRICE.liked * (leaningWorth(change.rule, taste) + likingOf(change.rule, liking))
  for (const { at, sound } of melody) {
    let end = 0
    const put = puts.find((one) => { end += one.beats; return at < end - 1e-6 }) ?? puts.at(-1)!
    const heard = heardOver(sound, put.chord)
    price += heard === 'sour' ? PRICE.sour : heard === 'avoid' ? PRICE.avoid : 0
  }
  const [first, last] = [puts[0]!, puts.at(-1)!]
  return {
    change, index: replaced[0]!.index, span: replaced.length, key: change ? putsKey(change) : '', price,
    weight: change ? reachOf(plain, puts, replaced[0]!.key) * beats : 0,
    firstRoot: pitchClass(first.chord.root), firstBass: bassOf(first), lastBass: bassOf(last), landsOn: change?.landsOn ?? null,
    goesOn: goesOnPage(replaced.at(-1)!),
    swaps: change !== null && (change.intent === 'swap' || change.intent === 'borrow'),
  }
}

/** The slot behind it on the page is played behind it, on one time through; so it is, too, where nobody plays there or the tune ends. */
const goesOnPage = ({ nexts, index }: Spot): boolean => nexts.length === 0 || nexts.some((next) => next.index === index + 1)

/** The most the rules could change, beat by beat, neighbours not asked. */
function mostWeight(arcs: readonly (readonly Arc[])[], slots: number): number {
  const most = new Array<number>(slots + 1).fill(0)
  for (let at = slots - 1; at >= 0; at -= 1) most[at] = Math.max(...arcs[at]!.map((arc) => arc.weight + (most[at + arc.span] ?? 0)))
  return most[0]!
}

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
export function latticeOf(text: string, { taste = DEFAULT_TASTE, liking = {}, melody = [], keep = new Set<number>() }: Pick<Asked, 'taste' | 'liking' | 'melody' | 'keep'>): Lattice {
  const chart = parseChart(text)
  const spots = spotsOf(chart, analyse(chart))
  const arcs = lattice(spots, taste, liking, melody, keep, () => true)
  const most = mostWeight(arcs, spots.length)
  const prices = arcs.map((list) => list.map((arc) => arc.price))
  const signatures = arcs.map((list) => list.map(signatureOf))
  return {
    arcs, spots, most, between: (a, b) => between(a, b, taste),
    reward: (distance) => {
      let [low, high] = [0, HIGHEST_REWARD]
      for (let step = 0; step < HALVINGS; step += 1) {
        const reward = (low + high) / 2
        if (pathAt(arcs, spots.length, taste, prices, signatures, reward).weight < distance * most) low = reward
        else high = reward
      }
      return high
    },
  }
}

/** What two neighbours cost each other; infinite where one spoils the other's reason. */
function between(a: Arc, b: Arc, taste: Taste): number {
  if (!a.goesOn) return 0
  if (a.landsOn !== null && b.firstRoot !== a.landsOn) return Infinity
  const leap = a.lastBass < 0 || b.firstBass < 0 ? 0 : Math.min((a.lastBass - b.firstBass + 12) % 12, (b.firstBass - a.lastBass + 12) % 12)
  return (a.swaps && b.swaps ? PRICE.swapsInARow : 0) + (leap > 2 ? PRICE.bassLeap * taste.bassSteps : 0)
}

interface State { cost: number; arc: Arc; from: number; weight: number }

/** All that the next arc asks of the one before, as one number: what has to come, the bass it leaves, whether it swapped. */
const signatureOf = ({ landsOn, lastBass, swaps, goesOn }: Arc): number => (goesOn ? (((landsOn ?? -1) + 1) * 13 + lastBass + 1) * 2 + (swaps ? 1 : 0) : 0)
const SIGNATURES = 13 * 13 * 2

interface Path { arcs: Arc[]; weight: number }

/**
 * The cheapest path whose weight comes near the goal. Weight is paid for at a price found by halving: at no price the plain
 * chart wins, at the highest the farthest path; between them the path grows with the price, however long the tune is.
 */
function bestPath(arcs: readonly (readonly Arc[])[], slots: number, goal: number, taste: Taste, extra: (arc: Arc) => number): Arc[] {
  const prices = arcs.map((list) => list.map((arc) => arc.price + extra(arc)))
  const signatures = arcs.map((list) => list.map(signatureOf))
  let [low, high] = [0, HIGHEST_REWARD]
  let best: Path | null = null
  for (let step = 0; step < HALVINGS; step += 1) {
    const reward = (low + high) / 2
    const path = pathAt(arcs, slots, taste, prices, signatures, reward)
    if (!best || Math.abs(path.weight - goal) < Math.abs(best.weight - goal)) best = path
    if (path.weight < goal) low = reward
    else high = reward
  }
  return best!.arcs
}

/** Points a unit of weight (one beat changed all the way) can be worth at most: enough to buy the dearest change. */
const HIGHEST_REWARD = 64
/** 64 / 2^14 is far below any price. */
const HALVINGS = 14

/** The cheapest path when weight is worth so much: for each slot and signature the best way there. */
function pathAt(arcs: readonly (readonly Arc[])[], slots: number, taste: Taste, prices: readonly (readonly number[])[], signatures: readonly (readonly number[])[], reward: number): Path {
  const states: State[] = []
  /** At each slot, by signature, the state that ends there; and which there are. */
  const table = Array.from({ length: slots + 1 }, () => new Int32Array(SIGNATURES).fill(-1))
  const ends: number[][] = Array.from({ length: slots + 1 }, () => [])
  const reach = (at: number, order: number, before: number, weight: number, from: number) => {
    const arc = arcs[at]![order]!
    const end = at + arc.span
    if (end > slots) return
    const cost = before + prices[at]![order]! - reward * arc.weight
    const key = signatures[at]![order]!
    const known = table[end]![key]!
    if (known < 0) {
      table[end]![key] = states.length
      ends[end]!.push(states.length)
      states.push({ cost, arc, from, weight: weight + arc.weight })
    } else if (cost < states[known]!.cost) states[known] = { cost, arc, from, weight: weight + arc.weight }
  }
  arcs[0]?.forEach((_, order) => reach(0, order, 0, 0, -1))
  for (let at = 1; at < slots; at += 1)
    for (const id of ends[at]!) {
      const state = states[id]!
      for (let order = 0; order < arcs[at]!.length; order += 1) {
        const price = between(state.arc, arcs[at]![order]!, taste)
        if (price < Infinity) reach(at, order, state.cost + price, state.weight, id)
      }
    }
  let last = -1
  for (const id of ends[slots]!) if (last < 0 || states[id]!.cost < states[last]!.cost) last = id
  const path: Arc[] = []
  for (let id = last; id >= 0; id = states[id]!.from) path.push(states[id]!.arc)
  return { arcs: path.reverse(), weight: last < 0 ? 0 : states[last]!.weight }
}
