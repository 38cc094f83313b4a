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

const NO_LINES: Line[] = []

/**
 * The lines for a question. While a search runs the lines of the last one stay.
 * @param question null when there is nothing to search
 * @param firstAtOnce the best line is asked for by itself, of a search that only looks at what changed, and shown while the others are looked for
 */
export function useLines(question: LinesQuestion | null, pauseMs: number, firstAtOnce = false): LinesAsked {
  const all = useAnswer('search', 'lines', question, { pauseMs })
  const first = useAnswer('first', 'first', firstAtOnce ? question : null)
  const alone = first.current && !all.current ? first.answer : null
  const early = useMemo(() => (alone ? [alone] : null), [alone])
  if (question === null) return { ...all, lines: NO_LINES, taken: null, current: false }
  return {
    ...all,
    lines: early ?? all.answer?.lines ?? NO_LINES,
    taken: all.answer,
    current: all.current || early !== null,
  }
}
