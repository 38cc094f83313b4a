import type { BassRule, Limits } from '../voicing/gripLimits'
import type { TextureName } from './textureNames'

/**
 * Every term of the cost of a line: what it measures and the unit it is measured in. A line's cost
 * is the sum of measure times weight over its grips and the steps between them.
 */
// prettier-ignore
export const COST_TERMS = {
  motion: 'semitones moved by all voices together (common practice: least motion)',
  upper: 'semitones moved by the voices above the bass',
  low: 'semitones by which the bass lies above E3 or below E2, and strings by which it lies above the fifth',
  room: 'semitones by which the lowest note lies below D3, where a bass player is',
  bass: 'semitones by which the bass moves further than a whole step',
  walk: 'steps written in the bass that are not played by step',
  top: 'semitones by which the top voice moves further than a whole step',
  outer: 'steps in which bass and top move the same way',
  parallels: 'parallel fifths and octaves between voices',
  tendency: 'tendencies not kept: sevenths that do not fall, leading notes that do not rise, b9, b13 and sus 4 that do not come down',
  tame: 'sevenths and other tendencies that come down where the voice could rise to a tension of the next chord',
  texture: 'changes of the kind of grip, such as shell to four voices',
  family: 'changes of layout between grips, such as drop 2 to drop 3',
  voices: 'voices that enter or drop out between grips',
  held: 'sounds two grips share at which no voice stays',
  leaps: 'semitones by which an inner voice moves further than a major third',
  contour: 'semitones by which the top note lies off the wanted contour',
  hand: 'millimetres the hand travels along the neck',
  late: 'tenths of a second by which the hand comes late at the tempo of the tune',
  fingers: 'fingers set down anew (half for one that slides on its string)',
  grip: 'difficulty of the grips',
  idiom: 'how far the grips are from those players write down',
  tripled: 'tones that sound three times in a grip of fewer than six notes',
  plain: 'chords that sound no tension',
  mud: 'intervals under a fourth with a note below C3',
  sour: 'minor ninths between voices, other than root to b9',
  fullness: 'tensions the symbol names or implies that do not sound, and doubled thirds and sevenths',
  open: 'frets between the hand and the open strings that ring, beyond open position',
  register: 'semitones by which the top note lies below G3 or above D5',
} as const

export type Term = keyof typeof COST_TERMS
export type Weights = Readonly<Record<Term, number>>
export const TERM_NAMES = Object.keys(COST_TERMS) as Term[]

/**
 * One semitone of an upper voice is the unit; every other size is said against it. Sizes are common
 * practice, no source, put right by \`npm run fit\` where pairs of passages, one preferred, say
 * otherwise.
 */
const SMOOTH: Weights = {
  motion: 0, // the bass follows roots: only the voices above it are priced by motion (with a bass player, all are)
  upper: 1, // the unit
  low: 1.2, // a bass a third above its register costs four semitones in a voice
  room: 0, // only with a bass player
  bass: 0, // leaps of a root are free
  walk: 5, // a written step is a line: an octave break is heard more than a change of texture
  top: 0.4, // the top is heard as a melody: a leap there is half as bad again
  outer: 0.1, // decides between equals
  parallels: 0.1, // a school may not care: decides between equals
  tendency: 1.3, // more than a semitone: broken only when something is gained
  tame: 0, // only the tension style minds a voice that does what is expected
  texture: 4, // a change of texture is a decision, not an accident
  family: 0.3, // grips of one layout sound of a piece
  voices: 1, // a voice that appears from nowhere is heard
  held: 0.3, // a common tone that jumps to another octave is no longer heard as held: decides between equals
  leaps: 0.3, // an inner voice that leaps is heard as one that left and another that came
  contour: 0, // only where a contour is wanted
  hand: 0.04, // a fret near the fifth (25 mm) is a semitone
  late: 2.5, // a chord a tenth of a second late is heard by everybody
  fingers: 0.15, // seven fingers anew are a semitone
  grip: 0.4, // an easy grip against a full barre (2 to 5) is worth a semitone
  idiom: 0.7, // a grip nobody writes down costs three or four semitones
  tripled: 4, // three of one tone are never first
  plain: 0, // only where tensions are wanted
  mud: 2.3, // clearly heard
  sour: 2.5, // avoided unless nothing else is near
  fullness: 1.2, // one missing colour is worth a semitone
  open: 2.5, // an open string two frets from the hand costs as much as a change of texture, at the seventh fret it is out of the question
  register: 0.2, // an octave off is about two semitones
}

export interface Style {
  weights: Weights
  says: string
  /** What the grips of the style keep to beyond the player's own limits. */
  within?: (limits: Limits) => Limits
  /** The kind of grip it is, where none is asked for. */
  texture?: (limits: Limits) => TextureName
  /** It lives on tensions: chords take the free ones of their role. */
  coloured?: boolean
  /** Any tone may be lowest, with the root somewhere in the grip. */
  inversions?: boolean
}

/** Named weightings. Each differs from `smooth` only where its sentence says so. */
const TABLE = {
  smooth: { weights: SMOOTH, says: 'Least motion in every voice, little travel of the hand.' },
  contrary: {
    weights: { ...SMOOTH, outer: 4, upper: 0.8 },
    says: 'Bass and top move against each other wherever they can.',
    texture: () => 'as it comes',
  },
  tension: {
    weights: { ...SMOOTH, tendency: 0, tame: 3, fullness: 2, plain: 3 },
    says: 'Sevenths go up into ninths, sharp elevenths and their like, and come home later.',
    coloured: true,
    texture: ({ bass }) => (bass === 'any' || bass === 'none' ? 'rootless' : 'shells and colour'),
  },
  bass: {
    weights: { ...SMOOTH, bass: 1.5 },
    says: 'The bass goes by step, with inversions.',
    inversions: true,
    texture: () => 'as it comes',
  },
  top: {
    weights: { ...SMOOTH, top: 2, upper: 0.8, contour: 1.5 },
    says: 'The highest voice makes a stepwise melody, or follows a contour.',
    texture: ({ bass }) => (bass === 'any' || bass === 'none' ? 'drop 2' : 'as it comes'),
  },
  position: {
    weights: { ...SMOOTH, hand: 0.12 },
    says: 'The hand stays within five frets for the whole tune, or within the frets that are set.',
  },
  drone: {
    weights: { ...SMOOTH, open: 0 },
    says: 'One open string, or one held note, sounds through every chord.',
  },
  thin: {
    weights: { ...SMOOTH, fullness: 0, voices: 1.5, idiom: 0.1, low: 0, texture: 0.5 },
    says: 'Two and three notes: guide tones, shells, tenths.',
    within: (limits) => ({
      ...limits,
      notes: [2, 3],
      omit: [...limits.omit, '1', '5', '9', '11', '13'],
      bass: limits.bass === 'chord' ? 'any' : limits.bass,
    }),
    texture: ({ bass }) => (bass === 'root' ? 'shells' : 'two voices'),
  },
  rootless: {
    weights: SMOOTH,
    says: 'The root is left to the bass player: a 9 stands for it, a 13 for the 5.',
    within: (limits) => ({ ...limits, bass: 'none', notes: [Math.min(3, limits.notes[0]), limits.notes[1]] }),
    texture: () => 'rootless',
    coloured: true,
  },
} satisfies Record<string, Style>

export type StyleName = keyof typeof TABLE
export const STYLES: Readonly<Record<StyleName, Style>> = TABLE
export const STYLE_NAMES = Object.keys(STYLES) as StyleName[]

/**
 * The weights of a style with the player's own over them. Naming any term with a weight above 0
 * replaces the whole table (terms not named are 0); naming only zeros takes those terms out of the
 * style.
 * @param bass with a bass player the lowest voice is one of the voices: all are priced by motion,
 *   and where the bass lies is free
 */
export function weightsFrom(style: StyleName, own: Partial<Weights> = {}, bass: BassRule = 'chord'): Weights {
  const named: Weights = STYLES[style].weights
  const base = bass === 'any' || bass === 'none' ? withBassPlayer(named) : named
  return Object.fromEntries(
    TERM_NAMES.map((term) => [term, own[term] ?? (replacesTable(own) ? 0 : base[term])]),
  ) as unknown as Weights
}

/** The lowest voice is one of the voices, and leaves the low register to somebody else. */
export const withBassPlayer = (weights: Weights): Weights => ({
  ...weights,
  motion: weights.motion + weights.upper,
  upper: 0,
  low: 0,
  walk: 0,
  room: Math.max(weights.room, weights.low),
})

/** Whether weights of one's own stand in place of those of a style. */
export const replacesTable = (own: Partial<Weights>): boolean =>
  Object.values(own).some((weight) => weight > 0)

/**
 * Styles mixed: the mean of their weights, each counted by its share. Shares are 0 or more, one of
 * them above 0.
 */
export function mixedWeights(shares: Partial<Record<StyleName, number>>): Weights {
  const total = STYLE_NAMES.reduce((sum, name) => sum + (shares[name] ?? 0), 0)
  return Object.fromEntries(
    TERM_NAMES.map((term) => [
      term,
      STYLE_NAMES.reduce((sum, name) => sum + (shares[name] ?? 0) * STYLES[name].weights[term], 0) / total,
    ]),
  ) as unknown as Weights
}
