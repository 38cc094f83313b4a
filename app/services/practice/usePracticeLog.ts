import { useEffect, useMemo, useState } from 'react'
import { daysIn } from '../../../core/practice/days'
import { itemKey } from '../../../core/practice/grade'
import { MOST_SECONDS, type LoggedPass } from '../../../core/practice/passSchema'
import type { ItemRecord } from '../../../core/practice/record'
import type { Goal } from '../../../db/practice'
import { useStableCallback } from '../words/stable'
import { logPass, sendWaiting, tellLog } from './passOutbox'

export const zoneHere = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC'

/** A pass as a player has it; the rest is known. */
export type Graded = Pick<LoggedPass, 'kind' | 'item' | 'grade'> &
  Partial<Omit<LoggedPass, 'id' | 'tuneId' | 'title'>>

export interface PracticeLog {
  /** What the log says of each thing, by `kind item`; null until it is read. */
  records: ReadonlyMap<string, ItemRecord> | null
  goals: ReadonlyMap<string, Goal>
  /** Today, in days since 1970, by this computer's clock; it changes at midnight. */
  today: number
  /** Why what was played last is not in the log yet. */
  trouble: string | null
  grade: (pass: Graded) => void
  setGoal: (goal: Goal) => void
}

/** How often the clock is looked at for a new day, in ms. */
const LOOKED_AT_MS = 30_000

/** What was practised of a tune, told by the log and told to it. */
export function usePracticeLog(tuneId: string, title: string): PracticeLog {
  const [read, setRead] = useState<{ records: ItemRecord[]; goals: Goal[] } | null>(null)
  const [trouble, setTrouble] = useState<string | null>(null)
  const zone = useMemo(zoneHere, [])
  const today = useToday(zone)
  const load = useStableCallback(async () => {
    try {
      const response = await fetch(`/tunes/${tuneId}/practice-log`)
      if (response.ok) setRead((await response.json()) as { records: ItemRecord[]; goals: Goal[] })
    } catch {
      // It is read with the next pass.
    }
  })
  const reportFailure = async (sending: Promise<string | null>) => {
    setTrouble(await sending)
    await load()
  }
  useEffect(() => {
    void sendWaiting().then(setTrouble).then(load)
    const again = () => void reportFailure(sendWaiting())
    addEventListener('online', again)
    return () => removeEventListener('online', again)
    // oxlint-disable-next-line react/exhaustive-deps -- once for a tune
  }, [tuneId])
  const grade = useStableCallback((pass: Graded) => {
    const now = Date.now()
    void reportFailure(
      logPass({
        id: crypto.randomUUID(),
        tuneId,
        title: title.slice(0, 120),
        fromBar: null,
        toBar: null,
        key: null,
        tempo: null,
        goal: null,
        at: now,
        zone,
        note: '',
        hurt: false,
        ...pass,
        // A loop that was left running overnight is no reason to lose the pass.
        seconds: Math.min(MOST_SECONDS, pass.seconds ?? 0),
      }),
    )
  })
  const setGoal = useStableCallback((goal: Goal) => {
    setRead(
      (known) =>
        known && { ...known, goals: [...known.goals.filter((one) => itemKey(one) !== itemKey(goal)), goal] },
    )
    void reportFailure(tellLog({ do: 'goal', tuneId, ...goal }))
  })
  const records = useMemo(
    () => read && new Map(read.records.map((record) => [itemKey(record.last), record])),
    [read],
  )
  const goals = useMemo(() => new Map((read?.goals ?? []).map((goal) => [itemKey(goal), goal])), [read])
  return { records, goals, today, trouble, grade, setGoal }
}

function useToday(zone: string): number {
  const [today, setToday] = useState(() => daysIn(zone)(Date.now()))
  useEffect(() => {
    const look = () => setToday(daysIn(zone)(Date.now()))
    const clock = setInterval(look, LOOKED_AT_MS)
    addEventListener('visibilitychange', look)
    return () => {
      clearInterval(clock)
      removeEventListener('visibilitychange', look)
    }
  }, [zone])
  return today
}
