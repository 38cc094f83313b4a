import { reduceTo } from '../analysis/skeleton'
import { hasDegree, type ChordSymbol } from '../chord/symbol'
import { firstOf } from '../lists'
import { soundAt, writtenFrets, type Frets } from '../neck/instrument'
import type { Fingering } from '../neck/fingering'
import type { Degree } from '../pitch/degree'
import { hasUsualForm } from '../voicing/gripIdiom'
import type { Limits } from '../voicing/gripLimits'
import { requirementOf } from '../voicing/requirement'
import { voicingsOf } from '../voicing/enumerate'
import { voicingOf, type SoundingGrip, type Voicing } from '../voicing/voicing'
import { isBarre, isCampfire, isShell, ringsOpen, stringFromSixth } from './gripForms'

/** A grip a player knows: everywhere along the neck, or only where it is. */
export interface KnownShape {
  frets: Frets
  movable: boolean
}

/** What players know at a time, from the first grips on. Common practice, no source. */
export const STAGES = [
  "learner's hand",
  'shells',
  'sevenths on two string sets',
  'with ninths',
  'with 13 and alterations',
] as const
export type StageName = (typeof STAGES)[number]

/** The grips a line is held to: shapes, or those of a stage. */
export type Vocabulary = { shapes: readonly KnownShape[] } | { stage: StageName }

/** A shape with an open string is where it is; any other goes everywhere. */
export const knownShape = (frets: Frets): KnownShape => ({ frets, movable: !frets.includes(0) })

/** Tones that a stage leaves out; a chord is then played with fewer. */
const NINTHS: readonly Degree[] = ['9']
const BASIC: readonly Degree[] = ['1', 'b3', '3', '2', '4', '5', 'b5', '#5', '6', 'bb7', 'b7', '7']

interface Stage {
  /** How far a chord may be reduced where it has no grip as it is written. */
  reducedTo: readonly (2 | 3)[]
  knows: (grip: SoundingGrip, chord: ChordSymbol, limits: Limits) => boolean
  /** Where it matters who holds it. */
  held?: (voicing: Voicing) => boolean
}

/** Four voices, a plain triad's doubled, with the root on one of the two lowest strings. */
const onTwoSets = (grip: SoundingGrip, chord: ChordSymbol, limits: Limits): boolean =>
  grip.midis.length >= 4 &&
  grip.midis.length <= (chord.tones.length > 4 || isPlain(chord) ? 5 : 4) &&
  stringFromSixth(firstOf(grip.strings).string, limits) <= 1 &&
  !grip.frets.includes(0) &&
  hasUsualForm(grip, chord, limits.instrument)

const soundsOnly = (grip: SoundingGrip, degrees: readonly Degree[]): boolean =>
  grip.strings.every(({ degree }) => degrees.includes(degree))

const STAGE_TABLE: Readonly<Record<StageName, Stage>> = {
  "learner's hand": {
    reducedTo: [2, 3],
    knows: (grip, chord, limits) =>
      ringsOpen(grip, limits)
        ? isCampfire(grip, chord, limits)
        : isBarre(grip, chord, limits) && hasUsualForm(grip, chord, limits.instrument),
    held: ({ frets, fingering }) => frets.includes(0) || isUnderIndex(frets, fingering),
  },
  shells: {
    reducedTo: [2, 3],
    knows: (grip, chord, limits) =>
      isShell(grip, chord, limits) || (isPlain(chord) && onTwoSets(grip, chord, limits)),
  },
  'sevenths on two string sets': {
    reducedTo: [2],
    knows: (grip, chord, limits) => onTwoSets(grip, chord, limits) && soundsOnly(grip, BASIC),
  },
  'with ninths': {
    reducedTo: [2],
    knows: (grip, chord, limits) => onTwoSets(grip, chord, limits) && soundsOnly(grip, [...BASIC, ...NINTHS]),
  },
  'with 13 and alterations': { reducedTo: [2], knows: onTwoSets },
}

/** One barre, of the index finger, at the lowest fret of the grip. */
const isUnderIndex = (frets: Frets, { barres }: Fingering): boolean =>
  barres.length === 1 && barres[0]!.fret === Math.min(...frets.filter((fret) => fret !== null))

/** A triad or an open fifth: it has no shell. */
const isPlain = (chord: ChordSymbol): boolean => !hasDegree(chord, '6', 'bb7', 'b7', '7')

/**
 * The grips of a chord among those that are known. The bass rule gives way where no known grip
 * keeps to it; a stage plays a chord with fewer tones before it plays none.
 */
export function knownGrips(chord: ChordSymbol, vocabulary: Vocabulary, limits: Limits): Voicing[] {
  const strict =
    'stage' in vocabulary
      ? ofStage(chord, vocabulary.stage, limits)
      : ofShapes(chord, vocabulary.shapes, limits)
  if (strict.length > 0 || limits.bass === 'any') return strict
  return knownGrips(chord, vocabulary, { ...limits, bass: 'any' })
}

function ofStage(chord: ChordSymbol, name: StageName, limits: Limits): Voicing[] {
  const { reducedTo, knows, held } = STAGE_TABLE[name]
  const variants = [chord, ...reducedTo.map((level) => reduceTo(chord, level))]
  for (const variant of variants) {
    const found = voicingsOf(variant, limits, (grip) => knows(grip, variant, limits)).filter(
      (voicing) => held?.(voicing) ?? true,
    )
    if (found.length > 0) return found
  }
  return []
}

function ofShapes(chord: ChordSymbol, shapes: readonly KnownShape[], limits: Limits): Voicing[] {
  const { allowed, required, oneOf, bass } = requirementOf(chord, limits)
  const places = shapes.flatMap((shape) => placesOfShape(shape, limits))
  const once = new Map(places.map((frets) => [writtenFrets(frets), frets]))
  return [...once.values()].flatMap((frets) => {
    const midis = frets.flatMap((fret, string) =>
      fret === null ? [] : [soundAt(limits.instrument, string, fret)],
    )
    const sounds = midis.reduce((bits, midi) => bits | (1 << (midi % 12)), 0)
    const fits =
      (sounds & ~allowed) === 0 &&
      (required & ~sounds) === 0 &&
      oneOf.every((set) => (set & sounds) !== 0) &&
      (bass & (1 << (Math.min(...midis) % 12))) !== 0
    // What a grip sounds is known sooner than who could hold it.
    return (fits && voicingOf(frets, chord, limits)) || []
  })
}

/** A shape wherever it lies on the neck. */
export function placesOfShape({ frets, movable }: KnownShape, limits: Limits): Frets[] {
  if (!movable) return [frets]
  const stopped = frets.filter((fret) => fret !== null)
  const [low, high] = [Math.min(...stopped), Math.max(...stopped)]
  const from = Math.max(limits.frets[0], limits.instrument.capo + 1)
  const places: Frets[] = []
  for (let by = from - low; high + by <= limits.frets[1]; by += 1)
    places.push(frets.map((fret) => (fret === null ? null : fret + by)))
  return places
}
