import type { ChordSymbol } from '../chord/symbol'
import type { Frets } from '../neck/instrument'
import { bad, good, type Result } from '../result'
import type { Limits } from '../voicing/limits'
import { requirementOf, type Requirement } from '../voicing/requirement'
import { soundingOf, ToneNames, voicingOf, type SoundingGrip, type Voicing } from '../voicing/voicing'
import { pitchClass } from '../pitch/note'
import {
  fingersAnew,
  gripMeasures,
  handPlace,
  handTravelMm,
  layoutOf,
  motionMeasures,
  outlineMeasures,
  tendenciesOf,
  tensionsOf,
  voiceMeasures,
} from './measures'
import { outerMotion, voiceSteps, type OuterMotion } from '../pitch/motion'
import { whyNoGrip } from '../voicing/whyNone'
import { constrained, constraintInWords, type Constraint } from './constraints'
import { contourTops, type Contour } from './contour'
import { bestLoops } from './loops'
import { bestPaths } from './search'
import { PriceBook, type Layer } from './stage'
import { inTexture, kindOfGrip, nearnessOf, TEXTURES, textureLimits } from './texture'
import { TERM_NAMES, withBassPlayer, type Term, type Weights } from './weights'
import type { TextureName } from './textureNames'

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
}

export interface LeadProblem {
  chords: readonly ChordSymbol[]
  limits: Limits
  weights: Weights
  /** Grips the player has fixed, by index of the chord. They need not be within the limits, only holdable. */
  fixed?: ReadonlyMap<number, Frets>
  /** What some chords have to keep to beyond the limits. */
  constraints?: readonly Constraint[]
  /** The kind of grip; any where it is not said. Where a chord has none of the kind the nearest stand in. */
  texture?: TextureName
  /** What each chord may become inside the line, itself first; only itself where nothing is said. */
  colours?: readonly (readonly ChordSymbol[])[]
  /** Grips have to keep the root somewhere, whatever is lowest; a written bass stays lowest. */
  inversions?: boolean
  /** What each grip pays, in changes of texture, because this kind of grip is not the first choice here. */
  aside?: number
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

/** The weights of a problem with what its texture makes of them. */
export function weightsOf({
  weights,
  texture = 'as it comes',
}: Pick<LeadProblem, 'weights' | 'texture'>): Weights {
  const { prices, rootless, noBass } = TEXTURES[texture]
  const own = (rootless || noBass) && weights.upper > 0 ? withBassPlayer(weights) : weights
  return prices ? prices(own) : own
}

/** The exact `count` best lines by the weights, best first; they may be near to one another. */
export function bestLines(problem: LeadProblem): Result<Line[]> {
  const layers = layersOf(problem)
  if (!layers.ok) return layers
  const weights = weightsOf(problem)
  const search = problem.loop ? bestLoops : bestPaths
  const paths = search(layers.value, weights, problem.limits.instrument, problem.count, problem.onProgress)
  if (!paths) return bad({ code: STOPPED, message: 'The search was stopped.' })
  return good(paths.map((path) => lineAlong(path.indexes, layers.value, problem)))
}

/** Lines are called different when they share no more than this of their grips. */
const MOST_SHARED = 0.5
/**
 * What a line pays for each chord on which it holds the grip of an earlier line, or sounds its notes, in semitones: first about a shift, so that a
 * way of nearly equal quality is preferred, then more until the lines are different.
 */
const REPEATED_GRIP = [4, 9, 20, 60]
/** What each grip of a texture that is not the first choice pays, in changes of texture: so that the first choice is the first answer. */
const NOT_FIRST = 2

/**
 * `count` lines that a player would call different: the best one, then each time the best line when repeating grips of earlier lines has a
 * price, which rises until no more than half of them are shared. Each is exact for that price; the costs reported are without it. Best first.
 * @param textures the kinds of grip the lines take in turn, where the problem names none; any grip where they have no more ways
 */
export function differentLines(
  problem: LeadProblem,
  textures: readonly (TextureName | undefined)[] = [problem.texture],
): Result<Line[]> {
  const named =
    textures.length > 1 && !textures.includes('as it comes')
      ? [...textures, 'as it comes' as const]
      : textures
  const problems = named.map((texture, at) => ({
    ...problem,
    ...(texture ? { texture } : {}),
    aside: at === 0 ? 0 : NOT_FIRST,
  }))
  const layersIn = problems.map((one) => layersOf(one))
  const usable = layersIn.flatMap((layers, at) =>
    layers.ok ? [{ layers: layers.value, problem: problems[at]! }] : [],
  )
  if (usable.length === 0) return layersIn[0] as Result<never>
  const used = usable[0]!.layers.map(() => new Set<string>())
  const found: Line[] = []
  const books = problems.map((one) => new PriceBook(weightsOf(one)))
  const size = usable[0]!.layers.length
  // Any grip comes last: only when a whole turn of the named kinds gave nothing.
  const turn = Math.max(1, usable.length - (named.length > textures.length ? 1 : 0))
  let idle = 0
  for (let round = 0; found.length < problem.count && round < 2 * problem.count + usable.length; round += 1) {
    const { layers, problem: own } = idle >= turn ? usable.at(-1)! : usable[round % turn]!
    const book = books[problems.indexOf(own)]!
    let line: Line | null = null
    for (const price of found.length === 0 ? [0] : REPEATED_GRIP) {
      const priced =
        price === 0
          ? layers
          : layers.map((layer, at) => ({
              ...layer,
              extra: layer.voicings.map((voicing) =>
                used[at]!.has(voicing.midis.join()) || used[at]!.has(voicing.frets.join(' ')) ? price : 0,
              ),
            }))
      const onLayer = (done: number) =>
        problem.onProgress?.(
          Math.min(found.length, problem.count - 1) * size + Math.min(done, size),
          problem.count * size,
        ) ?? true
      const paths = problem.loop
        ? bestLoops(priced, book.weights, problem.limits.instrument, 1, onLayer, book)
        : bestPaths(priced, book.weights, problem.limits.instrument, 1, onLayer, book)
      if (!paths) return bad({ code: STOPPED, message: 'The search was stopped.' })
      line = paths[0] ? lineAlong(paths[0].indexes, layers, own) : null
      if (!line || !found.some((other) => shared(other, line!) > MOST_SHARED)) break
    }
    // Where there is no other texture, a line that is at least not the same is still an answer.
    const most = Math.max(0, ...found.map((other) => shared(other, line!)))
    if (!line || most === 1 || (most > MOST_SHARED && usable.length > 1)) {
      idle += 1
      continue
    }
    if (idle < turn) idle = 0
    found.push(line)
    line.voicings.forEach((voicing, at) => {
      used[at]!.add(voicing.midis.join())
      used[at]!.add(voicing.frets.join(' '))
    })
  }
  return good(found.sort((a, b) => a.cost - b.cost))
}

/** The share of its grips a line has in common with another. */
const shared = (a: Line, b: Line): number =>
  a.voicings.filter((voicing, at) => voicing.frets.join() === b.voicings[at]!.frets.join()).length /
  Math.max(1, a.voicings.length)

/** The line along a path through layers. */
const lineAlong = (indexes: readonly number[], layers: readonly Layer[], problem: LeadProblem): Line =>
  lineOf(
    indexes.map((index, at) => layers[at]!.voicings[index]!),
    problem,
    indexes.map((index, at) => layers[at]!.chords?.[index] ?? layers[at]!.chord),
  )

/** The grips of every chord, as far as they are asked for. */
export function layersOf({
  chords,
  limits,
  fixed,
  constraints = [],
  contour = null,
  texture = 'as it comes',
  colours,
  inversions = false,
}: Pick<
  LeadProblem,
  'chords' | 'limits' | 'fixed' | 'constraints' | 'contour' | 'texture' | 'colours' | 'inversions'
>): Result<Layer[]> {
  const layers: Layer[] = []
  const keptTo = JSON.stringify(limits)
  const wanted = contour ? contourTops(contour, chords.length) : []
  const top = (index: number) => (wanted[index] === undefined ? {} : { contour: wanted[index] })
  for (const [index, chord] of chords.entries()) {
    const frets = fixed?.get(index)
    if (frets) {
      const voicing = voicingOf(frets, chord, limits)
      if (!voicing)
        return bad({
          code: 'unplayable',
          message: `The grip fixed for ${chord.canonical} (chord ${index + 1}) cannot be held by this hand.`,
          accepted: 'a grip that `finger` calls playable',
          text: chord.text,
          at: index,
        })
      layers.push({ chord, voicings: [voicing], only: frets.join(), ...top(index) })
      continue
    }
    const asked = constraints.filter((one) => one.from <= index && index <= one.to)
    const only = asked.map((one) => constraintInWords(one, limits.instrument.tuning)).join('; ')
    const variants = colours?.[index] ?? [chord]
    const kind = `${only}${texture === 'as it comes' ? '' : ` ${texture}`}${inversions ? ' inverted' : ''}${
      variants.length > 1
        ? ` or ${variants
            .slice(1)
            .map(({ canonical }) => canonical)
            .join(' ')}`
        : ''
    }`
    const grips = KNOWN_GRIPS.of(`${chord.canonical} ${kind} ${keptTo}`, () =>
      gripsFor(variants, { limits, texture, inversions }, asked),
    )
    if (grips.voicings.length === 0)
      return bad({
        code: 'no-grip',
        message: `No grip of ${chord.canonical} (chord ${index + 1}) keeps to these limits${only ? ` and to ${only}` : ''}.`,
        accepted: only ? 'one of these taken away' : whyNoGrip(chord, limits),
        text: chord.text,
        at: index,
      })
    layers.push({ chord, ...grips, ...(kind ? { only: kind } : {}), ...top(index) })
  }
  return good(layers)
}

/** Grips of chords found for earlier questions; what was asked for longest ago goes first. */
class GripBook {
  private readonly known = new Map<string, Pick<Layer, 'voicings' | 'chords'>>()
  private size = 0

  of(key: string, find: () => Pick<Layer, 'voicings' | 'chords'>): Pick<Layer, 'voicings' | 'chords'> {
    const grips = this.known.get(key) ?? find()
    if (!this.known.delete(key)) this.size += grips.voicings.length
    this.known.set(key, grips)
    for (const [oldest, old] of this.known) {
      if (this.size <= MOST_GRIPS || oldest === key) break
      this.known.delete(oldest)
      this.size -= old.voicings.length
    }
    return grips
  }
}
/** Grips kept in all: about 100 MB. */
const MOST_GRIPS = 120_000
const KNOWN_GRIPS = new GripBook()

/** The grips of a chord, or of what it may become, that are nearest to a texture; all it has where the texture leaves none. */
function gripsFor(
  variants: readonly ChordSymbol[],
  { limits, texture, inversions }: Required<Pick<LeadProblem, 'limits' | 'texture' | 'inversions'>>,
  asked: readonly Constraint[],
): Pick<Layer, 'voicings' | 'chords'> {
  const own = textureLimits(texture, limits)
  const chord = variants[0]!
  const sought = variants.length > 1 ? withAllTones(variants) : chord
  // A pitch that is asked for may be foreign to every variant.
  const foreign = asked.some(({ kind }) => kind === 'top' || kind === 'sounds' || kind === 'open')
  const among = (within: Limits, only: ((grip: SoundingGrip, as: ChordSymbol) => boolean) | null) => {
    const free = inversions && !chord.bass && within.bass === 'chord'
    const bounds = free ? { ...within, bass: 'any' as const } : within
    const needs = variants.map((variant) => requirementOf(variant, within))
    const asOf = ({ midis }: SoundingGrip) =>
      variants.length > 1 ? variants[needs.findIndex((need) => meets(midis, need, foreign))] : chord
    const grips = constrained(sought, bounds, asked, (grip) => {
      if (free && !grip.strings.some(({ degree }) => degree === '1')) return false
      const as = asOf(grip)
      return as !== undefined && (!only || only(grip, as))
    })
    return grips.map((voicing) => {
      const as = asOf(voicing)!
      return {
        voicing:
          as === chord
            ? voicing
            : { ...voicing, ...soundingOf(voicing.frets, new ToneNames(as), within.instrument) },
        as,
      }
    })
  }
  const found = (grips: ReturnType<typeof among>) => ({
    voicings: grips.map(({ voicing }) => voicing),
    ...(variants.length > 1 ? { chords: grips.map(({ as }) => as) } : {}),
  })
  if (texture === 'as it comes') return found(among(limits, null))
  // First those that belong, which is known before a hand is asked; then what is nearest; then whatever the limits give.
  const belonging = among(
    TEXTURES[texture].stopped ? { ...own, open: false } : own,
    (grip, as) => nearnessOf(texture, grip, as, own) === 0,
  )
  if (belonging.length > 0) return found(belonging)
  for (const within of [own, { ...own, families: limits.families }, limits]) {
    const grips = among(within, null)
    const { indexes } = inTexture(
      texture,
      grips.map(({ voicing }) => voicing),
      (at) => grips[at]!.as,
      within,
    )
    if (indexes.length > 0) return found(indexes.map((at) => grips[at]!))
    if (within === limits) return found(grips)
  }
  return { voicings: [] }
}

/** A chord with every tone that it or what it may become has, so that all their grips are looked for at once. */
function withAllTones([chord, ...others]: readonly ChordSymbol[]): ChordSymbol {
  const tones = [...chord!.tones]
  for (const { tones: more } of others)
    for (const tone of more)
      if (!tones.some(({ note }) => pitchClass(note) === pitchClass(tone.note)))
        tones.push({ ...tone, need: 'free' })
  return { ...chord!, tones }
}

/** Whether sounds meet what a chord needs, with nothing foreign unless that was asked for. */
function meets(
  midis: readonly number[],
  { allowed, required, oneOf }: Requirement,
  foreign: boolean,
): boolean {
  const sounds = midis.reduce((bits, midi) => bits | (1 << (midi % 12)), 0)
  return (
    (foreign || (sounds & ~allowed) === 0) &&
    (required & ~sounds) === 0 &&
    oneOf.every((set) => (set & sounds) !== 0)
  )
}

/** A line from its grips, with everything measured. */
export function lineOf(
  voicings: Voicing[],
  problem: Pick<LeadProblem, 'chords' | 'weights' | 'limits' | 'loop' | 'contour' | 'aside' | 'texture'>,
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
    const [before, voicing] = [voicings[from]!, voicings[at]!]
    const { motion, upper } = motionMeasures(before.midis, voicing.midis)
    const hand = handTravelMm(hands[from]!, hands[at]!)
    count(outlineMeasures(before.midis, voicing.midis))
    count(
      voiceMeasures(
        before.midis,
        voicing.midis,
        tendenciesOf(chords[from]!, chords[at]!),
        tensionsOf(chords[at]!),
      ),
    )
    count({
      motion,
      upper,
      hand,
      texture: kindOfGrip(before) === kindOfGrip(voicing) ? 0 : 1,
      fingers: fingersAnew(hands[from]!, hands[at]!),
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
    count(gripMeasures(voicing, as[at]!, limits.instrument))
    if (problem.aside) count({ texture: problem.aside })
    if (contour) count({ contour: Math.abs(voicing.midis.at(-1)! - wanted[at]!) })
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
  }
}
