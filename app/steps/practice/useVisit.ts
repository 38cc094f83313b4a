import { useState } from 'react'
import { itemKey, type Grade } from '../../../core/practice/grade'
import { nextRung, type Rung } from '../../../core/practice/ladder'
import { tempoFor } from '../../../core/practice/plan'
import { loadOf, restAfter } from '../../../core/practice/rests'
import type { ItemRecord } from '../../../core/practice/record'
import type { Voicing } from '../../../core/voicing/voicing'
import type { Staged } from './stagedGrips'

/**
 * What was played of one thing since the player came in: where its ladder began, and its passes.
 */
interface Climbing {
  start: number
  passes: readonly Grade[]
}

export interface Visit {
  rung: Rung
  marks: readonly Grade[]
  /** Minutes played since the last rest. */
  played: number
  /** A rest is due. */
  rest: boolean
  /** A pass begins: from here its ladder begins where it says now, whatever the log tells later. */
  begin: () => void
  add: (grade: Grade, seconds: number) => void
  /** The ladder begins anew so many beats a minute faster. */
  shift: (by: number) => void
  rested: () => void
}

/** The ladders of this visit, by what is practised, and the minutes since the last rest. */
export function useVisit(
  staged: Staged | null,
  goal: number,
  records: ReadonlyMap<string, ItemRecord> | null,
  voicings: readonly Voicing[],
  reachMm: number,
): Visit {
  const [climbs, setClimbs] = useState<ReadonlyMap<string, Climbing>>(new Map())
  const [seconds, setSeconds] = useState(0)
  const key = staged ? itemKey(staged) : ''
  // Where a ladder begins stays while it is climbed, though the log learns of each pass.
  const [starts, setStarts] = useState<ReadonlyMap<string, number>>(new Map())
  const known = climbs.get(key)
  if (staged && records && !starts.has(key))
    setStarts(new Map(starts).set(key, tempoFor(staged, goal, records.get(key))))
  // Until the log is read it is as if nothing had been played: never faster than the hand is at
  // ease.
  const start = starts.get(key) ?? (staged ? tempoFor(staged, goal, undefined) : goal)
  const climbing: Climbing = known ?? { start, passes: [] }
  const rung = nextRung({ ...climbing, goal })
  const put = (one: Climbing) => setClimbs(new Map(climbs).set(key, one))
  return {
    rung,
    marks: climbing.passes,
    played: seconds / 60,
    rest: seconds / 60 >= restAfter(loadOf(voicings, reachMm)),
    begin: () => {
      setStarts(new Map(starts).set(key, start))
    },
    add: (grade, lasted) => {
      setSeconds(seconds + lasted)
      put({ ...climbing, passes: [...climbing.passes, grade] })
    },
    shift: (by) => put({ start: Math.max(20, Math.min(goal, rung.tempo + by)), passes: [] }),
    rested: () => setSeconds(0),
  }
}
