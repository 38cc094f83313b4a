/**
 * Families of the ways to change a progression, in the order of the theory: a colour, b swap, c
 * insert, d borrow, e texture, f simplify; p is what the table of places asks for. A family of one
 * rule has that rule's name; one of several has its own, under which books of before keep a change
 * of it.
 */
// prettier-ignore
export const FAMILIES = {
  a1: 'major-colour', a2: 'minor-colour', a3: 'dominant-colour', a4: 'altered-dominant', a5: 'resting-dominant', a6: 'diminished-colour', a7: 'dominant-of-minor',
  b1: 'substitute-dominant', b2: 'shared-tones', b3: 'diminished-dominant', b4: 'augmented-dominant', b5: 'minor-subdominant', b6: 'suspended-dominant',
  b7: 'ii-and-v', b8: 'arrival-on-iii', b9: 'cycle-of-major-thirds',
  c1: 'related-ii', c2: 'dominant-on-the-way', c3: 'half-step-approach', c4: 'passing-diminished', c5: 'rising-bass', c6: 'turnaround', c7: 'tonic-diminished',
  d1: 'quality-flip', d2: 'parallel-minor', d3: 'side-step',
  e1: 'inversion', e2: 'pedal', e4: 'line-cliche', e5: 'planing', e6: 'sixth-diminished', e7: 'standing-minor',
  f1: 'without-ii', f2: 'reduced-to-seventh', f3: 'reduced-to-triad',
  p1: 'usual-here',
} as const
export type RuleFamily = keyof typeof FAMILIES
export const FAMILY_CODES = Object.keys(FAMILIES) as RuleFamily[]

/**
 * Rules put on one another, such as `tritone-substitution+related-ii`: the first was applied to the
 * chart.
 */
export const rulesIn = (rule: string): string[] => rule.split('+')

/**
 * A rule as a choice names it, in a book or an edit of any version: rules were once known by the
 * number of their family (`b2`, `b1+c1`).
 */
export const ruleNow = (rule: string): string =>
  rulesIn(rule)
    .map((one) => (Object.hasOwn(FAMILIES, one) ? FAMILIES[one as RuleFamily] : one))
    .join('+')
