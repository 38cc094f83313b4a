import { useEffect, useMemo, useState } from 'react'
import { itemKey, type Grade } from '../../../core/practice/grade'
import type { Voicing } from '../../../core/voicing/voicing'
import { usePlayerSettings } from '../../services/player/PlayerContext'
import type { usePracticeLog } from '../../services/practice/usePracticeLog'
import { SOUND } from '../../services/sound/soundStore'
import type { Schedule } from '../../services/sound/schedule'
import type { PracticeMode } from './PracticeBar'
import type { Staged } from './stagedGrips'
import { useRound } from './useRound'
import { useVisit } from './useVisit'
import type { useWalk } from './useWalk'
import { useOnChange } from '../../services/words/stable'

/**
 * Grips come back by themselves so long after they were hidden, in ms, for a hand that waits in
 * vain.
 */
const SHOWN_AFTER_MS = 30_000

interface PassesAsked {
  stage: Staged | null
  mode: PracticeMode
  /** Beats a minute, where no goal was set. */
  usualGoal: number
  log: ReturnType<typeof usePracticeLog>
  walk: ReturnType<typeof useWalk>
  /** It is played without its grips in sight. */
  memory: boolean
  /** What sounds with a pass at a tempo. */
  schedule: (staged: Staged, tempo: number) => Schedule
  onBegin: () => void
  /** It was clean, in one key of the way through the keys. */
  onCleanKey: () => void
}

/**
 * The passes of what is on the stage: begun, ended and graded; each is written into the log and
 * moves the ladder.
 */
export function usePasses({
  stage,
  mode,
  usualGoal,
  log,
  walk,
  memory,
  schedule,
  onBegin,
  onCleanKey,
}: PassesAsked) {
  const {
    settings: { hand },
  } = usePlayerSettings()
  const [shownAgain, setShownAgain] = useState(false)
  const [hurt, setHurt] = useState<Staged | null>(null)
  const goal = (stage && log.goals.get(itemKey(stage))?.tempo) ?? usualGoal
  const held = useMemo(
    () => (stage?.chords ?? []).flatMap(({ voicing }): Voicing[] => (voicing ? [voicing] : [])),
    [stage],
  )
  const visit = useVisit(stage, goal, log.records, held, hand.reachMm)
  const { tempo } = visit.rung
  const hasTime = mode !== 'walk' && stage?.kind !== 'grip'

  const record = (of: Staged, grade: Grade, seconds: number, more: { note?: string; hurt?: boolean } = {}) =>
    log.grade({
      kind: of.kind,
      item: of.item,
      grade,
      seconds,
      fromBar: of.from,
      toBar: of.to,
      key: of.key,
      ...(hasTime ? { tempo, goal } : {}),
      ...more,
    })
  const graded = (grade: Grade, seconds: number) => {
    if (!stage) return
    record(stage, grade, seconds, mode === 'loop' ? { note: 'looped with the band' } : {})
    visit.add(grade, seconds)
    if (mode === 'walk') walk.again()
    if (mode === 'keys' && grade === 'clean') onCleanKey()
    // A slip shows what was forgotten.
    setShownAgain(grade !== 'clean')
  }
  const round = useRound({
    schedule: () => stage && schedule(stage, tempo),
    tempo,
    loop: mode === 'loop',
    onGrade: graded,
  })
  const press = () => {
    onBegin()
    visit.begin()
    if (round.round.at !== 'ready') return round.press()
    // What was shown is hidden again for the next pass from memory.
    setShownAgain(false)
    if (mode !== 'walk') return round.press()
    if (walk.last) round.ask()
    else walk.next()
  }
  const hurts = () => {
    if (!stage) return
    round.leave()
    SOUND.stop()
    setHurt(stage)
    record(stage, 'failed', 0, { hurt: true, note: 'it hurt' })
  }

  useOnChange(stage?.item, () => setShownAgain(false))
  useOnChange(mode, () => setShownAgain(false))
  const hidden = memory && !shownAgain
  useEffect(() => {
    if (!hidden || round.round.at !== 'playing') return
    const late = setTimeout(() => setShownAgain(true), SHOWN_AFTER_MS)
    return () => clearTimeout(late)
  }, [hidden, round.round.at])

  return {
    round,
    visit,
    goal,
    hasTime,
    press,
    /** What hurt, until something else is chosen. */
    hurt,
    hurts,
    unhurt: () => setHurt(null),
    hidden,
    /** The grips of what is played from memory are shown, or hidden again. */
    peek: () => setShownAgain(!shownAgain),
  }
}
