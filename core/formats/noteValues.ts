/** Parts of a quarter note: divides down to sixty-fourths, and to triplets of sixteenths. */
export const DIVISIONS = 48

/** Note values by their length in divisions, longest first. */
const VALUES: readonly { length: number; type: string; dots: number }[] = [
  ['whole', 4],
  ['half', 2],
  ['quarter', 1],
  ['eighth', 1 / 2],
  ['16th', 1 / 4],
  ['32nd', 1 / 8],
  ['64th', 1 / 16],
]
  .flatMap(([type, quarters]) =>
    [1, 0].map((dots) => ({
      type: String(type),
      dots,
      length: Number(quarters) * DIVISIONS * (dots === 1 ? 1.5 : 1),
    })),
  )
  // A dotted whole note lasts longer than the bars of most tunes, and a dotted sixty-fourth is no
  // whole number of parts.
  .filter(({ type, dots, length }) => Number.isInteger(length) && !(type === 'whole' && dots === 1))

/** A note's length as it is written; no type where none is short enough. */
export interface NoteValue {
  length: number
  type: string | null
  dots: number
  triplet: boolean
}

/**
 * A length as note values to be tied: as few as possible; a third of a longer value becomes a
 * triplet.
 */
export function noteValues(length: number): NoteValue[] {
  const triplet = VALUES.find((value) => value.dots === 0 && value.length * 2 === length * 3)
  if (triplet && !VALUES.some((value) => value.length === length))
    return [{ ...triplet, length, triplet: true }]
  const values: NoteValue[] = []
  let left = length
  for (const value of VALUES)
    while (value.length <= left) {
      values.push({ ...value, triplet: false })
      left -= value.length
    }
  if (left > 0) values.push({ length: left, type: null, dots: 0, triplet: false })
  return values
}
