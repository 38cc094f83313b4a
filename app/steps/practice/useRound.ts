import { useEffect, useRef, useState } from 'react'
import type { Grade } from '../../../core/practice/grade'
import {
  ended,
  gradeOf,
  gradesOf,
  pressed,
  READY,
  TOGETHER_MS,
  type Round,
} from '../../../core/practice/round'
import type { Schedule } from '../../services/sound/schedule'
import { usePlaying } from '../../services/sound/SoundContext'
import { SOUND } from '../../services/sound/soundStore'
import { useStableCallback } from '../../services/words/stable'

/** The last chord may be cut short by so much, in seconds. */
const LAST_BEAT_S = 0.5

interface RoundAsked {
  schedule: () => Schedule | null
  /** Beats a minute. */
  tempo: number
  loop: boolean
  /** Graded, after so many seconds of playing. */
  onGrade: (grade: Grade, seconds: number) => void
}

export interface RoundNow {
  round: Round
  /** The one key. */
  press: () => void
  /** A grade said at once. */
  grade: (grade: Grade) => void
  /** Asks how it was, where nothing sounded. */
  ask: () => void
  /** Ends what sounds, and asks nothing. */
  leave: () => void
}

/** One pass after the other on one key: begin, end, say how it was. */
export function useRound({ schedule, tempo, loop, onGrade }: RoundAsked): RoundNow {
  const [round, setRound] = useState<Round>(READY)
  const { playing } = usePlaying()
  const begun = useRef(0)
  const seconds = useRef(0)
  const answering = useRef<ReturnType<typeof setTimeout>>(undefined)
  const sounded = useRef(false)
  /** How long what sounds is to its last beat, in seconds. */
  const whole = useRef(0)

  /** @returns whether it was cut short */
  const stop = (): boolean => {
    if (begun.current > 0) seconds.current = (performance.now() - begun.current) / 1000
    begun.current = 0
    SOUND.stop()
    return seconds.current < whole.current
  }
  const settle = useStableCallback((grade: Grade) => {
    if (!gradesOf(round).includes(grade)) return
    clearTimeout(answering.current)
    setRound(READY)
    onGrade(grade, Math.round(seconds.current))
  })
  const press = useStableCallback(() => {
    if (round.at === 'ready') {
      const heard = schedule()
      if (!heard || heard.length === 0) return
      sounded.current = false
      begun.current = performance.now()
      whole.current = (heard.length * 60) / tempo - LAST_BEAT_S
      void (loop ? SOUND.playTune(heard, tempo, true) : SOUND.play(heard, tempo))
    }
    const next = pressed(round, round.at === 'playing' && stop())
    setRound(next)
    if (next.at !== 'asked') return
    clearTimeout(answering.current)
    const grade = gradeOf(next)
    if (grade) answering.current = setTimeout(() => settle(grade), TOGETHER_MS)
  })
  const ask = useStableCallback(() => {
    seconds.current = 0
    setRound({ at: 'asked', presses: 0, cut: false })
  })
  const leave = useStableCallback(() => {
    clearTimeout(answering.current)
    stop()
    setRound(READY)
  })
  // What sounds ends by itself, or is stopped elsewhere on the page: either way it was a pass.
  useEffect(() => {
    if (playing) {
      sounded.current = true
      return
    }
    if (!sounded.current) return
    sounded.current = false
    const cut = stop()
    setRound((now) => ended(now, cut))
  }, [playing])
  useEffect(
    () => () => {
      clearTimeout(answering.current)
    },
    [],
  )
  return { round, press, grade: settle, ask, leave }
}
