/**
 * Beats that differ by less than this are one: sums of thirds and sixths of a beat are not exact.
 * In beats.
 */
export const NEAR = 1e-6
/**
 * Beats that were written with three decimals (in a stored place, a request, a drawing) are one
 * when they differ by less than this. In beats.
 */
export const NEAR_WRITTEN = 1e-3

export const sameBeat = (a: number, b: number): boolean => Math.abs(a - b) < NEAR

/** Parts of a beat by their names, in twelfths of it. Common practice, no source. */
const PARTS_OF_BEAT: Readonly<Record<number, string>> = {
  2: 'second sextuplet',
  3: 'second sixteenth',
  4: 'second triplet',
  6: '“and”',
  8: 'last triplet',
  9: 'last sixteenth',
  10: 'last sextuplet',
}
const TWELFTHS = 12
/**
 * A beat as players say it: `beat 3`, `the “and” of 3`, `the last triplet of 3`; with two decimals
 * where it has no such name.
 */
export function beatInWords(beat: number): string {
  const whole = Math.floor(beat + 0.02)
  const part = (beat - whole) * TWELFTHS
  const near = Math.round(part)
  if (Math.abs(part - near) > 0.06) return `beat ${Math.round(beat * 100) / 100}`
  if (near === 0) return `beat ${whole}`
  const name = PARTS_OF_BEAT[near]
  return name ? `the ${name} of ${whole}` : `beat ${Math.round(beat * 100) / 100}`
}

/** The whole beat that a place lies on. */
export const wholeBeat = (beat: number): number => Math.floor(beat + NEAR)
