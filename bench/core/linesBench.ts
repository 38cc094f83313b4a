import { firstOf, itemAt } from '../../core/lists'
import { Voicing as Voicings } from 'tonal'
import { hasDegree } from '../../core/chord/symbol'
import { chord } from '../../core/chord/parseChord'
import type { ChordSymbol } from '../../core/chord/symbol'
import { KeptSearch } from '../../core/leading/kept'
import { styledLines } from '../../core/leading/inStyle'
import type { StyledProblem } from '../../core/leading/inStyle'
import { bestLines } from '../../core/leading/lead'
import { layersOf } from '../../core/leading/layers'
import { lineOf } from '../../core/leading/line'
import { fingersAnew, handTravelMm } from '../../core/leading/measures'
import { bestPaths } from '../../core/leading/search'
import { openStage, PriceBook } from '../../core/leading/searchStage'
import type { Layer } from '../../core/leading/searchStage'
import { leastMotion } from '../../core/pitch/motion'
import { STYLE_NAMES, weightsFrom } from '../../core/leading/weights'
import type { Weights } from '../../core/leading/weights'
import { midi } from '../../core/pitch/note'
import { voicingsOf } from '../../core/voicing/enumerate'
import { TUNE_LIMITS } from '../../core/voicing/gripLimits'
import type { Limits } from '../../core/voicing/gripLimits'
import type { Voicing } from '../../core/voicing/voicing'
import { TEXTURE_NAMES } from '../../core/leading/textureNames'
import { time, row, ms, TUNE } from './measured'

/** The seventh chord that a general library knows in its place. */
function plainSeventh(chord: ChordSymbol): 'm7' | 'maj7' | '7' {
  if (hasDegree(chord, 'b3')) return 'm7'
  return hasDegree(chord, '7') ? 'maj7' : '7'
}

/** The nearest grip by cost, chord after chord. */
function greedy(chords: readonly ChordSymbol[], limits: Limits, weights = weightsFrom('smooth')) {
  const chosen: Voicing[] = []
  chords.forEach((one, at) => {
    const costs = voicingsOf(one, limits).map((voicing) => {
      const pair = [...chosen.slice(-1), voicing]
      return {
        voicing,
        cost: lineOf(pair, { chords: chords.slice(Math.max(0, at - 1), at + 1), weights, limits }).cost,
      }
    })
    chosen.push(costs.reduce((best, other) => (other.cost < best.cost ? other : best)).voicing)
  })
  return lineOf(chosen, { chords, weights, limits })
}

export function linesBench(): void {
  const limits: Limits = { ...TUNE_LIMITS }
  const weights = weightsFrom('smooth')
  const lead = (chords: readonly ChordSymbol[], bass: Limits['bass'], count = 1) => {
    const found = bestLines({ chords, limits: { ...limits, bass }, weights, count })
    if (!found.ok) throw new Error(found.fault.message)
    return firstOf(found.value)
  }
  const [half, whole] = [time(() => lead(TUNE, 'chord')), time(() => lead([...TUNE, ...TUNE], 'chord'))]
  row('line search, 48 chords : 24 chords', whole.ms / half.ms, 'times', `${ms(half.ms)} and ${ms(whole.ms)}`)
  const near = time(() => greedy(TUNE, limits), 1)
  row('line search : greedy nearest grip, time', half.ms / near.ms, 'times', `greedy ${ms(near.ms)}`)
  row(
    'greedy nearest grip : line search, cost',
    near.value.cost / half.value.cost,
    'times',
    `${near.value.cost.toFixed(0)} against ${half.value.cost.toFixed(0)}`,
  )
  const rootless = time(() => lead(TUNE, 'any'), 1)
  const count = (bass: Limits['bass']) =>
    TUNE.reduce((sum, one) => sum + voicingsOf(one, { ...limits, bass }).length, 0)
  row(
    'line search without roots : with roots',
    rootless.ms / half.ms,
    'times',
    `${ms(rootless.ms)}; ${count('any')} grips against ${count('chord')}`,
  )
}

/**
 * The best lines of a whole tune with every grip there is, against simpler ways to choose grips.
 */
export function wholeTune(): void {
  const weights = weightsFrom('smooth')
  const tune = [...TUNE, ...TUNE]
  const best = (chords: readonly ChordSymbol[], count: number) => {
    const found = bestLines({ chords, limits: TUNE_LIMITS, weights, count })
    if (!found.ok) throw new Error(found.fault.message)
    return found.value
  }
  const [five, ninetySix] = [time(() => best(tune, 5), 1), time(() => best([...tune, ...tune], 5), 1)]
  row(
    'exact 5-best lines, 96 chords : 48 chords',
    ninetySix.ms / five.ms,
    'times',
    `${ms(five.ms)} and ${ms(ninetySix.ms)}`,
  )
  const kept = new KeptSearch()
  kept.best({ chords: tune, limits: TUNE_LIMITS, weights })
  while (kept.settle());
  const fixed = new Map([
    [20, itemAt(firstOf(five.value).voicings, 20).frets.map((fret) => (fret === null ? null : fret))],
  ])
  const [again, whole] = [
    time(() => kept.best({ chords: tune, limits: TUNE_LIMITS, weights, fixed }), 1),
    time(() => bestLines({ chords: tune, limits: TUNE_LIMITS, weights, fixed, count: 1 }), 1),
  ]
  row(
    'one grip fixed in 48 chords, whole search : what changed',
    whole.ms / again.ms,
    'times',
    `${ms(whole.ms)} and ${ms(again.ms)}`,
  )
  const round = time(() => bestLines({ chords: TUNE, limits: TUNE_LIMITS, weights, count: 1, loop: true }), 1)
  row('loop of 24 chords : 5-best lines of 48', round.ms / five.ms, 'times', ms(round.ms))
  const near = greedy(tune, TUNE_LIMITS)
  const [line] = five.value
  if (near.cost < line!.cost - 1e-6) throw new Error('greedy found a cheaper line than the exact search')
  const motionOnly = weightsFrom('smooth', { motion: 1 })
  const least = bestLines({ chords: tune, limits: TUNE_LIMITS, weights: motionOnly, count: 1 })
  if (!least.ok) throw new Error(least.fault.message)
  row(
    'greedy : exact, total cost',
    near.cost / line!.cost,
    'times',
    `${near.cost.toFixed(0)} against ${line!.cost.toFixed(0)}`,
  )
  row(
    'greedy : exact, total motion',
    greedy(tune, TUNE_LIMITS, motionOnly).measures.motion / firstOf(least.value).measures.motion,
    'times',
    `exact ${firstOf(least.value).measures.motion} semitones`,
  )
  // A general theory library (tonal 6.4.3): the nearest top note chord after chord, from its own
  // dictionary of voicings. It knows the plain sevenths.
  const sevenths = tune.map((one) =>
    chord(`${one.canonical.replace(/^([A-G][b#]?).*$/, '$1')}${plainSeventh(one)}`),
  )
  const theirs = Voicings.sequence(
    sevenths.map((one) => one.canonical),
    ['E3', 'E5'],
  ).map((notes) => notes.map((note) => midi(note)))
  const theirMotion = theirs
    .slice(1)
    .reduce((sum, notes, at) => sum + leastMotion(itemAt(theirs, at), notes), 0)
  const ours = bestLines({
    chords: sevenths,
    limits: { ...TUNE_LIMITS, bass: 'any', notes: [4, 4], range: [midi('E3'), midi('E5')] },
    weights: motionOnly,
    count: 1,
  })
  if (!ours.ok) throw new Error(ours.fault.message)
  row(
    'voicings of a theory library : exact, total motion',
    theirMotion / firstOf(ours.value).measures.motion,
    'times',
    `${theirMotion} semitones against ${firstOf(ours.value).measures.motion}`,
  )
  const long = Array.from({ length: 200 }, (_, at) => itemAt(TUNE, (at * 7) % TUNE.length))
  const before = process.memoryUsage().rss
  best(long, 5)
  row(
    'peak memory, 200 chords : before',
    process.memoryUsage().rss / before,
    'times',
    `${(process.memoryUsage().rss / 2 ** 20).toFixed(0)} MB in all`,
  )
}

/**
 * The plain dynamic programme: every grip of a layer after every grip of the one before, each step
 * priced in full.
 */
function plainProgramme(layers: readonly Layer[], weights: Weights): number {
  const stages = layers.map((layer) => openStage(layer, weights, TUNE_LIMITS.instrument))
  let costs = [...firstOf(stages).own]
  for (let at = 1; at < stages.length; at += 1) {
    const [before, stage] = [itemAt(stages, at - 1), itemAt(stages, at)]
    // A book of its own for every step, so that nothing is known from another: each pair is priced
    // as if it were the first.
    const prices = new PriceBook(weights).pricesOf(before, stage)
    costs = stage.own.map((own, node) => {
      let least = Infinity
      for (let other = 0; other < before.own.length; other += 1) {
        const [a, b] = [itemAt(before.soundOf, other), itemAt(stage.soundOf, node)]
        const cost =
          itemAt(costs, other) +
          prices.outline(a, b) +
          prices.inner(a, b) +
          weights.hand * handTravelMm(itemAt(before.hands, other), itemAt(stage.hands, node)) +
          weights.fingers * fingersAnew(itemAt(before.hands, other), itemAt(stage.hands, node))
        if (cost < least) least = cost
      }
      return least + own
    })
  }
  return Math.min(...costs)
}

/**
 * First lines and five lines of 48 chords, for every style, texture and bass rule, as ratios to the
 * plain programme on its own layers.
 */
export function firstLines(): void {
  const tune = [...TUNE, ...TUNE]
  const weights = weightsFrom('smooth', {}, 'any')
  const any: Limits = { ...TUNE_LIMITS, bass: 'any' }
  const layersFor = (chords: readonly ChordSymbol[]) => {
    const found = layersOf({ chords, limits: any })
    if (!found.ok) throw new Error(found.fault.message)
    return found.value
  }
  // The plain way takes minutes for 48 chords: eight of them are enough for the ratio.
  const few = layersFor(tune.slice(0, 8))
  const plain = time(() => plainProgramme(few, weights), 1)
  const ours = time(() => firstOf(bestPaths(few, weights, any.instrument, 1)!).cost, 3)
  if (Math.abs(plain.value - ours.value) > 1e-6)
    throw new Error(`found ${ours.value}, the plain programme ${plain.value}`)
  row(
    'bass player has it, any grip, plain programme : search',
    plain.ms / ours.ms,
    'times',
    `8 chords: ${ms(plain.ms)} and ${ms(ours.ms)}`,
  )
  const each = plain.ms / 7
  const [half, whole] = [
    time(() => bestPaths(layersFor(tune), weights, any.instrument, 1), 2),
    time(() => bestPaths(layersFor([...tune, ...tune]), weights, any.instrument, 1), 1),
  ]
  row(
    'the same search, 96 chords : 48 chords',
    whole.ms / half.ms,
    'times',
    `${ms(half.ms)} and ${ms(whole.ms)}`,
  )
  const lead = (more: Partial<StyledProblem>, count: number) => {
    const found = styledLines({
      chords: tune,
      limits: TUNE_LIMITS,
      style: 'smooth',
      count,
      different: count > 1,
      ...more,
    })
    if (!found.ok) throw new Error(found.fault.message)
  }
  const say = (name: string, more: Partial<StyledProblem>) => {
    const cold = time(() => lead(more, 1), 1)
    const [first, five] = [time(() => lead(more, 1), 2), time(() => lead(more, 5), 1)]
    row(
      `${name}: plain programme of 48 chords, any grip : first`,
      (each * 47) / first.ms,
      'times',
      `first ${ms(first.ms)} (${ms(cold.ms)} with its grips), five ${ms(five.ms)}`,
    )
  }
  for (const style of STYLE_NAMES) say(style, { style })
  for (const texture of TEXTURE_NAMES) say(texture, { texture })
  say('bass player has it', { limits: any })
  say('bass player, no roots', { limits: { ...TUNE_LIMITS, bass: 'none' } })
}
