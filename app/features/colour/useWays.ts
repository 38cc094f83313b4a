import { useCallback, useEffect, useRef, useState } from 'react'
import { guarded } from '../words/workerFault'
import type { SearchReply, SearchRequest, Way } from '../../../workers/messages'

export type WaysQuestion = Omit<Extract<SearchRequest, { kind: 'ways' }>, 'kind' | 'id'>
export type WaysState = { kind: 'none' } | { kind: 'searching'; done: number; of: number } | { kind: 'stopped' } | { kind: 'fault'; message: string } | { kind: 'found' }

/** A moving slider does not start a search at every stop. */
const PAUSE_MS = 180

/** Ways through the tune at some distances, searched in a worker whenever the question changes; null asks nothing. What was found when it is stopped stays. */
export function useWays(question: WaysQuestion | null): { ways: Way[]; state: WaysState; stop: () => void } {
  const [found, setFound] = useState<{ ways: Way[]; state: WaysState }>({ ways: [], state: { kind: 'none' } })
  const worker = useRef<Worker | null>(null)
  const asked = question ? JSON.stringify(question) : null
  const stop = useCallback(() => {
    worker.current?.terminate()
    setFound((now) => ({ ...now, state: { kind: 'stopped' } }))
  }, [])
  useEffect(() => {
    if (asked === null) return setFound({ ways: [], state: { kind: 'none' } })
    setFound({ ways: [], state: { kind: 'searching', done: 0, of: 1 } })
    const timer = setTimeout(() => {
      const here = new Worker(new URL('../../../workers/search.worker.ts', import.meta.url), { type: 'module' })
      worker.current = here
      guarded(here, 'The search', (message) => setFound((now) => ({ ...now, state: { kind: 'fault', message } })))
      here.onmessage = ({ data }: MessageEvent<SearchReply>) => {
        if (data.kind === 'progress') setFound((now) => ({ ...now, state: { kind: 'searching', done: data.done, of: data.of } }))
        if (data.kind === 'way') setFound((now) => ({ ...now, ways: [...now.ways, data.way] }))
        if (data.kind !== 'ways done') return
        setFound((now) => ({ ...now, state: { kind: 'found' } }))
        here.terminate()
      }
      here.postMessage({ kind: 'ways', id: 1, ...(JSON.parse(asked) as WaysQuestion) } satisfies SearchRequest)
    }, PAUSE_MS)
    return () => {
      clearTimeout(timer)
      worker.current?.terminate()
    }
  }, [asked])
  return { ...found, stop }
}
