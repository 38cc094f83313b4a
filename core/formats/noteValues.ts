/** Parts of a quarter note: divides by eighths, sixteenths and triplets. */
export const DIVISIONS = 12

/** Note values by their length in divisions, longest first. */
// prettier-ignore
const VALUES: readonly { length: number; type: string; dots: number }[] = [
  { length: 48, type: 'whole', dots: 0 }, { length: 36, type: 'half', dots: 1 }, { length: 24, type: 'half', dots: 0 },
  { length: 18, type: 'quarter', dots: 1 }, { length: 12, type: 'quarter', dots: 0 }, { length: 9, type: 'eighth', dots: 1 },
  { length: 6, type: 'eighth', dots: 0 }, { length: 3, type: '16th', dots: 0 },
]

/** A note's length as it is written; no type where none is short enough. */
export interface NoteValue {
  length: number
  type: string | null
  dots: number
  triplet: boolean
}

/** A length as note values to be tied: as few as possible; a third of a longer value becomes a triplet. */
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
