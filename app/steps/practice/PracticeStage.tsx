import { firstOf } from '../../../core/lists'
import Button from '@mui/material/Button'
import { Link } from 'react-router'
import { itemKey } from '../../../core/practice/grade'
import { useGrips } from '../../services/grips/GripsContext'
import type { usePracticeLog } from '../../services/practice/usePracticeLog'
import { useKnownTune } from '../../services/tune/TuneContext'
import { GoalField } from './GoalField'
import type { PracticeMode } from './PracticeBar'
import { Stage } from './Stage'
import type { Staged } from './stagedGrips'
import type { usePasses } from './usePasses'

interface Props {
  stage: Staged
  mode: PracticeMode
  passes: ReturnType<typeof usePasses>
  log: ReturnType<typeof usePracticeLog>
  says: string
  now: Staged['chords'][number] | null
  next: Staged['chords'][number] | null
  /** What the one key says on a walk; null elsewhere. */
  walk: string | null
}

/**
 * What is practised now, large, with what stands around a pass of it: a rest that is due, what went
 * wrong, the goal.
 */
export function PracticeStage({ stage, mode, passes, log, says, now, next, walk }: Props) {
  const { capo } = useKnownTune().reading.chart
  const { round, visit, goal, hasTime, hidden } = passes
  return (
    <Stage
      shown={{
        title: mode === 'keys' ? `${passageName(stage)} in ${stage.key}` : titleOf(stage),
        says,
        now,
        next,
        hidden,
        tempo: hasTime ? { now: visit.rung.tempo, goal } : null,
        marks: visit.marks,
        round: round.round,
        capo,
      }}
      walk={walk}
      onPress={passes.press}
      onGrade={round.grade}
      onHurt={passes.hurts}
    >
      {visit.rest && (
        <p className="rest-due" role="status">
          {Math.round(visit.played)} minutes without a rest: put the hands down for one.{' '}
          <Button size="small" onClick={visit.rested}>
            Rested
          </Button>
        </p>
      )}
      {log.trouble && (
        <p className="notice" role="alert">
          {log.trouble}
        </p>
      )}
      {hasTime && <GoalField goal={goal} onGoal={(tempo) => log.setGoal(goalOf(stage, tempo, log.goals))} />}
    </Stage>
  )
}

/** Where there is nothing to practise yet. */
export function NothingStaged() {
  const { id, reading } = useKnownTune()
  const { search } = useGrips()
  return (
    reading.line.length > 0 && (
      <p className="empty">
        What can be practised comes from the grips of your line.{' '}
        {search.state.kind === 'fault' ? search.state.message : 'They are being looked for.'}{' '}
        <Link to={`/tunes/${id}/lines`}>To the Lines step</Link>
      </p>
    )
  )
}

const titleOf = ({ item }: Staged): string => firstOf(item).toUpperCase() + item.slice(1)
const passageName = ({ from, to }: Staged): string => (from === to ? `Bar ${from}` : `Bars ${from} to ${to}`)

const goalOf = ({ kind, item }: Staged, tempo: number, goals: ReadonlyMap<string, { wanted: boolean }>) => ({
  kind,
  item,
  tempo,
  wanted: goals.get(itemKey({ kind, item }))?.wanted ?? false,
})
