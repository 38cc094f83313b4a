import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import type { AnswerOf, Answers, QuestionOf, ToldOf } from '../../../workers/answering'
import { useSteady } from '../words/steady'
import { AnsweredBefore } from './answeredBefore'
import { HowFar } from './howFar'
import { OFFICES, type AnswersOf, type Office, type Offices, WorkerFault } from './client'
import { sayFault } from './workerFault'

/** How far an answer is. */
export type AskedState =
  | { kind: 'none' }
  | { kind: 'searching'; howFar: HowFar }
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

interface AnswerWays<Told> {
  /** Waits so long after a change, in ms, so that a moving slider or typing does not ask at every stop. */
  pauseMs?: number
  /** A short question that nothing on the page says the state of: it may wait for others of its kind, and what breaks is said in the page's notice. */
  quiet?: boolean
  /** False as long as others go first, since they are needed sooner. What is being worked on goes on. */
  turn?: boolean
  /** What is told before the answer, but for progress. */
  onTold?: (told: Told) => void
  /** A new question was asked, or none. */
  onAsked?: () => void
}

const isProgress = (told: unknown): told is { done: number; of: number } =>
  typeof told === 'object' && told !== null && 'done' in told && 'of' in told

const BEFORE = new AnsweredBefore()

/**
 * What a worker answers to a question, asked whenever it changes. What was answered before is there at once.
 * @param question plain data; null asks nothing
 */
export function useAnswer<Name extends keyof Offices, Kind extends keyof AnswersOf<Name> & string>(
  name: Name,
  kind: Kind,
  question: QuestionOf<AnswersOf<Name>, Kind> | null,
  {
    pauseMs = 0,
    quiet = false,
    turn = true,
    onTold,
    onAsked,
  }: AnswerWays<ToldOf<AnswersOf<Name>, Kind>> = {},
): Asking<AnswerOf<AnswersOf<Name>, Kind>> {
  type Answer = AnswerOf<AnswersOf<Name>, Kind>
  const asked = question === null ? null : JSON.stringify(question)
  const label = `${name} ${kind} ${asked}`
  const foundBefore = () => {
    const before = BEFORE.find(label)
    return asked !== null && before ? { asked, answer: before.answer as Answer } : null
  }
  const [found, setFound] = useState(foundBefore)
  const [state, setState] = useState<AskedState>({ kind: found && !quiet ? 'found' : 'none' })
  // What was answered before is there with the first drawing of its question, so that nothing is drawn once without it and once more.
  const known = found?.asked === asked ? null : foundBefore()
  if (known) {
    setFound(known)
    if (!quiet) setState({ kind: 'found' })
  }
  const [attempt, setAttempt] = useState(0)
  const stopping = useRef<AbortController | null>(null)
  const listening = useRef({ onTold, onAsked })
  listening.current = { onTold, onAsked }
  const turnNow = useRef(turn)
  turnNow.current = turn
  const waiting = useRef<(() => void) | null>(null)

  const stop = useCallback(() => {
    stopping.current?.abort()
    setState((now) => (now.kind === 'searching' ? { kind: 'stopped' } : now))
  }, [])
  const again = useSteady(() => {
    BEFORE.forget(label)
    setAttempt((count) => count + 1)
  })

  useEffect(() => {
    listening.current.onAsked?.()
    if (asked === null) return setState({ kind: 'none' })
    if (BEFORE.find(label)) {
      // What was looked for meanwhile was another question.
      if (!quiet) setState((now) => (now.kind === 'found' ? now : { kind: 'found' }))
      return
    }
    const here = new AbortController()
    stopping.current = here
    // Of a quiet question nobody hears how far it is: nothing is drawn anew for it.
    const howFar = new HowFar()
    if (!quiet) setState({ kind: 'searching', howFar })
    const told = (one: ToldOf<AnswersOf<Name>, Kind>) => {
      if (!isProgress(one)) listening.current.onTold?.(one)
      else howFar.tell(one)
    }
    const go = () => {
      const office = OFFICES[name] as unknown as Office<Answers>
      const put = quiet ? office.askAside.bind(office) : office.ask.bind(office)
      put(kind, JSON.parse(asked), here.signal, told as (told: unknown) => void).then(
        (answer: Answer) => {
          if (here.signal.aborted) return
          BEFORE.keep(label, answer)
          setFound({ asked, answer })
          if (!quiet) setState({ kind: 'found' })
        },
        (error: unknown) => {
          if (here.signal.aborted) return
          const message = error instanceof Error ? error.message : String(error)
          if (!quiet) setState({ kind: 'fault', message })
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
  }, [asked, attempt, pauseMs, name, kind, quiet])

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
