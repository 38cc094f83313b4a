import { createContext, useContext, useMemo, useState, type ReactNode } from 'react'
import { useKnownTune } from '../tune/TuneContext'
import { useStableCallback } from '../words/stable'
import { inHome, inLine, moveFocus, rangeOf, type ChordSelection } from './selection'

/** The chords that are selected: the same place in both lines, kept from step to step. */
export interface KnownSelection {
  /** Of the home line. */
  selection: ChordSelection
  /** Of the new line. */
  lineSelection: ChordSelection
  range: readonly [number, number]
  /** A chord of the home line; `stretch` takes all from the one selected before. */
  select: (index: number, stretch: boolean) => void
  selectRange: (from: number, to: number) => void
  /** A chord of the new line. */
  selectLine: (index: number, stretch: boolean) => void
  /** Chords of the new line, the first of them in focus. */
  selectLineRange: (from: number, to: number) => void
  /** The selection moved by some chords, in the home line or in the new one. */
  move: (bank: Bank, by: number, stretch: boolean) => void
  /**
   * Whether the selection was moved so last: who goes along from chord to chord may go on at once.
   */
  walks: boolean
  /** Only the chord the drawer speaks of. */
  narrow: (bank: Bank) => void
  /** A state of a room that outlives a visit to another step. */
  kept: Map<string, unknown>
}
export type Bank = 'home' | 'line'

const SelectionContext = createContext<KnownSelection | null>(null)

/**
 * @param at the chord selected first, `bar:beat` of the home line; where there is none, the first
 *   of all
 */
export function SelectionProvider({ at, children }: { at: string | null; children: ReactNode }) {
  const {
    reading: { chords, line },
  } = useKnownTune()
  const [picked, setPicked] = useState<ChordSelection>(() => {
    const first = Math.max(
      0,
      chords.findIndex(({ key }) => key === at),
    )
    return { anchor: first, focus: first }
  })
  const selection = useMemo(
    () => moveFocus(picked, 0, true, Math.max(1, chords.length)),
    [picked, chords.length],
  )
  const [pickedLine, setPickedLine] = useState<ChordSelection | null>(null)
  const lineSelection = useMemo(
    () => (pickedLine ? moveFocus(pickedLine, 0, true, Math.max(1, line.length)) : inLine(selection, line)),
    [pickedLine, selection, line],
  )
  const [kept] = useState(() => new Map<string, unknown>())
  const [walks, setWalks] = useState(false)

  const pickHome = useStableCallback((next: ChordSelection) => {
    setWalks(false)
    setPickedLine(null)
    setPicked(next)
  })
  const pickLine = useStableCallback((next: ChordSelection) => {
    setWalks(false)
    setPickedLine(next)
    setPicked(inHome(next, line))
  })
  const select = useStableCallback((index: number, stretch: boolean) =>
    pickHome({ anchor: stretch ? selection.anchor : index, focus: index }),
  )
  const selectRange = useStableCallback((from: number, to: number) => pickHome({ anchor: from, focus: to }))
  const selectLine = useStableCallback((index: number, stretch: boolean) =>
    pickLine({ anchor: stretch ? lineSelection.anchor : index, focus: index }),
  )
  const selectLineRange = useStableCallback((from: number, to: number) =>
    pickLine({ anchor: to, focus: from }),
  )
  const move = useStableCallback((bank: Bank, by: number, stretch: boolean) => {
    if (bank === 'line') pickLine(moveFocus(lineSelection, by, stretch, line.length))
    else pickHome(moveFocus(selection, by, stretch, chords.length))
    setWalks(true)
  })
  const narrow = useStableCallback((bank: Bank) =>
    bank === 'line'
      ? pickLine({ anchor: lineSelection.focus, focus: lineSelection.focus })
      : pickHome({ anchor: selection.focus, focus: selection.focus }),
  )
  const value = useMemo(
    () => ({
      selection,
      lineSelection,
      range: rangeOf(selection),
      select,
      selectRange,
      selectLine,
      selectLineRange,
      move,
      walks,
      narrow,
      kept,
    }),
    [selection, lineSelection, select, selectRange, selectLine, selectLineRange, move, walks, narrow, kept],
  )
  return <SelectionContext.Provider value={value}>{children}</SelectionContext.Provider>
}

export function useSelection(): KnownSelection {
  const known = useContext(SelectionContext)
  if (!known) throw new Error('There is no selection around this part of the page.')
  return known
}

/** A state of a room that is there again when the player comes back to it. */
export function useKeptState<Value>(name: string, initial: Value): [Value, (next: Value) => void] {
  const { kept } = useSelection()
  const [value, setValue] = useState<Value>(() => (kept.has(name) ? (kept.get(name) as Value) : initial))
  const set = useStableCallback((next: Value) => {
    kept.set(name, next)
    setValue(next)
  })
  return [value, set]
}
