/** Manners of re-harmonising that players lean to. The division is ours (common practice, no source); every rule belongs to one. */
// prettier-ignore
export const SCHOOLS = {
  functional: 'Chords by their job: extensions, shared tones, secondary dominants, turnarounds.',
  bebop: 'ii-V everywhere, substitute dominants, diminished chords on the dominant, the sixth-diminished scale.',
  romantic: 'Borrowed from minor, augmented and aching chords, voices that walk inside a chord.',
  modal: 'Suspended and quartal shapes, pedals, planing.',
  cycles: 'Keys a third apart, touched on the way.',
} as const
export type School = keyof typeof SCHOOLS
export const SCHOOL_NAMES = Object.keys(SCHOOLS) as School[]

/** The school of each rule by its number in the catalogue; colours, inversions and reductions belong to all and count as functional. */
// prettier-ignore
const OF_RULE: Readonly<Record<string, School>> = {
  b1: 'bebop', b3: 'bebop', c1: 'bebop', c3: 'bebop', d3: 'bebop', e6: 'bebop',
  b4: 'romantic', b5: 'romantic', c5: 'romantic', c7: 'romantic', d1: 'romantic', d2: 'romantic', e4: 'romantic',
  b6: 'modal', e2: 'modal', e5: 'modal', e7: 'modal',
  b9: 'cycles',
}

/** @param rule as in the catalogue; rules put on one another (`b1+c1`) belong to the school of the first */
export const schoolOf = (rule: string): School => OF_RULE[rule.split('+')[0]!] ?? 'functional'
