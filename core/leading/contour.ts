/** Shapes of the top voice over a whole line (common practice, no source). */
export const CONTOURS = ['rises', 'falls', 'arch', 'valley'] as const
export type Contour = (typeof CONTOURS)[number]

/**
 * The top notes between which a contour moves: C4 and E5, where grips of the first twelve frets
 * have theirs.
 */
const LOW = 60
const HIGH = 76

const SHAPES: Readonly<Record<Contour, (share: number) => number>> = {
  rises: (share) => share,
  falls: (share) => 1 - share,
  arch: (share) => 1 - Math.abs(2 * share - 1),
  valley: (share) => Math.abs(2 * share - 1),
}

/**
 * The top note a contour wants at each of some chords, as MIDI numbers; between two semitones where
 * it lies there.
 */
export const contourTops = (contour: Contour, chords: number): number[] =>
  Array.from(
    { length: chords },
    (_, at) => LOW + (HIGH - LOW) * SHAPES[contour](chords < 2 ? 0 : at / (chords - 1)),
  )
