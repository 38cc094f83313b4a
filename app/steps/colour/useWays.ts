import { useState } from 'react'
import type { FoundVersion, WaysQuestion } from '../../../workers/searchQuestions'
import { useAnswer, type AskedState } from '../../services/workers/useAnswer'

/** A moving slider does not start a search at every stop. */
const PAUSE_MS = 180

/**
 * Ways through the tune at some distances, searched whenever the question changes; null asks
 * nothing. What was found when it is stopped stays. `none`: why there are none, where that is
 * known.
 */
export function useWays(
  question: WaysQuestion | null,
  /**
   * What will be asked: the worker reads the tune while the slider is still where it was, so that
   * the first answer comes as soon as the others.
   */
  soon: WaysQuestion,
): {
  ways: FoundVersion[]
  none: string | null
  state: AskedState
  stop: () => void
} {
  const [ways, setWays] = useState<FoundVersion[]>([])
  useAnswer('search', 'ways', question ? null : soon, { inBackground: true })
  const { answer, current, state, stop } = useAnswer('search', 'ways', question, {
    pauseMs: PAUSE_MS,
    onAsked: () => setWays([]),
    onProgress: (told) => {
      if ('way' in told) setWays((now) => [...now, told.way])
    },
  })
  return { ways, none: current ? (answer?.none ?? null) : null, state, stop }
}
