import { useCallback, useEffect, useRef, useState } from 'react'
import { guarded } from '../words/workerFault'
import type { MelodyReply, MelodyRequest } from '../../../workers/melodyMessages'

export type AskedState = { kind: 'none' } | { kind: 'searching'; done: number; of: number } | { kind: 'stopped' } | { kind: 'fault'; message: string } | { kind: 'found' }

type ReplyOf<Kind extends MelodyRequest['kind']> = Extract<MelodyReply, { kind: Kind }>

/**
 * What the melody worker answers to a question, asked whenever it changes. While it is at it the last answer stays; `stop` ends it at once.
 * @param question plain data; null asks nothing, and what was answered before stays
 * @param pauseMs waits this long after a change
 */
export function useMelodyAsked<Kind extends MelodyRequest['kind']>(question: Extract<MelodyRequest, { kind: Kind }> | null, pauseMs = 0): {
  answer: ReplyOf<Kind> | null
  /** It answers the question as it stands now. */
  current: boolean
  state: AskedState
  stop: () => void
  again: () => void
} {
  const [state, setState] = useState<AskedState>({ kind: 'none' })
  const [found, setFound] = useState<{ asked: string; answer: ReplyOf<Kind> } | null>(null)
  const [attempt, setAttempt] = useState(0)
  const worker = useRef<Worker | null>(null)
  const asked = question ? JSON.stringify(question) : null
  const stop = useCallback(() => {
    worker.current?.terminate()
    worker.current = null
    setState((now) => (now.kind === 'searching' ? { kind: 'stopped' } : now))
  }, [])
  useEffect(() => {
    if (asked === null) return setState({ kind: 'none' })
    setState({ kind: 'searching', done: 0, of: 1 })
    const timer = setTimeout(() => {
      const here = new Worker(new URL('../../../workers/melody.worker.ts', import.meta.url), { type: 'module' })
      worker.current = here
      here.onmessage = ({ data }: MessageEvent<MelodyReply>) => {
        if (data.kind === 'progress') return setState({ kind: 'searching', done: data.done, of: data.of })
        if (data.kind === 'fault') setState({ kind: 'fault', message: data.message })
        else {
          setFound({ asked, answer: data as ReplyOf<Kind> })
          setState({ kind: 'found' })
        }
        here.terminate()
      }
      guarded(here, 'The search', (message) => setState({ kind: 'fault', message }))
      here.postMessage(JSON.parse(asked) as MelodyRequest)
    }, pauseMs)
    return () => {
      clearTimeout(timer)
      worker.current?.terminate()
      worker.current = null
    }
  }, [asked, attempt, pauseMs])
  return { answer: found?.answer ?? null, current: asked !== null && found?.asked === asked, state, stop, again: () => setAttempt((count) => count + 1) }
}
