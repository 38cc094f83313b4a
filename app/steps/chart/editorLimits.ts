/**
 * Letters of a chart that can be typed or pasted; a longer one that is there already can still be
 * made shorter.
 */
export const MOST_TYPED = 40_000
