import { firstOf, itemAt, lastOf } from '../lists'
import { NEAR } from '../chart/beats'
import { slotsOf } from '../chart/chart'
import { parseChart } from '../chart/parseChart'
import type { ChordSymbol } from '../chord/symbol'
import { applyChanges } from '../reharm/apply'
import type { Change, Put } from '../reharm/change'
import type { MelodyNote } from '../reharm/melodyFit'
import { onDial } from '../reharm/howFar'
import { directionInWords } from '../reharm/direction'
import { isOn, type Guards } from '../reharm/guards'
import type { Arc } from '../reharm/lattice'
import { soundingsOf, standingAfterMoves, unlanded } from '../reharm/paths'
import { latticeOf } from '../reharm/latticeOf'
import { REACHED } from '../reharm/reharmonise'
import type { Liking, Taste } from '../reharm/taste'
import { midiOf } from '../pitch/note'
import { bad, good, type Result } from '../result'
import type { Limits } from '../voicing/gripLimits'
import { type Constraint } from './constraints'
import { styledLines } from './inStyle'
import { STOPPED } from './lead'
import { type Line } from './line'
import { STYLES, weightsFrom, type StyleName } from './weights'
import type { TextureName } from './textureNames'
import { gripBook, JointPrices, type Grip, type Placed } from './jointPrices'

export interface ArrangeProblem {
  text: string
  /** 0 plain to 1 far out. */
  distance: number
  limits: Limits
  style?: StyleName
  count?: number
  melody?: readonly MelodyNote[]
  taste?: Taste
  liking?: Liking
  /** Slots that stay as they are, by index. */
  keep?: ReadonlySet<number>
  /** Guards that are switched off (`false`). */
  guards?: Guards
  /** The kind of grip; what the chart suggests where it is not said. */
  texture?: TextureName
  /**
   * Chords of the line may take the free tensions of their role (common practice); they do where it
   * is not said.
   */
  colour?: boolean
  /**
   * The time the hand has to get to each chord of what the chart becomes, in ms; all it wants where
   * it is not said.
   */
  timesOf?: (text: string) => (number | null)[]
  onProgress?: (done: number, of: number) => boolean
  onFound?: (arrangement: Arrangement) => void
}

/** Substitutions and grips that were chosen together. */
export interface Arrangement {
  changes: Change[]
  /** The chords of the line with their places. */
  chords: { chord: ChordSymbol; bar: number; beat: number; beats: number }[]
  line: Line
  /** How far it went, 0 to 1. */
  distance: number
  /** It went within a tenth of where it was asked to go. */
  reached: boolean
  texture: TextureName
  /** What the way does, in a few words. */
  says: string
}

/** Changes tried at each slot, the plain chord among them. */
const CHANGES_TRIED = 8
/** Rounds in which the price of distance is put right, since grips pull it off its mark. */
const ROUNDS = 8
/** How near the wanted distance, as a share of the most, is near enough. */
const NEAR_ENOUGH = 0.05
/**
 * Of the changes tried, those that change most whatever they are worth, so that every distance can
 * be reached.
 */
const FAR_TRIED = 3
/** Semitones that a point of the harmony's price is worth. */
const POINT = 2
/**
 * Price of a change that makes a chord the same as its neighbour, in points: no voice moves, and no
 * harmony either.
 */
const STANDS_STILL = 3
/** Price of using a change that an earlier arrangement used, in points. */
const USED_BEFORE = 2.5

interface WayThrough {
  arc: Arc
  placed: Placed[]
}
interface ArrangeState {
  cost: number
  weight: number
  way: WayThrough
  grips: number[]
  before: ArrangeState | null
}

/**
 * Arrangements of a tune: what each chord becomes and how it is held, chosen together, because the
 * best grip of the wrong substitute loses. A dynamic programme over the lattice of changes with a
 * bounded number of grips each; what it chooses is then led exactly over all grips. Each further
 * arrangement pays for changes used before. Stopping gives what was found.
 */
export function arrange(problem: ArrangeProblem): Result<Arrangement[]> {
  const {
    text,
    distance,
    style = 'smooth',
    count = 1,
    melody = [],
    guards = {},
    onProgress = () => true,
  } = problem
  const named = STYLES[style]
  const limits = named.within ? named.within(problem.limits) : problem.limits
  const weights = weightsFrom(style, {}, limits.bass)
  const lattice = latticeOf(text, problem)
  const slots = slotsOf(parseChart(text))
  if (!lattice.spots.some(Boolean)) return bad(NO_CHORD)
  const goal = distance * lattice.most
  const base = distance > 0 ? lattice.reward(distance) : 0
  const tried = changesTried(lattice, distance, base, slots, melody)
  const gripsOf = gripBook(limits, weights)
  let ways: WayThrough[][] = tried.map((list) =>
    list.flatMap(({ arc, placed }): WayThrough[] => {
      const whole = placed.map((one) => ({ ...one, grips: gripsOf(one.chord, one.top) }))
      return whole.every(({ grips }) => grips.length > 0) ? [{ arc, placed: whole }] : []
    }),
  )
  const stuck = ways.findIndex((list, at) => list.length === 0 && lattice.spots[at])
  if (stuck >= 0) return bad(noGripOf(itemAt(slots, stuck), stuck))

  const prices = new JointPrices(weights)
  const used = new Map<string, number>()
  /**
   * The best end at a reward. What leads back over a repeat has to land there too, and no chord
   * stands where two moved: what does not is left from then on.
   */
  const nextEnd = (reward: number): ArrangeState | null => {
    for (;;) {
      const end = searched(ways, lattice.between, reward, prices, used)
      const wrong = landing(end, lattice.spots, guards)
      if (!end || wrong.size === 0) return end
      ways = ways.map((list) => list.filter(({ arc }) => !wrong.has(arc)))
    }
  }
  const found: Arrangement[] = []
  for (let result = 0; result < count; result += 1) {
    let [low, high, reward] = [0, base * 3 + 24, base]
    let best: ArrangeState | null = null
    const off = (state: ArrangeState) => Math.abs(state.weight - goal)
    for (
      let round = 0;
      round < (distance > 0 ? ROUNDS : 1) && !(best && off(best) <= NEAR_ENOUGH * lattice.most);
      round += 1
    ) {
      if (!onProgress(result * ROUNDS + round, count * ROUNDS))
        return found.length > 0 ? good(found) : bad({ code: STOPPED, message: 'The search was stopped.' })
      const end = nextEnd(reward)
      if (!end) break
      if (!best || off(end) < off(best)) best = end
      if (end.weight < goal) {
        low = reward
        reward = (reward + high) / 2
      } else {
        high = reward
        reward = (reward + low) / 2
      }
    }
    if (!best) break
    const arrangement = led(best, problem, { most: lattice.most, slots, style })
    if (!arrangement.ok) return found.length > 0 ? good(found) : arrangement
    const { changes } = arrangement.value
    for (const state of statesOf(best))
      if (state.way.arc.change) used.set(state.way.arc.key, (used.get(state.way.arc.key) ?? 0) + 1)
    if (found.some((one) => one.changes.length === changes.length && sameChords(one, arrangement.value)))
      continue
    found.push(arrangement.value)
    problem.onFound?.(arrangement.value)
  }
  return good(found)
}

const noGripOf = ({ text, bar }: { text: string; bar: number }, at: number) => ({
  code: 'no-grip',
  message: `No grip of ${text} in bar ${bar} keeps to these limits.`,
  accepted: 'wider limits, or another melody note',
  text,
  at,
})
const NO_CHORD = {
  code: 'no-chord',
  message: 'The chart has no chords.',
  accepted: 'a chart such as | C | Am | Dm | G |',
  text: 'text',
} as const

/**
 * The changes that are tried at each chord: the plain one, those worth most, and some that go
 * farthest. @param base what a change's weight is worth at first
 */
function changesTried(
  lattice: ReturnType<typeof latticeOf>,
  distance: number,
  base: number,
  slots: ReturnType<typeof slotsOf>,
  melody: readonly MelodyNote[],
) {
  return lattice.arcs.map((arcs, at) => {
    const inOrder = arcs
      .map((arc, order) => ({ arc, order, worth: arc.price - base * arc.weight }))
      .filter(({ arc }) => distance > 0 || !arc.change)
    const [plain, ...changes] = inOrder
    const byWorth = changes.sort((a, b) => a.worth - b.worth || a.order - b.order)
    const best = byWorth.slice(0, CHANGES_TRIED - 1 - FAR_TRIED)
    const farthest = byWorth
      .slice(best.length)
      .sort((a, b) => b.arc.weight - a.arc.weight || a.order - b.order)
      .slice(0, FAR_TRIED)
    return [plain!, ...best, ...farthest].map(({ arc }) => ({
      arc,
      placed: placedFor(arc, at, slots, lattice.spots, melody),
    }))
  })
}

function landing(end: ArrangeState | null, spots: Spots, guards: Guards): Set<Arc> {
  const path = end ? statesOf(end).map(({ way }) => way.arc) : []
  return new Set([
    ...unlanded(path, spots),
    ...(isOn(guards, 'moving') ? standingAfterMoves(path, spots) : []),
  ])
}

const sameChords = (a: Arrangement, b: Arrangement): boolean =>
  a.chords.length === b.chords.length &&
  a.chords.every(
    (one, at) =>
      one.chord.canonical === itemAt(b.chords, at).chord.canonical && one.beat === itemAt(b.chords, at).beat,
  )

type Spots = ReturnType<typeof latticeOf>['spots']

/**
 * The chords of an arc at their places, with the melody note that begins or sounds at each; nothing
 * for a silence.
 */
function placedFor(
  arc: Arc,
  at: number,
  slots: ReturnType<typeof slotsOf>,
  spots: Spots,
  melody: readonly MelodyNote[],
): Omit<Placed, 'grips'>[] {
  const spot = spots[at]
  if (!spot) return []
  const replaced = slots.slice(at, at + arc.span)
  const puts: readonly Put[] = arc.change?.puts ?? [{ chord: spot.chord, beats: spot.beats }]
  let offset = 0
  return puts.map(({ chord, beats }) => {
    const place = placeAfter(replaced, offset)
    offset += beats
    return { chord, ...place, beats, top: melodyNoteAt(melody, place) }
  })
}

function placeAfter(
  slots: readonly { bar: number; beat: number; beats: number }[],
  offset: number,
): { bar: number; beat: number } {
  let left = offset
  for (const { bar, beat, beats } of slots) {
    if (left < beats - NEAR) return { bar, beat: beat + left }
    left -= beats
  }
  const last = lastOf(slots)
  return { bar: last.bar, beat: last.beat }
}

/** The melody note that sounds at a place, as a MIDI number; null where it rests. */
export function melodyNoteAt(
  melody: readonly MelodyNote[],
  { bar, beat }: { bar: number; beat: number },
): number | null {
  const one = melody.find(
    (note) => note.bar === bar && note.beat <= beat + NEAR && note.beat + note.beats > beat + NEAR,
  )
  return one ? midiOf(one.note) : null
}

/** The cheapest way through: harmony, grips and steps together. */
function searched(
  ways: readonly (readonly WayThrough[])[],
  between: (a: Arc, b: Arc) => number,
  reward: number,
  prices: JointPrices,
  used: ReadonlyMap<string, number>,
): ArrangeState | null {
  const ends: ArrangeState[][] = Array.from({ length: ways.length + 1 }, () => [])
  for (let at = 0; at < ways.length; at += 1) {
    const before = itemAt(ends, at)
    if (at > 0 && before.length === 0) continue
    for (const way of itemAt(ways, at)) {
      const end = at + way.arc.span
      if (end > ways.length) continue
      const harmony =
        POINT * (way.arc.price + (used.get(way.arc.key) ?? 0) * USED_BEFORE - reward * way.arc.weight)
      const open = at === 0 ? [null] : before.filter((state) => between(state.way.arc, way.arc) < Infinity)
      itemAt(ends, end).push(...arrivals(way, harmony, open, between, prices))
    }
  }
  const last = lastOf(ends)
  return last.length > 0 ? last.reduce((best, state) => (state.cost < best.cost ? state : best)) : null
}

/**
 * For each last grip of a way the cheapest state that ends with it; for a silence the cheapest
 * state before goes on.
 */
function arrivals(
  way: WayThrough,
  harmony: number,
  open: readonly (ArrangeState | null)[],
  between: (a: Arc, b: Arc) => number,
  prices: JointPrices,
): ArrangeState[] {
  if (open.length === 0) return []
  const { placed, arc } = way
  const weightOf = (state: ArrangeState | null) => (state?.weight ?? 0) + arc.weight
  const first = placed[0]
  if (!first) {
    const state = open.reduce((best, one) => ((one?.cost ?? 0) < (best?.cost ?? 0) ? one : best))
    return [{ cost: (state?.cost ?? 0) + harmony, weight: weightOf(state), way, grips: [], before: state }]
  }
  // What a state costs whatever grip comes behind it, and what each grip costs then.
  const onward = open.map((state) => {
    const last = state && lastSounding(state)
    const remaining =
      last && (arc.change || state!.way.arc.change) && last.placed.chord.canonical === first.chord.canonical
    return {
      state,
      cost: state ? state.cost + POINT * (between(state.way.arc, arc) + (remaining ? STANDS_STILL : 0)) : 0,
      price: last ? prices.from(last.placed, last.grip, first) : null,
    }
  })
  let layer = first.grips.map((grip, node): ArrangeState => {
    let best: ArrangeState | null = null
    let least = Infinity
    for (const { state, cost: soFar, price } of onward) {
      const cost = soFar + (price ? price(grip) : 0)
      if (cost < least) {
        least = cost
        best = state
      }
    }
    return { cost: least + harmony + grip.own, weight: weightOf(best), way, grips: [node], before: best }
  })
  for (let at = 1; at < placed.length; at += 1) {
    const [from, to] = [itemAt(placed, at - 1), itemAt(placed, at)]
    const reached = layer.map((state) => ({
      state,
      price: prices.from(from, itemAt(from.grips, itemAt(state.grips, at - 1)), to),
    }))
    layer = to.grips.map((grip, node): ArrangeState => {
      let best = firstOf(reached).state
      let least = Infinity
      for (const { state, price } of reached) {
        const cost = state.cost + price(grip)
        if (cost < least) {
          least = cost
          best = state
        }
      }
      return { ...best, cost: least + grip.own, grips: [...best.grips, node] }
    })
  }
  return layer
}

function lastSounding(state: ArrangeState): { placed: Placed; grip: Grip } | null {
  for (let at: ArrangeState | null = state; at; at = at.before) {
    const placed = at.way.placed.at(-1)
    if (placed) return { placed, grip: itemAt(placed.grips, lastOf(at.grips)) }
  }
  return null
}

function statesOf(end: ArrangeState): ArrangeState[] {
  const states: ArrangeState[] = []
  for (let at: ArrangeState | null = end; at; at = at.before) states.unshift(at)
  return states
}

/**
 * What the joint search chose, led exactly over all grips of its chords, in the texture that suits
 * them and with the tensions they can take.
 */
function led(
  end: ArrangeState,
  { text, limits, distance, texture, colour = true, timesOf }: ArrangeProblem,
  { most, slots, style }: { most: number; slots: ReturnType<typeof slotsOf>; style: StyleName },
): Result<Arrangement> {
  const states = statesOf(end)
  const placed = states.flatMap(({ way }) => way.placed)
  const constraints = placed.flatMap(({ top }, at): Constraint[] =>
    top === null ? [] : [{ from: at, to: at, kind: 'top', midi: top }],
  )
  const changes = states.flatMap(({ way }) => way.arc.change ?? [])
  const times = timesOf?.(applyChanges(text, changes))
  const lines = styledLines({
    chords: placed.map(({ chord }) => chord),
    limits,
    style,
    count: 1,
    constraints,
    colour,
    ...(texture ? { texture } : {}),
    ...(times?.length === placed.length ? { times } : {}),
  })
  if (!lines.ok) return lines
  const went = most > 0 ? onDial(end.weight / most) : 0
  return good({
    changes,
    chords: placed.map(({ chord, bar, beat, beats }) => ({ chord, bar, beat, beats })),
    line: firstOf(lines.value.lines),
    texture: lines.value.texture,
    distance: went,
    reached: Math.abs(went - distance) <= REACHED,
    says:
      distance > 0
        ? directionInWords(
            soundingsOf(
              states.map(({ way }) => way.arc),
              slots,
            ),
            changes,
          )
        : 'as it is',
  })
}
