import { firstOf } from '../core/lists'
import { chord } from '../core/chord/parseChord'
import { weightsOf } from '../core/leading/lineProblem'
import { lineOf } from '../core/leading/line'
import { usualTextures } from '../core/leading/usualTextures'
import { TERM_NAMES, weightsFrom, type Term, type Weights } from '../core/leading/weights'
import type { Frets } from '../core/neck/instrument'
import { DEFAULT_LIMITS } from '../core/voicing/gripLimits'
import { voicingOf } from '../core/voicing/voicing'
import { PAIRS, type Pair } from './pairs'

const fretsOf = (text: string): Frets => text.split(' ').map((fret) => (fret === 'x' ? null : Number(fret)))

/** What each term measures of a passage. */
function measured({ symbols, bass }: Pair, grips: readonly string[]): Record<Term, number> {
  const limits = { ...DEFAULT_LIMITS, bass }
  const chords = symbols.map(chord)
  const voicings = grips.map((grip, at) => {
    const voicing = voicingOf(fretsOf(grip), chords[at]!, limits)
    if (!voicing) {
      console.log(`${grip} for ${chords[at]!.canonical} in ${symbols.join(' ')} cannot be held`)
      process.exit(1)
    }
    return voicing
  })
  return lineOf(voicings, { chords, limits, weights: weightsFrom('smooth', {}, bass) }).measures
}

/** By how much the worse passage is dearer, term by term. */
const MEASURED = PAIRS.map((pair) => {
  const [better, worse] = [measured(pair, pair.better), measured(pair, pair.worse)]
  return {
    pair,
    dearer: Object.fromEntries(TERM_NAMES.map((term) => [term, worse[term] - better[term]])) as Record<
      Term,
      number
    >,
  }
})

/** Every other pair is held back. */
const isHeldBack = (at: number) => at % 2 === 1
/**
 * A pair agrees clearly when the worse passage is dearer by this much of a semitone for each chord.
 */
const MARGIN = 1

/** The weights of `smooth` for a pair, in the texture its chords are usually played in. */
const weightsFor = ({ symbols, bass }: Pair): Weights =>
  weightsOf({
    weights: weightsFrom('smooth', {}, bass),
    texture: firstOf(usualTextures(symbols.map(chord), { bass })),
    limits: { bass },
  })

const dearerBy = (dearer: Record<Term, number>, weights: Weights) =>
  TERM_NAMES.reduce((sum, term) => sum + weights[term] * dearer[term], 0)

/**
 * Says how many pairs the weights of `smooth` agree with, on the half they are fitted against and
 * on the half held back.
 */
export function checkPairs(): void {
  for (const held of [false, true]) {
    const some = MEASURED.filter((_, at) => isHeldBack(at) === held)
    const wrong = some.filter(({ pair, dearer }) => dearerBy(dearer, weightsFor(pair)) <= 0)
    const narrow = some.filter(({ pair, dearer }) => {
      const by = dearerBy(dearer, weightsFor(pair))
      return by > 0 && by < MARGIN * pair.symbols.length
    })
    console.log(
      `pairs of passages, smooth, ${held ? 'held back' : 'fitted'}: ${some.length - wrong.length} of ${some.length} agree (${((100 * (some.length - wrong.length)) / some.length).toFixed(0)}%)${narrow.length > 0 ? `; narrowly ${narrow.map(({ pair }) => pair.id).join(', ')}` : ''}`,
    )
    for (const { pair, dearer } of wrong) {
      const weights = weightsFor(pair)
      console.log(
        `  not ${pair.id}: ${TERM_NAMES.filter((term) => weights[term] * dearer[term] !== 0)
          .map((term) => `${term} ${(weights[term] * dearer[term]).toFixed(1)}`)
          .join(', ')}`,
      )
    }
  }
}

/** How far a weight may move from its size as said, as a factor. */
const FURTHEST = 2
const STEPS = 400
const STEP = 0.02

/**
 * Sizes of weights, from those as they are, that the fitted half of the pairs asks for: a term
 * grows or shrinks by its share where a pair is wrong or narrow (hinge loss, exponentiated steps),
 * within a factor of two. Printed as a proposal: a weight is changed by hand, with its reason.
 */
export function proposeWeights(): void {
  const factors = Object.fromEntries(TERM_NAMES.map((term) => [term, 1])) as Record<Term, number>
  const fitted = MEASURED.filter((_, at) => !isHeldBack(at))
  for (let step = 0; step < STEPS; step += 1)
    for (const { pair, dearer } of fitted) {
      const base = weightsFor(pair)
      const by = TERM_NAMES.reduce((sum, term) => sum + base[term] * factors[term] * dearer[term], 0)
      if (by >= MARGIN * pair.symbols.length) continue
      for (const term of TERM_NAMES)
        factors[term] = Math.min(
          FURTHEST,
          Math.max(
            1 / FURTHEST,
            factors[term] *
              Math.exp(
                STEP *
                  Math.sign(base[term] * dearer[term]) *
                  Math.min(1, Math.abs(base[term] * dearer[term]) / 10),
              ),
          ),
        )
    }
  const moved = TERM_NAMES.filter((term) => Math.abs(Math.log(factors[term])) > 0.1)
  console.log(
    moved.length > 0
      ? `  the fitted pairs ask for: ${moved.map((term) => `${term} × ${factors[term].toFixed(2)}`).join(', ')}`
      : '  the fitted pairs ask for no other sizes',
  )
}
