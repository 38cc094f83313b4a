import { useMemo } from 'react'
import type { LineChord } from '../../../core/tune/decisions'
import { useGrips } from '../../services/grips/GripsContext'
import { useSelection } from '../../services/selection/SelectionContext'
import { useKnownTune } from '../../services/tune/TuneContext'
import { useStableCallback } from '../../services/words/stable'
import { usePulledActs } from './usePulledActs'
import { usePulling } from './usePulling'

/**
 * The voices between the grips, the note of theirs that is pulled, and what can be decided of it.
 */
export function usePulledThreads(
  focus: LineChord | undefined,
  next: LineChord | undefined,
  onHear: (midis: readonly number[]) => void,
) {
  const { document, reading, body, edit } = useKnownTune()
  const { line, analysis } = reading
  const { voicings } = useGrips()
  const { selectLine } = useSelection()
  const of = { voicings, bass: document.bass, capo: reading.chart.capo, body }
  const pulling = usePulling({ ...of, focus, songKey: analysis.key, onHear })
  const acts = usePulledActs({ ...of, pulling, line, next, onEdit: edit })
  const onTake = useStableCallback((key: string, string: number) => {
    const at = line.findIndex((one) => one.key === key)
    if (at >= 0) selectLine(at, false)
    pulling.take(key, string)
  })
  const onDrag = useStableCallback(pulling.pullTo)
  const takenKey = pulling.taken ? `${pulling.taken.key}/${pulling.taken.string}` : ''
  // oxlint-disable-next-line react/exhaustive-deps -- the note taken is told by its key
  const threads = useMemo(() => ({ taken: pulling.taken, onTake, onDrag }), [takenKey])
  return { pulling, acts, threads }
}
