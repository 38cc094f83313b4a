import { itemAt } from '../lists'
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
import { bestPath, soundingsOf, standingAfterMoves, unlanded, waysOf, weightOfPath } from './paths'
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
  /**
   * How far it went, 0 to 1, on the scale of the control: the mean of how much each beat was
   * changed, against the most the rules could.
   */
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

/** A way as a search for it ends. */
export interface WayFound {
  text: string
  path: readonly Arc[]
  changes: readonly Change[]
  idea: Idea
}

/** The search for one way after another: what earlier ones used is dearer in the next. */
export class WaySearch {
  private readonly known: ReturnType<typeof knownTune>
  private readonly arcs: ReturnType<typeof lattice>['arcs']
  /** The most the rules could change. */
  private readonly most: number
  private readonly reachable: number
  private readonly goal: number
  private readonly mostAlike: number
  private readonly lanes: ReturnType<typeof waysOf>
  private readonly repeats: ReturnType<typeof repeatsOf>
  private readonly slots: ReturnType<typeof slotsOf>
  private readonly carries: ReturnType<typeof carriedIn>
  private readonly taste: Taste
  private readonly used = new Map<string, number>()
  private readonly told = new Set<Idea>()
  private readonly found: (readonly Arc[])[] = []
  private sketches: IdeaWay[] | null = null
  // What the present round draws its paths by.
  private chance: () => number = () => 0
  private readonly banned = new Set<Arc>()
  private idea: Idea = NO_IDEA
  /** How much chance counts, and what was used before, against what is usual. */
  private wider = 1
  private unlike = 1

  constructor(
    private readonly text: string,
    private readonly asked: AskedFor,
  ) {
    const { distance, taste = DEFAULT_TASTE, liking = {}, melody = [], keep = new Set(), guards = {} } = asked
    const allowed = (change: Change) => !asked.oneForOne || (change.span === 1 && change.puts.length === 1)
    this.taste = taste
    this.known = knownTune(text)
    const { chart, analysis, spots } = this.known
    const { arcs, most } = lattice(
      { chart, analysis, spots },
      { taste, liking, melody, keep, guards, allowed, distance },
    )
    this.arcs = arcs
    this.most = most
    this.reachable = mostWeight(arcs, spots.length)
    this.goal = offDial(distance) * most
    this.mostAlike = mostAlikeAt(distance)
    this.lanes = waysOf(arcs, taste)
    this.repeats = repeatsOf(chart)
    this.slots = slotsOf(chart)
    this.carries = carriedIn(arcs, spots, ideasOf(analysis.idiom.idiom))
  }

  /**
   * The next way: of the best idea not told yet, mended, near the distance, landing where it leads
   * back, and unlike the ones before.
   */
  next(round: number): WayFound {
    this.chance = random((this.asked.seed ?? 1) * 7919 + round)
    this.banned.clear()
    this.wider = 1
    this.unlike = 1
    const best = this.bestIdea(round)
    this.idea = best.idea
    this.banned.clear()
    best.banned.forEach((arc) => this.banned.add(arc))
    const near = this.landed(this.nearer(best.path))
    const path = this.further(likeness(near, this.found) > this.mostAlike ? this.unlikeOthers(near) : near)
    this.found.push(path)
    for (const { change } of path)
      if (change) this.used.set(putsKey(change), (this.used.get(putsKey(change)) ?? 0) + 1)
    const changes = path.flatMap((arc) => arc.change ?? [])
    return { text: applyChanges(this.text, changes), path, changes, idea: this.idea }
  }

  /** What is said of a way; its idea is told then, and the next ones have others. */
  tell({ text, path, changes, idea }: WayFound): Reharmonisation {
    this.told.add(idea)
    const went = this.most > 0 ? onDial(weightOfPath(path) / this.most) : 0
    const { chart, spots } = this.known
    return {
      text,
      distance: went,
      reached: Math.abs(went - this.asked.distance) <= REACHED,
      says: directionInWords(soundingsOf(path, this.slots), changes),
      // What it was drawn to and then did not do is not claimed.
      idea: (path.filter((arc) => this.carries(idea, arc)).length >= CARRIED ? idea : NO_IDEA).name,
      farthest: farthestPassage(chart, spots, changes),
      faults: this.judged(path).faults,
      changes: [...changes],
    }
  }

  /** On the scale of the control. */
  private offBy(path: readonly Arc[]): number {
    return this.most === 0 ? 0 : Math.abs(onDial(weightOfPath(path) / this.most) - this.asked.distance)
  }

  private isAsNear(other: readonly Arc[], one: readonly Arc[]): boolean {
    return this.offBy(other) <= Math.max(this.offBy(one), NEAR_ENOUGH)
  }

  /** What leads back over a repeat has to land there too. */
  private broken(path: readonly Arc[]): Arc[] {
    const { spots } = this.known
    return [
      ...unlanded(path, spots),
      ...(isOn(this.asked.guards ?? {}, 'moving') ? standingAfterMoves(path, spots) : []),
    ]
  }

  private judged(path: readonly Arc[]): JudgedWhole {
    const changes = path.flatMap((arc) => arc.change ?? [])
    return judgedWhole(this.known, applyChanges(this.text, changes), this.asked.melody ?? [])
  }

  /** What the player likes counts as much in a way as a whole as it does chord by chord. */
  private liked(path: readonly Arc[]): number {
    const { liking = {} } = this.asked
    return path.reduce(
      (sum, { change }) =>
        change
          ? sum - PRICE.liked * (leaningWorth(change.rule, this.taste) + likingOf(change.rule, liking))
          : sum,
      0,
    )
  }

  private extra(arc: Arc): number {
    if (this.banned.has(arc)) return Infinity
    if (!arc.change) return 0
    return (
      (this.used.get(arc.key) ?? 0) * PRICE.usedBefore * this.unlike +
      this.chance() * PRICE.chance * this.wider +
      (this.carries(this.idea, arc) ? PRICE.drawn : 0)
    )
  }

  private search(towards = this.goal): readonly Arc[] {
    const path = bestPath(this.lanes, towards, (arc) => this.extra(arc))
    return withRepeatsAlike(path, this.arcs, this.repeats, this.taste, (arc) => this.banned.has(arc))
  }

  private wayOf(idea: Idea): IdeaWay {
    this.idea = idea
    return this.judgedWay(idea, this.search())
  }

  private judgedWay(idea: Idea, path: readonly Arc[]): IdeaWay {
    const judged = this.judged(path)
    const moved = path.filter(({ change }) => change && change.intent !== 'colour')
    const carried = moved.filter((arc) => this.carries(idea, arc))
    return {
      idea,
      path,
      judged,
      cost:
        judged.cost +
        this.liked(path) +
        (idea === NO_IDEA || carried.length >= CARRIED
          ? -(CARRIED_WORTH * carried.length) / Math.max(1, moved.length)
          : NOT_CARRIED),
      banned: new Set(this.banned),
    }
  }

  /** What the judge finds fault with is left out, as long as that makes it better. */
  private mended(way: IdeaWay): IdeaWay {
    const { slots } = this
    this.idea = way.idea
    this.banned.clear()
    let best = way
    for (let tries = 0, last = way; tries < MENDS; tries += 1) {
      const wrong = last.path.filter(
        (arc) =>
          arc.change &&
          last.judged.faults.some((fault) => isWithin(fault, itemAt(slots, arc.index), arc, slots)),
      )
      if (wrong.length === 0) break
      wrong.forEach((arc) => this.banned.add(arc))
      const path = this.search()
      last = this.judgedWay(way.idea, path)
      if (last.cost < best.cost && (this.isAsNear(path, best.path) || this.offBy(path) <= MENDED_WITHIN))
        best = last
    }
    return best
  }

  private better(a: IdeaWay, b: IdeaWay): IdeaWay {
    const [alikeA, alikeB] = [a, b].map(({ path }) => likeness(path, this.found) > this.mostAlike)
    if (alikeA !== alikeB) return alikeA ? b : a
    if (!(this.isAsNear(a.path, b.path) && this.isAsNear(b.path, a.path)))
      return this.offBy(b.path) < this.offBy(a.path) ? b : a
    return b.cost < a.cost ? b : a
  }

  /**
   * Each idea gets its way once; the best of those not told yet are found anew beside what was
   * used, mended, and the judge takes one of them.
   */
  private bestIdea(round: number): IdeaWay {
    this.sketches ??= ideasOf(this.known.analysis.idiom.idiom).map((idea) => this.wayOf(idea))
    const untold = this.sketches.filter((way) => !this.told.has(way.idea))
    return [...(untold.length > 0 ? untold : this.sketches)]
      .sort((a, b) => (this.better(a, b) === a ? -1 : 1))
      .slice(0, round === 0 ? MENDED_FIRST : MENDED)
      .map((way) => this.mended(round === 0 ? way : this.wayOf(way.idea)))
      .reduce((a, b) => this.better(a, b))
  }

  /**
   * A short tune has few paths, and a price may have none near the goal: wider chances lead to
   * others.
   */
  private nearer(begun: readonly Arc[]): readonly Arc[] {
    let path = begun
    for (let tries = 1; tries < TRIES && this.offBy(path) > NEAR_ENOUGH; tries += 1) {
      this.wider = 1 + tries
      const other = this.search()
      if (this.offBy(other) < this.offBy(path)) path = other
    }
    return path
  }

  private landed(begun: readonly Arc[]): readonly Arc[] {
    let path = begun
    for (let wrong = this.broken(path); wrong.length > 0; wrong = this.broken(path)) {
      wrong.forEach((arc) => this.banned.add(arc))
      path = this.search()
    }
    return path
  }

  /**
   * Far out there is little to choose between: what was used before becomes dearer until another
   * way comes that goes nearly as far.
   */
  private unlikeOthers(begun: readonly Arc[]): readonly Arc[] {
    const { goal, reachable, mostAlike } = this
    let [path, least, cost] = [begun, likeness(begun, this.found), Infinity]
    for (let tries = 0; tries < UNLIKE_PRICES.length; tries += 1) {
      this.unlike = itemAt(UNLIKE_PRICES, tries)
      this.wider = 1 + tries
      // At the very end of the scale there is one path; a little before it there are many.
      const other = this.search(Math.min(goal, (MOST_ASKED - LESS_EACH * tries) * reachable))
      const like = likeness(other, this.found)
      const goesFar =
        goal > MOST_ASKED * reachable
          ? weightOfPath(other) >= (MOST_ASKED - UNLIKE_AT_THE_END) * reachable
          : this.offBy(other) <= UNLIKE_WITHIN
      if (!goesFar || this.broken(other).length > 0 || (like > mostAlike && like >= least)) continue
      const others = this.judged(other).cost
      // Of those that are unlike enough the judge takes one; of the others the most unlike.
      if (like <= mostAlike ? least > mostAlike || others < cost : true)
        [path, least, cost] = [other, like, others]
    }
    return path
  }

  /** The last time through may go a little further, where that is better as a whole. */
  private further(path: readonly Arc[]): readonly Arc[] {
    const further = lastFurther(path, this.arcs, this.repeats, this.taste)
      .filter((other) => this.broken(other).length === 0 && this.offBy(other) <= MENDED_WITHIN)
      .map((other) => ({ path: other, cost: this.judged(other).cost }))
    if (further.length === 0) return path
    const least = further.reduce((a, b) => (b.cost < a.cost ? b : a))
    return least.cost < this.judged(path).cost ? least.path : path
  }
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
          list.filter(({ change, index }) => change && idea.carriedBy(change, itemAt(spots, index)!)),
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

/**
 * The greatest share of what a path changes, chord by chord, that another one changes in the same
 * way.
 */
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
/**
 * Ways that share more of their changes, which far out is more, are looked for anew, at prices for
 * what was used that rise, and within this share of the most from the goal, which at the very end
 * no path may reach.
 */
const mostAlikeAt = (distance: number): number => 0.6 + 0.15 * Math.max(0, distance - 0.5)
const UNLIKE_PRICES = [2, 3, 4, 6, 9, 3, 5, 7]
const UNLIKE_WITHIN = 0.099
const UNLIKE_AT_THE_END = 0.3
const MOST_ASKED = 0.92
/** And each try asks for a little less. */
const LESS_EACH = 0.03

/**
 * How near the wanted distance, as a share of the most, is near enough, and how often it is tried.
 */
const NEAR_ENOUGH = 0.02
const TRIES = 16
/** An idea that comes so often is carried through. */
const CARRIED = 2
/**
 * What a way is worth that does nothing but its idea, and what it costs where it hardly carries it,
 * in points of the judge. Tried on tunes read by hand; no source.
 */
const CARRIED_WORTH = 1
const NOT_CARRIED = 2
/**
 * How many ways are mended, how often what is at fault is left out, and how far from the goal a
 * mended way may go, as a share of the most.
 */
const MENDED_FIRST = 4
const MENDED = 2
const MENDS = 3
const MENDED_WITHIN = 0.04
