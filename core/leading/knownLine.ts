import type { ChordSymbol } from '../chord/symbol'
import { itemAt } from '../lists'
import { bad, good, type Result } from '../result'
import { voicingsOf } from '../voicing/enumerate'
import { hasUsualForm, isPlayedByPlayers, movableShape } from '../voicing/gripIdiom'
import type { Limits } from '../voicing/gripLimits'
import { voicingOf, type Voicing } from '../voicing/voicing'
import type { Frets } from '../neck/instrument'
import { STOPPED } from './lead'
import { lineOf, type Line } from './line'
import { weightsOf } from './lineProblem'
import { gripMeasures } from './measures'
import { bestPaths } from './search'
import type { Layer } from './searchStage'
import { knownGrips, knownShape, type KnownShape, type Vocabulary } from './vocabulary'
import { weightsFrom, type StyleName, type Weights } from './weights'

/** A line that is held to grips its player knows. */
export interface KnownProblem {
  chords: readonly ChordSymbol[]
  limits: Limits
  vocabulary: Vocabulary
  style: StyleName
  weights?: Partial<Weights>
  /** Grips that stand whatever is known, by index of the chord. */
  fixed: ReadonlyMap<number, Frets>
  /** So many grips more may be used, where they fill holes. */
  more: number
  count: number
  onProgress?: (done: number, of: number) => boolean
}

/** A grip that chords without a known one could be played with. */
export interface NewGrip extends KnownShape {
  /** The chord it is easiest to learn on. */
  chord: ChordSymbol
  /** Indexes of the chords it serves. */
  fills: number[]
}

export interface KnownLines {
  /** Lines over the chords that have a grip; `indexes` says which those are. */
  lines: Line[]
  indexes: number[]
  /** Chords that no known grip serves, by index. */
  holes: number[]
  /** New grips that were taken. */
  added: NewGrip[]
  /** The one more grip that would fill most holes; null where there are none. */
  wouldHelp: NewGrip | null
}

/** Weights of a line whose few grips leave nothing to choose but the way of the hand. */
const HAND_FIRST = { hand: 40 } as const

/**
 * Lines of known grips alone. A list of shapes leaves little to choose: then the least total way of
 * the hand decides; the grips of a stage are chosen as in any line.
 */
export function knownLines(problem: KnownProblem): Result<KnownLines> {
  const { chords, limits, vocabulary, fixed, more, count, onProgress } = problem
  const layers: (Layer | null)[] = chords.map((chord, at) => {
    const frets = fixed.get(at)
    const own = frets && voicingOf(frets, chord, limits)
    const voicings = own ? [own] : knownGrips(chord, vocabulary, limits)
    return voicings.length > 0 ? { chord, voicings, only: `known ${own ? at : ''}` } : null
  })
  const holesOf = () => layers.flatMap((layer, at) => (layer ? [] : [at]))
  const added: NewGrip[] = []
  while (added.length < more && holesOf().length > 0) {
    const grip = bestNewGrip(holesOf(), problem)
    if (!grip) break
    added.push(grip)
    for (const at of grip.fills) {
      const chord = itemAt(chords, at)
      layers[at] = { chord, voicings: knownGrips(chord, { shapes: [grip] }, limits), only: 'new' }
    }
  }
  const indexes = layers.flatMap((layer, at) => (layer ? [at] : []))
  const open = layers.filter((layer) => layer !== null)
  const own = 'stage' in vocabulary ? (problem.weights ?? {}) : { ...HAND_FIRST, ...problem.weights }
  const prices = {
    chords: open.map(({ chord }) => chord),
    weights: weightsOf({ weights: weightsFrom(problem.style, own, limits.bass), limits }),
    limits,
  }
  const paths = open.length > 0 ? bestPaths(open, prices.weights, limits.instrument, count, onProgress) : []
  if (!paths) return bad({ code: STOPPED, message: 'The search was stopped.' })
  const holes = holesOf()
  return good({
    lines: paths.map(({ indexes: way }) =>
      lineOf(
        way.map((node, at) => itemAt(itemAt(open, at).voicings, node)),
        prices,
      ),
    ),
    indexes,
    holes,
    added,
    wouldHelp: holes.length > 0 ? bestNewGrip(holes, problem) : null,
  })
}

/** Grips of one chord that are looked at as new ones, the easiest first. */
const MOST_NEW = 12

/** The grip that would serve most chords; of as good ones the easiest that goes everywhere. */
function bestNewGrip(holes: readonly number[], { chords, limits }: KnownProblem): NewGrip | null {
  const known = new Map<string, { grip: Voicing; chord: ChordSymbol; cost: number }>()
  const names = new Map(holes.map((at) => [itemAt(chords, at).canonical, itemAt(chords, at)]))
  for (const chord of names.values())
    for (const { grip, cost } of easiestGrips(chord, limits)) {
      const shape = grip.frets.includes(0) ? grip.frets.join() : movableShape(grip.frets)
      const before = known.get(shape)
      if (!before || cost < before.cost) known.set(shape, { grip, chord, cost })
    }
  const found = [...known.values()].map(({ grip, chord, cost }) => {
    const shape = knownShape(grip.frets)
    const serves = new Set(
      [...names.values()]
        .filter((one) => knownGrips(one, { shapes: [shape] }, { ...limits }).length > 0)
        .map(({ canonical }) => canonical),
    )
    return { ...shape, chord, cost, fills: holes.filter((at) => serves.has(itemAt(chords, at).canonical)) }
  })
  const [best] = found.sort(
    (a, b) => b.fills.length - a.fills.length || Number(b.movable) - Number(a.movable) || a.cost - b.cost,
  )
  if (!best) return null
  const { cost: _cost, ...grip } = best
  return grip
}

function easiestGrips(chord: ChordSymbol, limits: Limits): { grip: Voicing; cost: number }[] {
  const { instrument } = limits
  const usual = voicingsOf(chord, limits, (grip) => hasUsualForm(grip, chord, instrument))
  const grips =
    usual.length > 0 ? usual : voicingsOf(chord, limits, (grip) => isPlayedByPlayers(grip, chord, instrument))
  return grips
    .map((grip) => {
      const { grip: held, idiom, fullness, register } = gripMeasures(grip, chord, instrument)
      return { grip, cost: held + 2 * idiom + 3 * fullness + 0.3 * register }
    })
    .sort((a, b) => a.cost - b.cost)
    .slice(0, MOST_NEW)
}
