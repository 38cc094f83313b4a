/** Chords the player has selected, as indexes into the tune; `focus` is the one the drawer speaks of. */
export interface Selection {
  anchor: number
  focus: number
}

export const rangeOf = ({ anchor, focus }: Selection): readonly [number, number] =>
  anchor <= focus ? [anchor, focus] : [focus, anchor]

export const isWithin = (selection: Selection, index: number): boolean => {
  const [from, to] = rangeOf(selection)
  return index >= from && index <= to
}

/** The focus moved by some chords, taking the anchor along unless the selection is being stretched. */
export function moved(selection: Selection, by: number, stretch: boolean, chords: number): Selection {
  const focus = Math.max(0, Math.min(chords - 1, selection.focus + by))
  return { focus, anchor: stretch ? selection.anchor : focus }
}
