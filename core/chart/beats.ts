/** Beats that differ by less than this are one: sums of thirds and sixths of a beat are not exact. In beats. */
export const NEAR = 1e-6
/** Beats that were written with three decimals (in a stored place, a request, a drawing) are one when they differ by less than this. In beats. */
export const NEAR_WRITTEN = 1e-3

export const sameBeat = (a: number, b: number): boolean => Math.abs(a - b) < NEAR

/** The whole beat that a place lies on. */
export const wholeBeat = (beat: number): number => Math.floor(beat + NEAR)
