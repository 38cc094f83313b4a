/**
 * Manners of re-harmonising that players lean to. The division is ours (common practice, no
 * source); every rule names its own.
 */
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
