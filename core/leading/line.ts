import { itemAt, lastOf } from '../lists'
import type { ChordSymbol } from '../chord/symbol'
import { outerMotion, voiceSteps, type OuterMotion } from '../pitch/motion'
import type { Voicing } from '../voicing/voicing'
import { formMs, wayMs } from './handTime'
import { contourTops } from './contour'
import {
  fingersAnew,
  gripMeasures,
  handPlace,
  handTravelMm,
  isWrittenStep,
  layoutOf,
  motionMeasures,
  outlineMeasures,
  tendenciesOf,
  tensionsOf,
  voiceMeasures,
} from './measures'
import { weightsOf, type LeadProblem } from './lineProblem'
import { kindOfGrip } from './texture'
import type { TextureName } from './textureNames'
import { TERM_NAMES, type Term } from './weights'

/** What happens between two grips of a line. */
export interface Step {
  /** Least motion in semitones. */
  motion: number
  /** Voices that keep their pitch. */
  held: number
  /** Hand travel in mm. */
  hand: number
  outer: OuterMotion
}

/** One grip for each chord of the tune, joined. */
export interface Line {
  cost: number
  /** Measure times weight, summed over the line; the parts add up to the cost. */
  parts: Record<Term, number>
  /** The measures themselves, in the units of `TERMS`. */
  measures: Record<Term, number>
  voicings: Voicing[]
  /** What each grip is: the chord as it is written, or with the tones the line adds to it. */
  chords: readonly ChordSymbol[]
  /** One fewer than the voicings; as many where the form repeats, the last one leading back. */
  steps: Step[]
  /** The kind of grip it was looked for in; none where it is any. */
  texture?: TextureName
}

/** A line from its grips, with everything measured. */
export function lineOf(
  voicings: Voicing[],
  problem: Pick<
    LeadProblem,
    'chords' | 'weights' | 'limits' | 'loop' | 'contour' | 'aside' | 'texture' | 'times'
  >,
  as: readonly ChordSymbol[] = problem.chords,
): Line {
  const { chords, limits, contour } = problem
  const weights = weightsOf(problem)
  const wanted = contour ? contourTops(contour, chords.length) : []
  const measures = Object.fromEntries(TERM_NAMES.map((term) => [term, 0])) as Record<Term, number>
  const count = (more: Partial<Record<Term, number>>) => {
    for (const term of TERM_NAMES) measures[term] += more[term] ?? 0
  }
  const hands = voicings.map((voicing) => handPlace(voicing, limits.instrument))
  const steps: Step[] = []
  const stepTo = (from: number, at: number) => {
    const [before, voicing] = [itemAt(voicings, from), itemAt(voicings, at)]
    const { motion, upper } = motionMeasures(before.midis, voicing.midis)
    const hand = handTravelMm(itemAt(hands, from), itemAt(hands, at))
    const fingers = fingersAnew(itemAt(hands, from), itemAt(hands, at))
    const time = problem.times?.[at]
    if (typeof time === 'number')
      count({ late: Math.max(0, formMs(voicing) + wayMs(hand, fingers) - time) / 100 })
    const outline = outlineMeasures(before.midis, voicing.midis)
    count(outline)
    if (outline.bass > 0 && isWrittenStep(itemAt(chords, from), itemAt(chords, at))) count({ walk: 1 })
    count(
      voiceMeasures(
        before.midis,
        voicing.midis,
        tendenciesOf(itemAt(chords, from), itemAt(chords, at)),
        tensionsOf(itemAt(chords, at)),
      ),
    )
    count({
      motion,
      upper,
      hand,
      texture: kindOfGrip(before) === kindOfGrip(voicing) ? 0 : 1,
      fingers,
      family: layoutOf(before) && layoutOf(voicing) && layoutOf(before) !== layoutOf(voicing) ? 1 : 0,
    })
    steps.push({
      motion,
      hand,
      held: voiceSteps(before.midis, voicing.midis).filter((step) => step.semitones === 0).length,
      outer: outerMotion(before.midis, voicing.midis),
    })
  }
  voicings.forEach((voicing, at) => {
    count(gripMeasures(voicing, itemAt(as, at), limits.instrument))
    if (problem.aside) count({ texture: problem.aside })
    if (contour) count({ contour: Math.abs(lastOf(voicing.midis) - itemAt(wanted, at)) })
    if (at > 0) stepTo(at - 1, at)
  })
  if (problem.loop && voicings.length > 0) stepTo(voicings.length - 1, 0)
  const parts = Object.fromEntries(
    TERM_NAMES.map((term) => [term, measures[term] * weights[term]]),
  ) as Record<Term, number>
  return {
    cost: Object.values(parts).reduce((sum, part) => sum + part, 0),
    parts,
    measures,
    voicings,
    chords: as,
    steps,
    ...(problem.texture ? { texture: problem.texture } : {}),
  }
}
