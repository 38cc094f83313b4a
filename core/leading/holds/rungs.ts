import type { ChordSymbol } from '../../chord/symbol'
import { firstOf, itemAt, lastOf } from '../../lists'
import { pitchClass } from '../../pitch/note'
import type { Voicing } from '../../voicing/voicing'
import type { HoldWay } from './hold'
import { ladderCost, type HeldRun } from './heldRun'

/** Ways to keep a chord alive, by what moves. Common practice, no source. */
export type LadderIdea =
  | 'inversions'
  | 'planing'
  | 'fourths'
  | 'inner line'
  | 'top line'
  | 'suspension'
  | 'diminished neighbour'
  | 'dominant neighbour'
  | 'chord above'
  | 'side step'
  | 'as it is'

/** A grip for each step of a chord that lasts. */
export interface Ladder {
  idea: LadderIdea
  voicings: Voicing[]
  /** What sounds at each step. */
  chords: ChordSymbol[]
  /** By the prices of every line; less is easier and smoother. */
  cost: number
  /** Whether its top goes the way that was asked for, from the first step to the last. */
  whole: boolean
  /** How many grips there are to it before it turns or begins again. */
  rungs: number
  says: string
}

/** Grips one above the other, or one below the other where a chord falls. */
export interface Rungs {
  voicings: readonly Voicing[]
  chords: readonly ChordSymbol[]
}

/**
 * Which rung each step stands on. Where there are fewer rungs than steps a chord that climbs begins
 * again from below, and one that goes and returns turns round sooner.
 */
export function rungsAt(how: HoldWay, steps: number, rungs: number): number[] {
  if (how !== 'returns') {
    const parts = Math.ceil(steps / rungs)
    const size = Math.ceil(steps / parts)
    return Array.from({ length: steps }, (_, at) => at % size)
  }
  const peak = rungs - 1
  const way = Array.from({ length: steps }, (_, at) => {
    const turn = at % (2 * peak)
    return turn <= peak ? turn : 2 * peak - turn
  })
  // It ends at home.
  if (steps > 2 && way[steps - 2] !== 0) way[steps - 1] = 0
  return way
}

/** So many rungs, at most, has a way of so many steps. */
const mostRungs = (how: HoldWay, steps: number): number =>
  how === 'returns' ? Math.floor(steps / 2) + 1 : steps

/**
 * A ladder from its rungs: as many of them as there are, up to one for each step.
 * @param rungs so many of them, or null
 */
export function onRungs(
  run: HeldRun,
  rungs: (wanted: number) => Rungs | null,
): Pick<Ladder, 'voicings' | 'chords' | 'cost' | 'whole' | 'rungs'> | null {
  const steps = run.chords.length
  const { how } = run.hold
  const most = mostRungs(how, steps)
  for (let wanted = most; wanted > 1; wanted -= 1) {
    const way = rungsAt(how, steps, wanted)
    const needed = Math.max(...way) + 1
    const found = needed === wanted ? rungs(wanted) : null
    if (!found) continue
    const voicings = way.map((place) => itemAt(found.voicings, place))
    const chords = way.map((place) => itemAt(found.chords, place))
    return {
      voicings,
      chords,
      cost: ladderCost(run, voicings, chords),
      whole: wanted === most,
      rungs: wanted,
    }
  }
  return null
}

/** What each string that is left free above a ladder costs, in price of a line. */
const LOWER_SET = [0, 6, 20, 60] as const
/** What each fret up the neck costs, in price of a line, for every grip. */
const FRET_UP = 0.6
/** What each grip costs that a ladder has too few, so that it turns or begins again. */
const TOO_FEW = 100
/** What another tone than the root below the first grip costs. */
const NO_ROOT = 8
/** What each note beyond four costs: what moves is heard best in few voices. */
const FULL = 6
/** What each silent string between those that sound costs. */
const GAP = 2

/** The easiest first; of as easy ones those that lie low on the neck and on high strings. */
export function easiestFirst<T extends Pick<Ladder, 'voicings' | 'cost' | 'whole' | 'rungs'>>(
  run: HeldRun,
  ladders: readonly T[],
  onRoot = false,
): T[] {
  const strings = run.limits.instrument.tuning.length
  const root = pitchClass(firstOf(run.chords).root)
  const most = mostRungs(run.hold.how, run.chords.length)
  const price = ({ voicings, cost, whole, rungs }: T): number => {
    const first = firstOf(voicings)
    const above = strings - 1 - Math.max(...first.strings.map(({ string }) => string))
    const set = run.hold.drone === undefined ? itemAt(LOWER_SET, Math.min(above, LOWER_SET.length - 1)) : 0
    const up = voicings.reduce((sum, grip) => sum + meanFret(grip), 0)
    const rooted = !onRoot || first.midis[0]! % 12 === root ? 0 : NO_ROOT
    const full = FULL * Math.max(0, first.midis.length - 4)
    const gaps = lastOf(first.strings).string - firstOf(first.strings).string + 1 - first.strings.length
    return (
      cost +
      set +
      full +
      GAP * gaps +
      FRET_UP * up +
      rooted +
      (whole || (run.hold.how === 'returns' && rungs > 2) ? 0 : TOO_FEW * (most - rungs))
    )
  }
  return ladders
    .map((ladder) => ({ ladder, at: price(ladder) }))
    .sort((a, b) => a.at - b.at)
    .map(({ ladder }) => ladder)
}

const meanFret = ({ frets }: Voicing): number => {
  const held = frets.filter((fret) => fret !== null)
  return held.reduce((sum, fret) => sum + fret, 0) / held.length
}
