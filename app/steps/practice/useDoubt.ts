import { keyName } from '../../../core/pitch/key'
import { gripItemName } from '../../../core/practice/items'
import { madeChord } from '../../../core/tune/tuneReading'
import { useGrips } from '../../services/grips/GripsContext'
import type { usePracticeLog } from '../../services/practice/usePracticeLog'
import { useSelection } from '../../services/selection/SelectionContext'
import { useKnownTune } from '../../services/tune/TuneContext'
import type { useWalk } from './useWalk'

/** Doubt at a chord: the change into it becomes an exercise. */
export function useDoubt(walk: ReturnType<typeof useWalk>, log: ReturnType<typeof usePracticeLog>) {
  const { line, analysis } = useKnownTune().reading
  const { voicings } = useGrips()
  const { lineSelection } = useSelection()
  return () => {
    const at = line.findIndex(({ index }) => index === lineSelection.focus)
    const into = line[at]
    const from = line[at - 1]
    const [before, name] = [from, into].map((one) => {
      const voicing = one && voicings.get(one.key)
      const chord = one && madeChord(one)
      return voicing && chord ? gripItemName({ text: chord.canonical }, voicing) : null
    })
    if (!into || !name) return
    walk.doubt(into.key)
    log.grade({
      kind: before ? 'change' : 'grip',
      item: before ? `${before} to ${name}` : name,
      grade: 'failed',
      fromBar: from?.slot.bar ?? into.slot.bar,
      toBar: into.slot.bar,
      key: keyName(analysis.key),
      note: 'doubtful on a rubato walk',
    })
  }
}
