import type { ChordSymbol } from '../chord/symbol'
import type { Frets } from '../neck/instrument'
import { bad, good, type Result } from '../result'
import type { Limits } from '../voicing/limits'
import { voicingOf, type Voicing } from '../voicing/voicing'
import { fingersAnew, gripMeasures, handPlace, handTravelMm, layoutOf, outlineMeasures, tendenciesOf, tensionsOf, voiceMeasures } from './measures'
import { leastMotion, outerMotion, voiceSteps, type OuterMotion } from '../pitch/motion'
import { whyNoGrip } from '../voicing/whyNone'
import { constrained, constraintInWords, type Constraint } from './constraints'
import { contourTops, type Contour } from './contour'
import { bestLoops } from './loops'
import { bestPaths } from './search'
import { PriceBook, type Layer } from './stage'
import { TERM_NAMES, type Term, type Weights } from './weights'

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
  /** One fewer than the voicings; as many where the form repeats, the last one leading back. */
  steps: Step[]
}

export interface LeadProblem {
  chords: readonly ChordSymbol[]
  limits: Limits
  weights: Weights
  /** Grips the player has fixed, by index of the chord. They need not be within the limits, only holdable. */
  fixed?: ReadonlyMap<number, Frets>
  /** What some chords have to keep to beyond the limits. */
  constraints?: readonly Constraint[]
  /** The form repeats: the last chord leads back to the first, and that step counts. */
  loop?: boolean
  /** The shape the top voice should have over the whole line. */
  contour?: Contour | null
  /** How many lines, 1 or more. */
  count: number
  /** Called as the search goes on; returning false stops it. */
  onProgress?: (done: number, of: number) => boolean
}

/** What the search says when it is stopped. */
export const STOPPED = 'stopped'

/** The exact `count` best lines by the weights, best first; they may be near to one another. */
export function bestLines(problem: LeadProblem): Result<Line[]> {
  const layers = layersOf(problem)
  if (!layers.ok) return layers
  const search = problem.loop ? bestLoops : bestPaths
  const paths = search(layers.value, problem.weights, problem.limits.instrument, problem.count, problem.onProgress)
  if (!paths) return bad({ code: STOPPED, message: 'The search was stopped.' })
  return good(paths.map((path) => lineOf(path.indexes.map((index, at) => layers.value[at]!.voicings[index]!), problem)))
}

/**
 * What a line pays for each chord on which it sounds the very notes of an earlier line: about two semitones and a
 * shift, so that a different way through is preferred wherever one of nearly equal quality exists.
 */
const REPEATED_GRIP = 4

/**
 * `count` lines that differ from one another: the best one, then each time the best line when repeating a chord's
 * notes from an earlier line has a price. Each is exact for that price; the costs reported are without it. Best first.
 */
export function differentLines(problem: LeadProblem): Result<Line[]> {
  const layers = layersOf(problem)
  if (!layers.ok) return layers
  const used = layers.value.map(() => new Set<string>())
  const found: Voicing[][] = []
  const book = new PriceBook(problem.weights)
  const total = problem.count * layers.value.length
  for (let round = 0; round < problem.count; round += 1) {
    const priced = layers.value.map((layer, at) => ({
      ...layer,
      extra: layer.voicings.map((voicing) => (used[at]!.has(voicing.midis.join()) ? REPEATED_GRIP : 0)),
    }))
    const onLayer = (done: number) => problem.onProgress?.(round * layers.value.length + Math.min(done, layers.value.length), total) ?? true
    const paths = problem.loop
      ? bestLoops(priced, problem.weights, problem.limits.instrument, 1, onLayer, book)
      : bestPaths(priced, problem.weights, problem.limits.instrument, 1, onLayer, book)
    if (!paths) return bad({ code: STOPPED, message: 'The search was stopped.' })
    const voicings = paths[0]?.indexes.map((index, at) => layers.value[at]!.voicings[index]!)
    if (!voicings || found.some((line) => sameLine(line, voicings))) break
    found.push(voicings)
    voicings.forEach((voicing, at) => used[at]!.add(voicing.midis.join()))
  }
  return good(found.map((voicings) => lineOf(voicings, problem)).sort((a, b) => a.cost - b.cost))
}

const sameLine = (a: readonly Voicing[], b: readonly Voicing[]): boolean =>
  a.every((voicing, at) => voicing.frets.join() === b[at]!.frets.join())

/** @param known grips found for earlier questions with the same limits */
export function layersOf(
  { chords, limits, fixed, constraints = [], contour = null }: Pick<LeadProblem, 'chords' | 'limits' | 'fixed' | 'constraints' | 'contour'>, known = new Map<string, readonly Voicing[]>(),
): Result<Layer[]> {
  const layers: Layer[] = []
  const wanted = contour ? contourTops(contour, chords.length) : []
  const top = (index: number) => (wanted[index] === undefined ? {} : { contour: wanted[index] })
  for (const [index, chord] of chords.entries()) {
    const frets = fixed?.get(index)
    if (frets) {
      const voicing = voicingOf(frets, chord, limits)
      if (!voicing)
        return bad({ code: 'unplayable', message: `The grip fixed for ${chord.canonical} (chord ${index + 1}) cannot be held by this hand.`, accepted: 'a grip that `finger` calls playable', text: chord.text, at: index })
      layers.push({ chord, voicings: [voicing], only: frets.join(), ...top(index) })
      continue
    }
    const asked = constraints.filter((one) => one.from <= index && index <= one.to)
    const only = asked.map((one) => constraintInWords(one, limits.instrument.tuning)).join('; ')
    const key = `${chord.canonical} ${only}`
    const voicings = known.get(key) ?? constrained(chord, limits, asked)
    known.set(key, voicings)
    if (voicings.length === 0)
      return bad({
        code: 'no-grip', message: `No grip of ${chord.canonical} (chord ${index + 1}) keeps to these limits${only ? ` and to ${only}` : ''}.`,
        accepted: only ? 'one of these taken away' : whyNoGrip(chord, limits), text: chord.text, at: index,
      })
    layers.push({ chord, voicings, ...(only ? { only } : {}), ...top(index) })
  }
  return good(layers)
}

/** A line from its grips, with everything measured. */
export function lineOf(voicings: Voicing[], problem: Pick<LeadProblem, 'chords' | 'weights' | 'limits' | 'loop' | 'contour'>): Line {
  const { chords, weights, limits, contour } = problem
  const wanted = contour ? contourTops(contour, chords.length) : []
  const measures = Object.fromEntries(TERM_NAMES.map((term) => [term, 0])) as Record<Term, number>
  const count = (more: Partial<Record<Term, number>>) => {
    for (const term of TERM_NAMES) measures[term] += more[term] ?? 0
  }
  const hands = voicings.map((voicing) => handPlace(voicing, limits.instrument))
  const steps: Step[] = []
  const stepTo = (from: number, at: number) => {
    const [before, voicing] = [voicings[from]!, voicings[at]!]
    const motion = leastMotion(before.midis, voicing.midis)
    const hand = handTravelMm(hands[from]!, hands[at]!)
    count(outlineMeasures(before.midis, voicing.midis))
    count(voiceMeasures(before.midis, voicing.midis, tendenciesOf(chords[from]!, chords[at]!), tensionsOf(chords[at]!)))
    count({ motion, hand, fingers: fingersAnew(hands[from]!, hands[at]!), family: layoutOf(before) && layoutOf(voicing) && layoutOf(before) !== layoutOf(voicing) ? 1 : 0 })
    steps.push({
      motion, hand,
      held: voiceSteps(before.midis, voicing.midis).filter((step) => step.semitones === 0).length,
      outer: outerMotion(before.midis, voicing.midis),
    })
  }
  voicings.forEach((voicing, at) => {
    count(gripMeasures(voicing, chords[at]!))
    if (contour) count({ contour: Math.abs(voicing.midis.at(-1)! - wanted[at]!) })
    if (at > 0) stepTo(at - 1, at)
  })
  if (problem.loop && voicings.length > 0) stepTo(voicings.length - 1, 0)
  const parts = Object.fromEntries(TERM_NAMES.map((term) => [term, measures[term] * weights[term]])) as Record<Term, number>
  return { cost: Object.values(parts).reduce((sum, part) => sum + part, 0), parts, measures, voicings, steps }
}
