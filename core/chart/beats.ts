/** Beats that differ by less than this are one: sums of thirds and sixths of a beat are not exact. In beats. */
export const NEAR = 1e-6

export const sameBeat = (a: number, b: number): boolean => Math.abs(a - b) < NEAR

/** The whole beat that a place lies on. */
export const wholeBeat = (beat: number): number => Math.floor(beat + NEAR)
