import { slotsOf, type Slot } from '../chart/chart'
import { applyChanges } from './apply'
import { putsKey, type Change } from './change'
import { directionInWords } from './direction'
import { isOn, type Guards } from './guards'
import { farthestPassage, offDial, onDial } from './howFar'
import { ideasOf, NO_IDEA, type Idea } from './ideas'
import { judgedWhole, type Judgement, type JudgedWhole } from './judging/judge'
import { lattice, mostWeight, PRICE, type Arc } from './lattice'
import type { MelodyNote } from './melodyFit'
import { bestPath, soundingsOf, standing, unlanded, waysOf, weightOfPath } from './paths'
import { lastFurther, repeatsOf, withRepeatsAlike } from './repeats'
import { random } from './random'
import type { Spot } from './spot'
import { knownTune } from './tuneRead'
import { DEFAULT_TASTE, leaningWorth, likingOf, type Liking, type Taste } from './taste'

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
  /** How far it went, 0 to 1, on the scale of the control: the mean of how much each beat was changed, against the most the rules could. */
  distance: number
  /** It went within a tenth of where it was asked to go. */
  reached: boolean
  /** What the way does, in a few words. */
  says: string
  /** The one idea that was carried through, in a few words. */
  idea: string
  /** The passage that goes farthest; null in a tune of one passage. */
  farthest: ReturnType<typeof farthestPassage>
  /** What the judge still finds fault with; a part that clashes with the melody is among it. */
  faults: Judgement['faults']
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
  const known = knownTune(text)
  const { chart, analysis, spots } = known
  if (distance <= 0)
    return [
      {
        text,
        distance: 0,
        reached: true,
        says: 'as it is',
        idea: 'as it is',
        farthest: null,
        faults: [],
        changes: [],
      },
    ]
  const allowed = (change: Change) => !oneForOne || (change.span === 1 && change.puts.length === 1)
  const { arcs, most } = lattice(
    { chart, analysis, spots },
    { taste, liking, melody, keep, guards, allowed, distance },
  )
  const lanes = waysOf(arcs, taste)
  const carries = carriedIn(arcs, spots, ideasOf(analysis.idiom.idiom))
  const slots = slotsOf(chart)
  const reachable = mostWeight(arcs, spots.length)
  const repeats = repeatsOf(chart)
  const goal = offDial(distance) * most
  const mostAlike = mostAlikeAt(distance)
  const used = new Map<string, number>()
  const told = new Set<Idea>()
  let sketches: IdeaWay[] | null = null
  const results: Reharmonisation[] = []
  const found: (readonly Arc[])[] = []
  /** On the scale of the control. */
  const offBy = (path: readonly Arc[]) =>
    most === 0 ? 0 : Math.abs(onDial(weightOfPath(path) / most) - distance)
  // What leads back over a repeat has to land there too.
  const broken = (one: readonly Arc[]) => [
    ...unlanded(one, spots),
    ...(isOn(guards, 'moving') ? standing(one, spots) : []),
  ]
  const judgedPath = (one: readonly Arc[]) =>
    judgedWhole(
      known,
      applyChanges(
        text,
        one.flatMap((arc) => arc.change ?? []),
      ),
      melody,
    )
  /** What the player likes counts as much in a way as a whole as it does chord by chord. */
  const likedIn = (path: readonly Arc[]) =>
    path.reduce(
      (sum, { change }) =>
        change ? sum - PRICE.liked * (leaningWorth(change.rule, taste) + likingOf(change.rule, liking)) : sum,
      0,
    )
  for (let round = 0; round < count; round += 1) {
    if (!onProgress(round, count)) break
    const chance = random(seed * 7919 + round)
    const banned = new Set<Arc>()
    const alike = (one: readonly Arc[]) =>
      withRepeatsAlike(one, arcs, repeats, taste, (arc) => banned.has(arc))
    let wider = 1
    let unlike = 1
    let idea = NO_IDEA
    const extra = (arc: Arc) => {
      if (banned.has(arc)) return Infinity
      if (!arc.change) return 0
      return (
        (used.get(arc.key) ?? 0) * PRICE.usedBefore * unlike +
        chance() * PRICE.chance * wider +
        (carries(idea, arc) ? PRICE.drawn : 0)
      )
    }
    const search = (towards = goal) => alike(bestPath(lanes, towards, extra))
    const isAsNear = (other: readonly Arc[], one: readonly Arc[]) =>
      offBy(other) <= Math.max(offBy(one), NEAR_ENOUGH)
    const wayOf = (one: Idea): IdeaWay => {
      idea = one
      const path = search()
      return judgedWay(one, path, judgedPath(path))
    }
    const judgedWay = (one: Idea, path: readonly Arc[], judged: JudgedWhole): IdeaWay => {
      const moved = path.filter(({ change }) => change && change.intent !== 'colour')
      const carried = moved.filter((arc) => carries(one, arc))
      return {
        idea: one,
        path,
        judged,
        cost:
          judged.cost +
          likedIn(path) +
          (one === NO_IDEA || carried.length >= CARRIED
            ? -(CARRIED_WORTH * carried.length) / Math.max(1, moved.length)
            : NOT_CARRIED),
        banned: new Set(banned),
      }
    }
    /** What the judge finds fault with is left out, as long as that makes it better. */
    const mendedWay = (way: IdeaWay): IdeaWay => {
      idea = way.idea
      banned.clear()
      let best = way
      for (let tries = 0, last = way; tries < MENDS; tries += 1) {
        const wrong = last.path.filter(
          (arc) =>
            arc.change && last.judged.faults.some((fault) => isWithin(fault, slots[arc.index]!, arc, slots)),
        )
        if (wrong.length === 0) break
        wrong.forEach((arc) => banned.add(arc))
        const path = search()
        last = judgedWay(way.idea, path, judgedPath(path))
        if (last.cost < best.cost && (isAsNear(path, best.path) || offBy(path) <= MENDED_WITHIN)) best = last
      }
      return best
    }
    const better = (a: IdeaWay, b: IdeaWay): IdeaWay => {
      const [alikeA, alikeB] = [likeness(a.path, found) > mostAlike, likeness(b.path, found) > mostAlike]
      if (alikeA !== alikeB) return alikeA ? b : a
      if (!(isAsNear(a.path, b.path) && isAsNear(b.path, a.path)))
        return offBy(b.path) < offBy(a.path) ? b : a
      return b.cost < a.cost ? b : a
    }
    // Each idea gets its way once; the best of those not told yet are found anew beside what was used, mended, and the judge takes one of them.
    sketches ??= ideasOf(analysis.idiom.idiom).map(wayOf)
    const untold = sketches.filter((way) => !told.has(way.idea))
    const open = untold.length > 0 ? untold : sketches
    const first = [...open]
      .sort((a, b) => (better(a, b) === a ? -1 : 1))
      .slice(0, round === 0 ? MENDED_FIRST : MENDED)
    const best = first.map((way) => mendedWay(round === 0 ? way : wayOf(way.idea))).reduce(better)
    idea = best.idea
    banned.clear()
    best.banned.forEach((arc) => banned.add(arc))
    let { path } = best
    // A short tune has few paths, and a price may have none near the goal: wider chances lead to others.
    for (let tries = 1; tries < TRIES && offBy(path) > NEAR_ENOUGH; tries += 1) {
      wider = 1 + tries
      const other = search()
      if (offBy(other) < offBy(path)) path = other
    }
    for (let wrong = broken(path); wrong.length > 0; wrong = broken(path)) {
      wrong.forEach((arc) => banned.add(arc))
      path = search()
    }
    // Far out there is little to choose between: what was used before becomes dearer until another way comes that goes nearly as far.
    if (likeness(path, found) > mostAlike) {
      let [least, cost] = [likeness(path, found), Infinity]
      for (let tries = 0; tries < UNLIKE_PRICES.length; tries += 1) {
        unlike = UNLIKE_PRICES[tries]!
        wider = 1 + tries
        // At the very end of the scale there is one path; a little before it there are many.
        const other = search(Math.min(goal, (MOST_ASKED - LESS_EACH * tries) * reachable))
        const like = likeness(other, found)
        const goesFar =
          goal > MOST_ASKED * reachable
            ? weightOfPath(other) >= (MOST_ASKED - UNLIKE_AT_THE_END) * reachable
            : offBy(other) <= UNLIKE_WITHIN
        if (!goesFar || broken(other).length > 0 || (like > mostAlike && like >= least)) continue
        const others = judgedPath(other).cost
        // Of those that are unlike enough the judge takes one; of the others the most unlike.
        if (like <= mostAlike ? least > mostAlike || others < cost : true)
          [path, least, cost] = [other, like, others]
      }
    }
    // The last time through may go a little further, where that is better as a whole.
    const further = lastFurther(path, arcs, repeats, taste)
      .filter((other) => broken(other).length === 0 && offBy(other) <= MENDED_WITHIN)
      .map((other) => ({ path: other, cost: judgedPath(other).cost }))
    if (further.length > 0) {
      const least = further.reduce((a, b) => (b.cost < a.cost ? b : a))
      if (least.cost < judgedPath(path).cost) path = least.path
    }
    found.push(path)
    const changes = path.flatMap((arc) => arc.change ?? [])
    for (const { change } of path) if (change) used.set(putsKey(change), (used.get(putsKey(change)) ?? 0) + 1)
    const weight = weightOfPath(path)
    const result = applyChanges(text, changes)
    if (results.some((other) => other.text === result)) continue
    const went = most > 0 ? onDial(weight / most) : 0
    told.add(idea)
    results.push({
      text: result,
      distance: went,
      reached: Math.abs(went - distance) <= REACHED,
      says: directionInWords(soundingsOf(path, slots), changes),
      // What it was drawn to and then did not do is not claimed.
      idea: (path.filter((arc) => carries(idea, arc)).length >= CARRIED ? idea : NO_IDEA).name,
      farthest: farthestPassage(chart, spots, changes),
      faults: judgedPath(path).faults,
      changes,
    })
    onFound?.(results.at(-1)!)
  }
  return results
}

/** The best way found for one idea. */
interface IdeaWay {
  idea: Idea
  path: readonly Arc[]
  judged: JudgedWhole
  /** What the judge says of it, less what carrying its idea is worth. */
  cost: number
  /** What was at fault on the way to it. */
  banned: ReadonlySet<Arc>
}

/** Which arcs carry which idea, asked once. */
function carriedIn(
  arcs: readonly (readonly Arc[])[],
  spots: readonly (Spot | null)[],
  ideas: readonly Idea[],
): (idea: Idea, arc: Arc) => boolean {
  const known = new Map(
    ideas.map((idea) => [
      idea,
      new Set(
        arcs.flatMap((list) =>
          list.filter(({ change, index }) => change && idea.carriedBy(change, spots[index]!)),
        ),
      ),
    ]),
  )
  return (idea, arc) => known.get(idea)?.has(arc) ?? false
}

/** A fault is heard inside an arc, or in the chord right behind it. */
function isWithin(
  fault: { bar: number; beat: number },
  first: Slot,
  { index, span }: Arc,
  slots: readonly Slot[],
): boolean {
  const end = slots[index + span]
  const after = (bar: number, beat: number) =>
    fault.bar > bar || (fault.bar === bar && fault.beat >= beat - 1e-6)
  return after(first.bar, first.beat) && !(end && after(end.bar, end.beat))
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
/** Ways that share more of their changes, which far out is more, are looked for anew, at prices for what was used that rise, and within this share of the most from the goal, which at the very end no path may reach. */
const mostAlikeAt = (distance: number): number => 0.6 + 0.15 * Math.max(0, distance - 0.5)
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
/** What a way is worth that does nothing but its idea, and what it costs where it hardly carries it, in points of the judge. Tried on tunes read by hand; no source. */
const CARRIED_WORTH = 1
const NOT_CARRIED = 2
/** How many ways are mended, how often what is at fault is left out, and how far from the goal a mended way may go, as a share of the most. */
const MENDED_FIRST = 4
const MENDED = 2
const MENDS = 3
const MENDED_WITHIN = 0.04
