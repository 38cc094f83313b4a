import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import type { AnswerOf, Answers, QuestionOf, ProgressOf } from '../../../workers/answering'
import { useStableCallback } from '../words/stable'
import { AnswerCache } from './answerCache'
import { SearchProgressStore } from './progress'
import { WORKER_POOLS, type AnswersOf, type WorkerPool, type WorkerPools, WorkerFault } from './workerPool'
import { sayFault } from './workerFault'

/** How far an answer is. */
export type AskedState =
  | { kind: 'none' }
  | { kind: 'searching'; progress: SearchProgressStore }
  | { kind: 'stopped' }
  | { kind: 'fault'; message: string }
  | { kind: 'found' }

export interface Asking<Answer> {
  /** The last answer; it stays while the next one is looked for. */
  answer: Answer | null
  /** It answers the question as it stands now. */
  current: boolean
  /** The answer to the question as it stands now; null until it is there. */
  now: Answer | null
  state: AskedState
  /** Ends the search at once; what was found before stays. */
  stop: () => void
  /** Asks the same question again. */
  again: () => void
}

interface AnswerOptions<Interim> {
  /**
   * Waits so long after a change, in ms, so that a moving slider or typing does not ask at every
   * stop.
   */
  pauseMs?: number
  /**
   * A short question that nothing on the page says the state of: it may wait for others of its
   * kind, and what breaks is said in the page's notice.
   */
  inBackground?: boolean
  /**
   * False as long as others go first, since they are needed sooner. What is being worked on goes
   * on.
   */
  turn?: boolean | undefined
  /** What is told before the answer, but for progress. */
  onProgress?: (progress: Interim) => void
  /** A new question was asked, or none. */
  onAsked?: () => void
}

const isProgress = (progress: unknown): progress is { done: number; of: number } =>
  typeof progress === 'object' && progress !== null && 'done' in progress && 'of' in progress

const ANSWER_CACHE = new AnswerCache()

/**
 * What a worker answers to a question, asked whenever it changes. What was answered before is there
 * at once.
 * @param question plain data; null asks nothing
 */
export function useAnswer<Name extends keyof WorkerPools, Kind extends keyof AnswersOf<Name> & string>(
  name: Name,
  kind: Kind,
  question: QuestionOf<AnswersOf<Name>, Kind> | null,
  {
    pauseMs = 0,
    inBackground = false,
    turn = true,
    onProgress,
    onAsked,
  }: AnswerOptions<ProgressOf<AnswersOf<Name>, Kind>> = {},
): Asking<AnswerOf<AnswersOf<Name>, Kind>> {
  type Answer = AnswerOf<AnswersOf<Name>, Kind>
  const asked = question === null ? null : JSON.stringify(question)
  const label = `${name} ${kind} ${asked}`
  const foundBefore = () => {
    const before = ANSWER_CACHE.find(label)
    return asked !== null && before ? { asked, answer: before.answer as Answer } : null
  }
  const [found, setFound] = useState(foundBefore)
  const [state, setState] = useState<AskedState>({ kind: found && !inBackground ? 'found' : 'none' })
  // What was answered before is there with the first drawing of its question, so that nothing is
  // drawn once without it and once more.
  const known = found?.asked === asked ? null : foundBefore()
  if (known) {
    setFound(known)
    if (!inBackground) setState({ kind: 'found' })
  }
  const [attempt, setAttempt] = useState(0)
  const stopping = useRef<AbortController | null>(null)
  const listening = useRef({ onProgress, onAsked })
  listening.current = { onProgress, onAsked }
  const turnNow = useRef(turn)
  turnNow.current = turn
  const waiting = useRef<(() => void) | null>(null)

  const stop = useCallback(() => {
    stopping.current?.abort()
    setState((now) => (now.kind === 'searching' ? { kind: 'stopped' } : now))
  }, [])
  const again = useStableCallback(() => {
    ANSWER_CACHE.forget(label)
    setAttempt((count) => count + 1)
  })

  useEffect(() => {
    listening.current.onAsked?.()
    if (asked === null) return setState({ kind: 'none' })
    if (ANSWER_CACHE.find(label)) {
      // What was looked for meanwhile was another question.
      if (!inBackground) setState((now) => (now.kind === 'found' ? now : { kind: 'found' }))
      return
    }
    const here = new AbortController()
    stopping.current = here
    // Of a quiet question nobody hears how far it is: nothing is drawn anew for it.
    const progress = new SearchProgressStore()
    if (!inBackground) setState({ kind: 'searching', progress })
    const onPartial = (one: ProgressOf<AnswersOf<Name>, Kind>) => {
      if (!isProgress(one)) listening.current.onProgress?.(one)
      else progress.tell(one)
    }
    const go = () => {
      const pool = WORKER_POOLS[name] as unknown as WorkerPool<Answers>
      const put = inBackground ? pool.askInBackground.bind(pool) : pool.ask.bind(pool)
      put(kind, JSON.parse(asked), here.signal, onPartial as (progress: unknown) => void).then(
        (answer: Answer) => {
          if (here.signal.aborted) return
          ANSWER_CACHE.keep(label, answer)
          setFound({ asked, answer })
          if (!inBackground) setState({ kind: 'found' })
        },
        (error: unknown) => {
          if (here.signal.aborted) return
          const message = error instanceof Error ? error.message : String(error)
          if (!inBackground) setState({ kind: 'fault', message })
          else if (error instanceof WorkerFault) sayFault(message)
        },
      )
    }
    const timer = setTimeout(() => {
      if (turnNow.current) go()
      else waiting.current = go
    }, pauseMs)
    return () => {
      clearTimeout(timer)
      waiting.current = null
      here.abort()
    }
    // oxlint-disable-next-line react/exhaustive-deps -- what was found before, and its label, are those of the question
  }, [asked, attempt, pauseMs, name, kind, inBackground])

  useEffect(() => {
    if (!turn) return
    waiting.current?.()
    waiting.current = null
  }, [turn])

  const current = asked !== null && found?.asked === asked
  return useMemo(
    () => ({
      answer: found?.answer ?? null,
      current,
      now: current ? found.answer : null,
      state,
      stop,
      again,
    }),
    [found, current, state, stop, again],
  )
}
