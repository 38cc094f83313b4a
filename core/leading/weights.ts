import type { Limits } from '../voicing/limits'

/**
 * Every term of the cost of a line: what it measures and the unit it is measured in. A line's cost is the sum of
 * measure times weight over its grips and the steps between them.
 */
export const TERMS = {
  motion: 'semitones moved by all voices together (theory: least motion)',
  bass: 'semitones by which the bass moves further than a whole step',
  top: 'semitones by which the top voice moves further than a whole step',
  outer: 'steps in which bass and top move the same way',
  parallels: 'parallel fifths and octaves between voices',
  tendency: 'tendencies not kept: sevenths that do not fall, leading notes that do not rise, b9, b13 and sus 4 that do not come down',
  tame: 'sevenths and other tendencies that come down where the voice could rise to a tension of the next chord',
  family: 'changes of layout between grips, such as drop 2 to drop 3',
  voices: 'voices that enter or drop out between grips',
  held: 'sounds two grips share at which no voice stays',
  leaps: 'semitones by which an inner voice moves further than a major third',
  contour: 'semitones by which the top note lies off the wanted contour',
  hand: 'millimetres the hand travels along the neck',
  fingers: 'fingers set down anew (half for one that slides on its string)',
  grip: 'difficulty of the grips',
  mud: 'intervals under a fourth with a note below C3',
  sour: 'minor ninths between voices, other than root to b9',
  fullness: 'tones of the chord that a full grip would have, and doubled tones',
  open: 'open strings that ring beside frets from the sixth up',
  register: 'semitones by which a grip lies above or below the middle of the instrument',
} as const

export type Term = keyof typeof TERMS
export type Weights = Readonly<Record<Term, number>>
export const TERM_NAMES = Object.keys(TERMS) as Term[]

/** Common practice, no source. One semitone of one voice is the unit; every other size is said against it. */
const SMOOTH: Weights = {
  motion: 1, // the unit
  bass: 0.05, // the bass may follow roots: hardly counted again
  top: 0.4, // the top is heard as a melody: a leap there is half as bad again
  outer: 0.3, // a third of a semitone: decides between equals
  parallels: 0.3, // a school may not care: decides between equals
  tendency: 0.8, // nearly a semitone: broken only when something is gained
  tame: 0, // only the tension style minds a voice that does what is expected
  family: 0.1, // decides between equals: grips of one layout sound of a piece
  voices: 0.8, // a voice that appears from nowhere is heard
  held: 0.3, // a common tone that jumps to another octave is no longer heard as held: decides between equals
  leaps: 0.3, // an inner voice that leaps is heard as one that left and another that came
  contour: 0, // only where a contour is wanted
  hand: 0.03, // a fret near the fifth (25 mm) is about as bad as a semitone
  fingers: 0.15, // seven fingers anew are a semitone
  grip: 0.6, // an easy grip against a full barre (2 to 5) is worth two semitones
  mud: 1.5, // clearly heard
  sour: 2.5, // avoided unless nothing else is near
  fullness: 1.2, // one missing colour is worth a semitone
  open: 1.2, // an open string among high frets rings differently: wanted on purpose, not by accident
  register: 0.15, // an octave off the middle is about two semitones
}

export interface Style {
  weights: Weights
  says: string
  /** What the grips of the style keep to beyond the player's own limits. */
  within?: (limits: Limits) => Limits
}

/** Named weightings. Each differs from `smooth` only where its sentence says so. */
export const STYLES = {
  smooth: { weights: SMOOTH, says: 'Least motion in every voice, little travel of the hand.' },
  contrary: { weights: { ...SMOOTH, outer: 4, motion: 0.8 }, says: 'Bass and top move against each other wherever they can.' },
  tension: { weights: { ...SMOOTH, tendency: 0, tame: 3, fullness: 2 }, says: 'Sevenths go up into ninths, sharp elevenths and their like, and come home later.' },
  bass: { weights: { ...SMOOTH, bass: 1.2 }, says: 'The bass goes by step, with inversions where the bass rule allows them.' },
  top: { weights: { ...SMOOTH, top: 2, motion: 0.8, contour: 1.5 }, says: 'The highest voice makes a stepwise melody, or follows a contour.' },
  position: { weights: { ...SMOOTH, hand: 0.12 }, says: 'The hand stays within five frets for the whole tune, or within the frets that are set.' },
  drone: { weights: { ...SMOOTH, open: 0 }, says: 'One open string, or one held note, sounds through every chord.' },
  thin: {
    weights: { ...SMOOTH, fullness: 0, voices: 1.5 }, says: 'Two and three notes: guide tones, shells, tenths.',
    within: (limits) => ({ ...limits, notes: [2, 3], omit: [...limits.omit, '5', '9', '11', '13'] }),
  },
  rootless: { weights: SMOOTH, says: 'The root is left to the bass player.', within: (limits) => ({ ...limits, bass: 'none', notes: [Math.min(3, limits.notes[0]), limits.notes[1]] }) },
} satisfies Record<string, Style>

export type StyleName = keyof typeof STYLES
export const STYLE_NAMES = Object.keys(STYLES) as StyleName[]

/**
 * The weights of a style with the player's own over them. Naming any term with a weight above 0 replaces the whole
 * table (terms not named are 0); naming only zeros takes those terms out of the style.
 */
export function weightsFrom(style: StyleName, own: Partial<Weights> = {}): Weights {
  const replaces = Object.values(own).some((weight) => weight > 0)
  const base = STYLES[style].weights
  return Object.fromEntries(TERM_NAMES.map((term) => [term, own[term] ?? (replaces ? 0 : base[term])])) as unknown as Weights
}

/** Styles mixed: the mean of their weights, each counted by its share. Shares are 0 or more, one of them above 0. */
export function mixedWeights(shares: Partial<Record<StyleName, number>>): Weights {
  const total = STYLE_NAMES.reduce((sum, name) => sum + (shares[name] ?? 0), 0)
  return Object.fromEntries(TERM_NAMES.map((term) => [term, STYLE_NAMES.reduce((sum, name) => sum + (shares[name] ?? 0) * STYLES[name].weights[term], 0) / total])) as unknown as Weights
}
