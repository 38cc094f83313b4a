import { firstOf, itemAt } from '../lists'
import type { ChordSymbol } from '../chord/symbol'
import type { Degree } from '../pitch/degree'
import { mudIn } from '../voicing/clashes'
import { hasUsualForm, isPacked, toneClass } from '../voicing/gripIdiom'
import { DEFAULT_LIMITS, TUNE_LIMITS, type Limits } from '../voicing/gripLimits'
import type { Family } from '../voicing/family'
import type { SoundingGrip, Voicing } from '../voicing/voicing'
import {
  stringFromSixth,
  neighbours,
  classesOf,
  classesAbove,
  distinct,
  lowBass,
  guitarHasBass,
  isNextAbove,
  isShell,
  lowestHeld,
  ringsOpen,
  isForm,
  isCampfire,
  isBarre,
  amongShells,
  isGuitarTuning,
} from './gripForms'
import type { TextureName } from './textureNames'
import type { Weights } from './weights'

export interface Texture {
  says: string
  /** Fewest and most notes of its grips. */
  notes: readonly [number, number]
  /** The families its grips belong to, so that no others need be looked for. */
  families?: readonly Family[]
  /** Degrees that its grips may leave out beyond the usual ones. */
  omit?: readonly Degree[]
  /** It leaves the root to the bass, whatever the bass rule says. */
  rootless?: boolean
  /**
   * Any tone may be lowest where somebody else plays the bass, and where it has no bass of its own.
   */
  noBass?: boolean
  /** Its sound is that of tensions: chords take the free ones of their role without being asked. */
  coloured?: boolean
  /** How near a grip is to it: 0 belongs, 1 and 2 stand in where nothing belongs, null does not. */
  near: (voicing: SoundingGrip, chord: ChordSymbol, limits: Limits) => 0 | 1 | 2 | 3 | null
  /** Up to this nearness nothing has to be said; 0 where it is not said. */
  belongs?: 0 | 1
  /** Its prices, where they are not those of every line. */
  prices?: (weights: Weights) => Weights
  /**
   * Stopped strings only, as far as there are such grips: a comping hand moves, and open strings do
   * not go with it.
   */
  stopped?: boolean
  /** Its grips are forms of its own, and not those that players know a chord by. */
  ownForms?: boolean
  /** What it is where the guitar has the bass, if that is something else. */
  withBass?: Omit<Texture, 'withBass'>
}
/** Barre chords of a plain song lie up to here. */
const NEAR_NUT = 6
/** Strummed chords are not led voice by voice. */
const strummed = (weights: Weights): Weights => ({
  ...weights,
  motion: weights.motion * STRUMMED,
  upper: weights.upper * STRUMMED,
  top: weights.top * STRUMMED,
  voices: 0,
  held: 0,
  leaps: 0,
  tendency: 0,
  texture: 0,
})

/** Barre chords, the root on the sixth or fifth string: triads of a guitar that has the bass. */
const BARRES: Omit<Texture, 'withBass'> = {
  says: 'Barre chords with the root on the two low strings.',
  stopped: true,
  notes: [4, 6],
  belongs: 1,
  prices: strummed,
  near: (voicing, chord, limits) => {
    if (!lowBass(voicing, limits) || stringFromSixth(firstOf(voicing.strings).string, limits) > 1) return 3
    if (!isForm(voicing, chord, limits)) return 2
    return isBarre(voicing, chord, limits) ? 0 : 1
  },
}

const FOURTHS = {
  says: 'Stacked fourths, one of them augmented where the chord asks for it.',
  stopped: true,
  ownForms: true,
  notes: [3, 4],
  families: ['quartal'],
  coloured: true,
  omit: ['3', 'b3', '5', 'b5', '7', 'b7', '6', '9', '11', '13'],
  near: (voicing) => {
    if (!voicing.families.includes('quartal')) return 2
    return classesOf(voicing).has('third') ? 0 : 1
  },
} satisfies Omit<Texture, 'withBass'>

const TWO_VOICES = {
  says: 'Guide tones, tenths and double stops: third and seventh, or root and third; tenths where the guitar has the bass.',
  stopped: true,
  ownForms: true,
  notes: [2, 2],
  omit: ['5', 'b5', '#5', '9', 'b9', '#9', '11', '#11', '13', 'b13', '6', '7', 'b7', 'bb7'],
} satisfies Omit<Texture, 'withBass' | 'near'>

/** What an upper structure without a tension costs, in semitones. */
const UPPER_TONES = 3
/** What motion counts in strummed chords, against voices that are led. */
const STRUMMED = 0.15
/**
 * What open strings beside a hand that has left open position, and a tone three times, count where
 * strings are to ring.
 */
const RINGING = 0.3

const layout =
  (family: 'drop 2' | 'drop 3'): Texture['near'] =>
  (voicing, _chord, limits) => {
    // Over its own bass drop 2 goes on in drop 3 on the sixth string, so that the top goes by step.
    const mixed =
      family === 'drop 2' &&
      guitarHasBass(limits) &&
      voicing.families.includes('drop 3') &&
      lowBass(voicing, limits)
    if (isPacked(voicing)) return voicing.midis.length === 4 && distinct(voicing) === 4 ? 2 : null
    if (!mixed && !voicing.families.includes(family)) {
      if (
        voicing.families.includes(family === 'drop 2' ? 'drop 3' : 'drop 2') &&
        (!guitarHasBass(limits) || lowBass(voicing, limits))
      )
        return 1
      if (voicing.midis.length === 4 && distinct(voicing) === 4) return 2
      return null
    }
    return !guitarHasBass(limits) || lowBass(voicing, limits) ? 0 : 1
  }

/**
 * Triads by the interval pattern are a family; one whose root is not the chord's is an upper
 * structure.
 */
const isUpperTriad = (voicing: SoundingGrip, limits: Limits): boolean =>
  guitarHasBass(limits)
    ? voicing.midis.length === 4 && voicing.families.includes('triad over bass')
    : voicing.midis.length === 3 &&
      voicing.families.includes('triad') &&
      !voicing.strings.some(({ degree }) => degree === '1')

export const TEXTURES: Readonly<Record<TextureName, Texture>> = {
  'as it comes': { says: 'Any grip: what lies nearest and is usual.', notes: [1, 8], near: () => 0 },
  open: {
    says: 'Ringing chords of open position, barre chords where there is none: plain triads of a plain song.',
    notes: [4, 6],
    // A barre chord is one of them where there is no open one.
    belongs: 1,
    // What rings on may do so twice, and beside a hand that is further up.
    prices: (weights) => {
      const own = strummed(weights)
      return { ...own, open: own.open * RINGING, tripled: own.tripled * RINGING }
    },
    near: (voicing, chord, limits) => {
      if (ringsOpen(voicing, limits) && (!isGuitarTuning(limits) || isCampfire(voicing, chord, limits)))
        return 0
      const known = isForm(voicing, chord, limits)
      if (
        known &&
        isBarre(voicing, chord, limits) &&
        lowestHeld(voicing) - limits.instrument.capo <= NEAR_NUT
      )
        return 1
      return known || ringsOpen(voicing, limits) ? 2 : 3
    },
  },
  shells: {
    says: 'Root, third and seventh, the roots on the two low strings; a tone more where the symbol names one.',
    notes: [3, 5],
    near: (voicing, chord, limits) => {
      if (chord.tones.length <= 3 && guitarHasBass(limits)) return amongShells(voicing, chord, limits)
      if (isShell(voicing, chord, limits)) return 0
      if (voicing.midis.length <= 4 && lowBass(voicing, limits)) return 1
      return 2
    },
  },
  'shells and colour': {
    says: 'A shell with one tone more on top, a tension where one is free; two where that is how the chord is played.',
    stopped: true,
    notes: [4, 5],
    coloured: true,
    // Ninths on the sixth string and thirteenths on the fifth have five notes: no change of texture
    // beside four.
    prices: (weights) => ({ ...weights, texture: weights.texture / 2, voices: weights.voices / 2 }),
    near: (voicing, chord, limits) => {
      if (chord.tones.length <= 3 && guitarHasBass(limits)) return amongShells(voicing, chord, limits)
      if (!lowBass(voicing, limits) || mudIn(voicing.midis).length > 0) return 2
      const [notes, usual] = [
        voicing.strings.length,
        hasUsualForm(voicing, chord, limits.instrument) && distinct(voicing) === voicing.midis.length,
      ]
      if (notes === 5) return usual ? 0 : 2
      if (notes !== 4 || distinct(voicing) < 4) return 2
      const [low, next] = [firstOf(voicing.strings).string, itemAt(voicing.strings, 1).string]
      const inside = voicing.strings.slice(1, 3).map(({ degree }) => toneClass(degree))
      const whole = isNextAbove(low, next, limits) && itemAt(voicing.strings, 3).string - next === 2
      // The fifth is the last resort, but where it is what makes the chord.
      const plain = voicing.strings.some(({ degree }) => degree === '5')
      if (whole && inside.includes('third') && inside.includes('seventh')) return plain ? 1 : 0
      if (!plain && usual && classesAbove(voicing).has('third') && classesAbove(voicing).has('seventh'))
        return 0
      return whole ? 1 : 2
    },
  },
  'drop 2': {
    says: 'Four voices, close but for the second from the top, an octave lower; over its own bass drop 3 beside it.',
    stopped: true,
    notes: [4, 4],
    families: ['drop 2', 'drop 3'],
    near: layout('drop 2'),
  },
  'drop 3': {
    says: 'Four voices, close but for the third from the top, an octave lower: a bass with three above it.',
    stopped: true,
    notes: [4, 4],
    families: ['drop 2', 'drop 3'],
    near: layout('drop 3'),
  },
  rootless: {
    says: 'Four voices without the root: a 9 in its place, a 13 for the 5, where the chord can take them.',
    stopped: true,
    notes: [3, 4],
    rootless: true,
    coloured: true,
    near: (voicing) => {
      if (voicing.midis.length === 4 && distinct(voicing) === 4) return 0
      if (distinct(voicing) >= 3 && distinct(voicing) === voicing.midis.length) return 1
      return 2
    },
  },
  'upper structures': {
    says: 'A triad that is not the chord’s own, over its bass or over somebody else’s: it sounds the upper tones.',
    stopped: true,
    ownForms: true,
    notes: [3, 4],
    noBass: true,
    families: ['triad', 'triad over bass'],
    prices: (weights) => ({ ...weights, plain: UPPER_TONES }),
    coloured: true,
    omit: ['1', '3', 'b3', '5', 'b5', '7', 'b7', '6', '9', '11', '13'],
    near: (voicing, _chord, limits) => {
      if (isUpperTriad(voicing, limits)) return 0
      if (voicing.families.includes('triad') || voicing.families.includes('triad over bass')) return 1
      return 2
    },
  },
  fourths: {
    ...FOURTHS,
    noBass: true,
    omit: ['1', ...FOURTHS.omit],
    withBass: FOURTHS,
  },
  triads: {
    says: 'Three voices on three neighbouring strings; barre chords where the guitar has the bass.',
    withBass: BARRES,
    stopped: true,
    notes: [3, 3],
    noBass: true,
    families: ['triad'],
    omit: ['1', '5', '9', '11', '13'],
    near: (voicing) => {
      if (voicing.families.includes('triad') && neighbours(voicing)) return 0
      if (neighbours(voicing) && distinct(voicing) === 3) return 1
      return 2
    },
  },
  'two voices': {
    ...TWO_VOICES,
    noBass: true,
    omit: ['1', ...TWO_VOICES.omit],
    near: (voicing) => {
      const classes = classesOf(voicing)
      if (classes.size < 2 || !classes.has('third')) return 2
      if (classes.has('seventh')) return 0
      if (classes.has('root')) return 1
      return 2
    },
    withBass: {
      ...TWO_VOICES,
      near: (voicing, _chord, limits) => {
        if (!lowBass(voicing, limits)) return 3
        const above = classesAbove(voicing)
        if (above.has('third')) return voicing.families.includes('tenth') ? 0 : 2
        return above.has('seventh') ? 1 : 2
      },
    },
  },
}

/** A texture as it is where the guitar has the bass, or has not. */
export function textureOf(name: TextureName, limits: Pick<Limits, 'bass'>): Omit<Texture, 'withBass'> {
  const texture = TEXTURES[name]
  return guitarHasBass(limits) && texture.withBass ? texture.withBass : texture
}

/**
 * The limits under which the grips of a texture are looked for: its own notes, within those the
 * player set; its bass.
 */
export function textureLimits(name: TextureName, limits: Limits): Limits {
  const { notes, omit = [], rootless, noBass, families = null } = textureOf(name, limits)
  if (name === 'as it comes') return limits
  const usual = [DEFAULT_LIMITS.notes, TUNE_LIMITS.notes].some((one) => one.join() === limits.notes.join())
  const within = usual
    ? notes
    : ([Math.max(notes[0], limits.notes[0]), Math.min(notes[1], limits.notes[1])] as const)
  // Where a texture has no bass of its own, the root in it is only asked for by the player.
  const bass = noBass && limits.bass !== 'root' && limits.bass !== 'none' ? 'any' : limits.bass
  return {
    ...limits,
    notes: within,
    families: limits.families ?? families,
    omit: [...limits.omit, ...omit],
    bass: rootless ? 'none' : bass,
  }
}

/** How near a grip is to a texture: 0 belongs; null where it does not count at all. */
export function nearnessOf(
  name: TextureName,
  grip: SoundingGrip,
  chord: ChordSymbol,
  limits: Limits,
): number | null {
  const { near, stopped } = textureOf(name, limits)
  const kind = near(grip, chord, limits)
  return kind !== null && stopped && grip.frets.includes(0) ? Math.max(kind, 1) : kind
}

/**
 * What kind of grip this is, as far as a change of kind is heard: by the voices and how they lie.
 */
export function kindOfGrip({ midis, families }: Pick<Voicing, 'midis' | 'families'>): string {
  if (midis.length <= 2) return 'two voices'
  if (midis.length >= 5) return 'full'
  if (midis.length === 4) return 'four voices'
  if (families.includes('shell')) return 'shell'
  if (families.includes('triad')) return 'triad'
  if (families.includes('quartal')) return 'fourths'
  return 'three voices'
}
