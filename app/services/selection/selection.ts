/**
 * Chords the player has selected, as indexes into the tune; `focus` is the one the drawer speaks
 * of.
 */
export interface ChordSelection {
  anchor: number
  focus: number
}

export const rangeOf = ({ anchor, focus }: ChordSelection): readonly [number, number] =>
  anchor <= focus ? [anchor, focus] : [focus, anchor]

export const isWithin = (selection: ChordSelection, index: number): boolean => {
  const [from, to] = rangeOf(selection)
  return index >= from && index <= to
}

/**
 * The focus moved by some chords, taking the anchor along unless the selection is being stretched.
 */
export function moveFocus(
  selection: ChordSelection,
  by: number,
  stretch: boolean,
  chords: number,
): ChordSelection {
  const inside = (index: number) => Math.max(0, Math.min(chords - 1, index))
  const focus = inside(selection.focus + by)
  return { focus, anchor: stretch ? inside(selection.anchor) : focus }
}

/**
 * The chords of the new line that stand where some chords of the home line do; the focus is the
 * first of the focused chord.
 */
export function inLine(selection: ChordSelection, line: readonly { home: number }[]): ChordSelection {
  const [from, to] = rangeOf(selection)
  const first = (home: number) => {
    const at = line.findIndex((one) => one.home === home)
    return at >= 0
      ? at
      : Math.max(
          0,
          line.findLastIndex((one) => one.home < home),
        )
  }
  const last = (home: number) =>
    Math.max(
      first(home),
      line.findLastIndex((one) => one.home <= home),
    )
  const focus = first(selection.focus)
  if (from === to) return { anchor: focus, focus }
  return selection.focus === to
    ? { anchor: first(from), focus: last(to) }
    : { anchor: last(to), focus: first(from) }
}

/** The chords of the home line under some chords of the new one. */
export const inHome = (
  { anchor, focus }: ChordSelection,
  line: readonly { home: number }[],
): ChordSelection => ({
  anchor: line[anchor]?.home ?? 0,
  focus: line[focus]?.home ?? 0,
})
