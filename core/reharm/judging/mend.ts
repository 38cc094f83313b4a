import { analyse } from '../../analysis/analyse'
import { slotsOf } from '../../chart/chart'
import { parseChart } from '../../chart/parseChart'
import { applyChanges } from '../apply'
import { isCrowd } from '../atPlace'
import type { Change } from '../change'
import type { MelodyNote } from '../melodyFit'
import { changesAt } from '../options'
import { spotsOf } from '../spot'
import { judgedWhole } from './judge'

/** A change as a version has it. */
export type Made = Pick<Change, 'index' | 'span' | 'puts'>

/** What would stand better at a place. */
export interface Mend {
  /** What takes the place of what was made there; null where the plain chords are better. */
  change: Change | null
  /** The places of the plain chords that get back what the chart wrote, or the new change. */
  index: number
  span: number
  /** Points of the judge that it saves. */
  saves: number
}

/** Less than this is taste. */
const LEAST_SAVED = 0.3
/** Changes that are tried at one place, the usual ones first. */
const TRIED = 30

/**
 * What would mend a fault: of the plain chord and what players try first there, what the whole
 * version costs least with. Null where nothing tried is better.
 * @param made what the version changes, which must not overlap
 * @param place where the fault is heard
 */
export function mendAt(
  text: string,
  made: readonly Made[],
  place: { bar: number; beat: number },
  melody: readonly MelodyNote[] = [],
): Mend | null {
  const chart = parseChart(text)
  const analysis = analyse(chart)
  const spots = spotsOf(chart, analysis)
  const at = slotsOf(chart).findLastIndex(
    ({ bar, beat }) => bar < place.bar || (bar === place.bar && beat <= place.beat + 1e-6),
  )
  const here = made.find(({ index, span }) => index <= at && at < index + span)
  const index = here?.index ?? at
  const spot = spots[index]
  if (!spot) return null
  const others = made.filter((one) => one !== here)
  const isFree = ({ span }: Change) =>
    !others.some((one) => one.index < index + span && one.index + one.span > index)
  const costWith = (change: Made | null) =>
    judgedWhole({ chart, analysis, spots }, applyChanges(text, change ? [...others, change] : others), melody)
      .cost
  const now = costWith(here ?? null)
  const tried = changesAt(spot)
    .filter((change) => isFree(change) && change.outOfPlace !== true && !isCrowd(change, spot))
    .slice(0, TRIED)
  const best = [null, ...tried]
    .map((change) => ({ change, cost: costWith(change) }))
    .reduce((a, b) => (b.cost < a.cost ? b : a))
  const saves = now - best.cost
  return saves >= LEAST_SAVED
    ? { change: best.change, index, span: Math.max(here?.span ?? 1, best.change?.span ?? 1), saves }
    : null
}
