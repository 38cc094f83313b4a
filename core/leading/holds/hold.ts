import { NEAR } from '../../chart/beats'
import type { Chart, Meter } from '../../chart/chart'
import type { ChordSymbol } from '../../chord/symbol'
import { itemAt } from '../../lists'
import type { TopGoes } from '../searchStage'

/** What the highest note of a chord that lasts does. */
export const HOLD_WAYS = ['stays', 'climbs', 'falls', 'returns'] as const
export type HoldWay = (typeof HOLD_WAYS)[number]
/** How often it takes another grip. */
export const HOLD_STEPS = ['bar', 'half', 'beat'] as const
export type HoldEvery = (typeof HOLD_STEPS)[number]
/**
 * What its grips sound: chord tones alone, the free tensions of its place too, or the chord and its
 * diminished or dominant neighbour in turn.
 */
export const HOLD_TONES = ['chord', 'tensions', 'diminished', 'dominant'] as const
export type HoldTones = (typeof HOLD_TONES)[number]

/** How a chord that lasts is kept alive. */
export interface Hold {
  how: HoldWay
  every: HoldEvery
  /** Chord tones first, then what else there is, where it is not said. */
  tones?: HoldTones | undefined
  /** The strings that are played, by index; each set of neighbours is tried where none is said. */
  strings?: readonly number[]
  /** An open string, by index, that rings under every grip. */
  drone?: number
}

/** One step of a chord that lasts: it has a grip of its own. */
export interface HoldStep {
  /** Index of the chord it belongs to. */
  of: number
  chord: ChordSymbol
  bar: number
  beat: number
  beats: number
}

/** Where half a bar ends: in an odd metre after its larger part. */
const halfOf = ({ beats }: Meter): number => Math.ceil(beats / 2)

/**
 * The chords of a chart step by step: a chord begins where it is written, and again at each bar,
 * half bar or beat inside it.
 */
export function holdSteps(chart: Chart, every: HoldEvery): HoldStep[] {
  const steps: HoldStep[] = []
  let of = -1
  for (const bar of chart.bars) {
    const cuts = cutsOf(bar.meter, every)
    for (const slot of bar.slots) {
      if (slot.symbol?.kind !== 'chord') continue
      of += 1
      const end = slot.beat + slot.beats
      const begins = [slot.beat, ...cuts.filter((cut) => cut > slot.beat + NEAR && cut < end - NEAR)]
      begins.forEach((beat, at) =>
        steps.push({
          of,
          chord: (slot.symbol as { chord: ChordSymbol }).chord,
          bar: slot.bar,
          beat,
          beats: (begins[at + 1] ?? end) - beat,
        }),
      )
    }
  }
  return steps
}

function cutsOf(meter: Meter, every: HoldEvery): number[] {
  if (every === 'bar') return []
  return every === 'half'
    ? [1 + halfOf(meter)]
    : Array.from({ length: Math.max(0, Math.ceil(meter.beats) - 1) }, (_, at) => at + 2)
}

/** Steps that belong together, by index of the first and the last. */
export interface HoldRun {
  from: number
  to: number
}

/**
 * Where a chord lasts: the same chord for two steps or more, or two chords in turn that come back
 * (a vamp).
 */
export function holdRuns(steps: readonly HoldStep[]): HoldRun[] {
  const runs: HoldRun[] = []
  let from = 0
  while (from < steps.length) {
    const to = Math.max(lastSame(steps, from), lastOfVamp(steps, from))
    if (to > from) runs.push({ from, to })
    from = to + 1
  }
  return runs
}

const nameAt = (steps: readonly HoldStep[], at: number): string => itemAt(steps, at).chord.canonical

function lastSame(steps: readonly HoldStep[], from: number): number {
  let to = from
  while (to + 1 < steps.length && nameAt(steps, to + 1) === nameAt(steps, from)) to += 1
  return to
}

/**
 * The last step of two chords in turn that begin here, each for a bar at most; both of them have to
 * come back. What lasts longer is a hold of its own.
 */
function lastOfVamp(steps: readonly HoldStep[], from: number): number {
  const names: string[] = []
  /** Where each chord in turn begins. */
  const begins: number[] = []
  let to = from
  for (; to < steps.length; to += 1) {
    const name = nameAt(steps, to)
    if (!names.includes(name) && names.push(name) > 2) break
    const begin = begins.at(-1)
    if (begin === undefined || name !== nameAt(steps, begin)) begins.push(to)
    else if (itemAt(steps, to).bar !== itemAt(steps, begin).bar) {
      to = begin
      begins.pop()
      break
    }
  }
  return begins.length >= 4 ? to - 1 : from
}

/** Where the top goes into each step of a run; none into the first. */
export function topsOf(how: HoldWay, steps: number): (TopGoes | null)[] {
  const peak = Math.floor(steps / 2)
  return Array.from({ length: steps }, (_, at): TopGoes | null => {
    if (at === 0) return null
    if (how === 'stays') return 'same'
    if (how === 'climbs') return 'up'
    if (how === 'falls') return 'down'
    return at <= peak ? 'up' : 'down'
  })
}

/** Whether the tops of a row go the way a chord that lasts was asked to go. */
export function goesThatWay(how: HoldWay, tops: readonly number[]): boolean {
  const goes = tops.slice(1).map((top, at) => Math.sign(top - itemAt(tops, at)))
  return topsOf(how, tops.length)
    .slice(1)
    .every((way, at) => itemAt(goes, at) === SIGN[way!])
}
const SIGN: Readonly<Record<TopGoes, number>> = { up: 1, down: -1, same: 0 }
