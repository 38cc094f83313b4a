import { firstOf } from '../lists'
import type { ChordSymbol } from '../chord/symbol'
import { pitchClass } from '../pitch/note'
import { bad, good, type Result } from '../result'
import type { Limits } from '../voicing/gripLimits'
import { requirementOf, type Requirement } from '../voicing/requirement'
import { isPlayedByPlayers } from '../voicing/gripIdiom'
import { soundingOf, ToneNames, voicingOf, type SoundingGrip } from '../voicing/voicing'
import { whyNoGrip } from '../voicing/whyNoGrip'
import { constrained, constraintInWords, type Constraint } from './constraints'
import { contourTops } from './contour'
import type { LeadProblem } from './lineProblem'
import type { Layer } from './searchStage'
import { nearnessOf, textureLimits, textureOf } from './texture'

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
  usual = false,
  times,
}: Pick<
  LeadProblem,
  | 'chords'
  | 'limits'
  | 'fixed'
  | 'constraints'
  | 'contour'
  | 'texture'
  | 'colours'
  | 'inversions'
  | 'usual'
  | 'times'
  | 'times'
>): Result<Layer[]> {
  const layers: Layer[] = []
  const keptTo = JSON.stringify(limits)
  const wanted = contour ? contourTops(contour, chords.length) : []
  const own = (index: number): Pick<Layer, 'contour' | 'time'> => {
    const time = times?.[index]
    return {
      ...(wanted[index] === undefined ? {} : { contour: wanted[index] }),
      ...(typeof time === 'number' ? { time } : {}),
    }
  }
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
      layers.push({ chord, voicings: [voicing], only: frets.join(), ...own(index) })
      continue
    }
    const asked = constraints.filter((one) => one.from <= index && index <= one.to)
    const only = asked.map((one) => constraintInWords(one, limits.instrument.tuning)).join('; ')
    const variants = colours?.[index] ?? [chord]
    const kind = `${only}${texture === 'as it comes' ? '' : ` ${texture}`}${inversions ? ' inverted' : ''}${usual ? ' usual' : ''}${
      variants.length > 1
        ? ` or ${variants
            .slice(1)
            .map(({ canonical }) => canonical)
            .join(' ')}`
        : ''
    }`
    const grips = KNOWN_GRIPS.of(`${chord.canonical} ${kind} ${keptTo}`, () =>
      gripsFor(variants, { limits, texture, inversions, usual }, asked),
    )
    if (grips.voicings.length === 0)
      return bad({
        code: 'no-grip',
        message: `No grip of ${chord.canonical} (chord ${index + 1}) keeps to these limits${only ? ` and to ${only}` : ''}.`,
        accepted: only ? 'one of these taken away' : whyNoGrip(chord, limits),
        text: chord.text,
        at: index,
      })
    layers.push({ chord, ...grips, ...(kind ? { only: kind } : {}), ...own(index) })
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

/**
 * Which of the variants sounds make, or -1; many grips sound the same. @param foreign a pitch that
 * is asked for may be foreign to every variant
 */
function variantIn(
  variants: readonly ChordSymbol[],
  within: Limits,
  foreign: boolean,
): (sounds: number) => number {
  const needs = variants.map((variant) => requirementOf(variant, within))
  const known = new Map<number, number>()
  return (sounds) => {
    const inside = (beyond: boolean) => needs.findIndex((need) => meets(sounds, need, beyond))
    const found = known.get(sounds) ?? inside(false)
    // What no variant has is foreign to the chord itself.
    const at = found < 0 && foreign ? inside(true) : found
    known.set(sounds, at)
    return at
  }
}

/**
 * The grips of a chord, or of what it may become, that are nearest to a texture; all it has where
 * the texture leaves none.
 */
function gripsFor(
  variants: readonly ChordSymbol[],
  {
    limits,
    texture,
    inversions,
    usual,
  }: Required<Pick<LeadProblem, 'limits' | 'texture' | 'inversions' | 'usual'>>,
  asked: readonly Constraint[],
): Pick<Layer, 'voicings' | 'chords'> {
  const own = textureLimits(texture, limits)
  const chord = firstOf(variants)
  const sought = variants.length > 1 ? withAllTones(variants) : chord
  // A pitch that is asked for may be foreign to every variant.
  const foreign = asked.some(({ kind }) => kind === 'top' || kind === 'sounds' || kind === 'open')
  const among = (within: Limits, only: Accepts | null) => {
    const free = inversions && !chord.bass && within.bass === 'chord'
    const bounds = free ? { ...within, bass: 'any' as const } : within
    const variantOf = variantIn(variants, within, foreign)
    const several = variants.length > 1
    const asOf = ({ midis }: SoundingGrip) => (several ? variants[variantOf(soundsOf(midis))] : chord)
    const grips = constrained(
      sought,
      bounds,
      asked,
      (grip) => {
        if (free && !grip.strings.some(({ degree }) => degree === '1')) return false
        const as = asOf(grip)
        return as !== undefined && (!only || only(grip, as))
      },
      several ? (sounds) => variantOf(sounds) >= 0 : undefined,
    )
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
  const isTaken: Accepts = (grip, as) => isPlayedByPlayers(grip, as, limits.instrument)
  // Grips that players take come first; a condition on the chord opens the whole neck. All this is
  // known before a hand is asked.
  const kinds = textureOf(texture, limits)
  for (const taken of usual && asked.length === 0 && !kinds.ownForms ? [isTaken, null] : [null]) {
    if (texture === 'as it comes') {
      const grips = among(limits, taken)
      if (grips.length > 0 || taken === null) return found(grips)
      continue
    }
    // First those that belong; then what is nearest; then whatever the limits give.
    const places = [
      kinds.stopped ? { ...own, open: false } : own,
      own,
      { ...own, families: limits.families },
      limits,
    ]
    for (const [at, within] of places.entries())
      for (const nearness of at === 0 ? [0] : NEARNESSES) {
        const grips = among(
          within,
          (grip, as) =>
            nearnessOf(texture, grip, as, at === 0 ? own : within) === nearness &&
            (taken?.(grip, as) ?? true),
        )
        if (grips.length > 0) return found(grips)
      }
    if (taken === null) return found(among(limits, null))
  }
  return { voicings: [] }
}
/** How near a grip can be to a texture, the nearest first. */
const NEARNESSES = [0, 1, 2, 3]
type Accepts = (grip: SoundingGrip, as: ChordSymbol) => boolean

/**
 * A chord with every tone that it or what it may become has, so that all their grips are looked for
 * at once.
 */
function withAllTones([chord, ...others]: readonly ChordSymbol[]): ChordSymbol {
  const tones = [...chord!.tones]
  for (const { tones: more } of others)
    for (const tone of more)
      if (!tones.some(({ note }) => pitchClass(note) === pitchClass(tone.note)))
        tones.push({ ...tone, need: 'free' })
  return { ...chord!, tones }
}

/** Whether sounds meet what a chord needs, with nothing foreign unless that was asked for. */
const soundsOf = (midis: readonly number[]): number =>
  midis.reduce((bits, midi) => bits | (1 << (midi % 12)), 0)
function meets(sounds: number, { allowed, required, oneOf }: Requirement, foreign: boolean): boolean {
  return (
    (foreign || (sounds & ~allowed) === 0) &&
    (required & ~sounds) === 0 &&
    oneOf.every((set) => (set & sounds) !== 0)
  )
}
