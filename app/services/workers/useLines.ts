import { useMemo } from 'react'
import type { Line } from '../../../core/leading/line'
import type { LinesQuestion } from '../../../core/tune/linesQuestion'
import type { LinesFound } from '../../../workers/searchQuestions'
import { useAnswer, type Asking } from './useAnswer'

/** The kind of grip of the first line, and what has to be said of the lines. */
export type Taken = Pick<LinesFound, 'texture' | 'says'>

export interface LinesAsked extends Omit<Asking<LinesFound>, 'answer' | 'now'> {
  lines: Line[]
  /** Null before all lines are found. */
  taken: Taken | null
}

interface LinesWays {
  /** Waits so long after a change, in ms. */
  pauseMs?: number
  /** False as long as others go first. */
  turn?: boolean | undefined
  /**
   * The best line by itself, from a search that only looks at what changed: shown at once while the
   * others are looked for; or, where there is a line to look at already, after the others, so that
   * it knows the line before anything changes.
   */
  first?: 'not' | 'at once' | 'later'
}

const NO_LINES: Line[] = []

/**
 * The lines for a question. While a search runs the lines of the last one stay.
 * @param question null when there is nothing to search
 */
export function useLines(
  question: LinesQuestion | null,
  { pauseMs = 0, turn, first: wanted = 'not' }: LinesWays = {},
): LinesAsked {
  const all = useAnswer('search', 'lines', question, { pauseMs, turn })
  const first = useAnswer('first', 'first', wanted === 'not' ? null : question, {
    turn: wanted === 'at once' || all.state.kind !== 'searching',
  })
  const alone = first.current && !all.current ? first.answer : null
  const early = useMemo(() => (alone ? [alone] : null), [alone])
  const asked = question !== null
  return useMemo(
    () =>
      asked
        ? {
            ...all,
            lines: early ?? all.answer?.lines ?? NO_LINES,
            taken: all.answer,
            current: all.current || early !== null,
          }
        : { ...all, lines: NO_LINES, taken: null, current: false },
    [asked, all, early],
  )
}
