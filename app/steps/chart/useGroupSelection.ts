import { useRef } from 'react'
import type { Group } from '../../../core/analysis/chordReading'
import { sameBeat } from '../../../core/chart/beats'
import type { TuneChord } from '../../../core/tune/tuneReading'
import { isPartOf } from '../../services/notation/Brackets'
import { useSelection } from '../../services/selection/SelectionContext'
import { useStableCallback } from '../../services/words/stable'

/** Groups (ii-V, turnaround, …) selected whole: by a touch on one, or in turn around a chord. */
export function useGroupSelection(chords: readonly TuneChord[], groups: readonly Group[]) {
  const { selectRange } = useSelection()
  const last = useRef<Group | null>(null)
  const select = (group: Group, within?: number) => {
    const indexOf = ({ bar, beat }: Group['from']) =>
      Math.max(
        0,
        chords.findIndex((chord) => chord.slot.bar === bar && sameBeat(chord.slot.beat, beat)),
      )
    const [from, to] = [indexOf(group.from), indexOf(group.to)]
    // The chord the drawer speaks of stays at the end it is nearer to, so that the key can be
    // pressed again.
    if (within !== undefined && to - within < within - from) selectRange(from, to)
    else selectRange(to, from)
  }
  return {
    onGroup: useStableCallback((group: Group) => select(group)),
    /** The groups around a chord in turn, the smallest first: each press selects the next one. */
    selectNext: (chord: TuneChord) => {
      const chordsIn = (group: Group) => chords.filter((one) => isPartOf(one, group)).length
      const around = groups
        .filter((group) => isPartOf(chord, group))
        .sort((a, b) => chordsIn(a) - chordsIn(b))
      const now = around.findIndex((group) => group === last.current)
      const next = around[(now + 1) % Math.max(1, around.length)]
      last.current = next ?? null
      if (next) select(next, chord.index)
    },
  }
}
