import { useCallback, useEffect, useRef, useState } from 'react'
import type { Line } from '../../../core/leading/lead'
import type { TextureName } from '../../../core/leading/texture'
import type { LinesQuestion } from '../../../core/tune/linesQuestion'
import { guarded } from '../words/workerFault'
import type { SearchReply, SearchRequest } from '../../../workers/messages'

export type LinesState =
  | { kind: 'none' }
  | { kind: 'searching'; done: number; of: number }
  | { kind: 'stopped' }
  | { kind: 'fault'; message: string }
  | { kind: 'found' }

export interface Taken { texture: TextureName; says: string[] }

/** A worker that has answered, and knows the grips it found: the next question goes to it. */
let resting: Worker | null = null

/** The search that keeps what it knows between questions: one for the page, never ended. */
let keeping: Worker | null = null
let asks = 0

const startWorker = () => new Worker(new URL('../../../workers/search.worker.ts', import.meta.url), { type: 'module' })

/**
 * The lines for a question, searched in a worker whenever the question changes. While a search runs the lines of the
 * last one stay; `stop` ends it at once.
 * @param question null when there is nothing to search
 * @param firstAtOnce the best line is asked for by itself, of a search that only looks at what changed, and shown while the others are looked for
 * @param pauseMs waits this long after a change, so that a moving slider or typing does not start a search at every stop
 */
export function useLines(question: LinesQuestion | null, pauseMs: number, firstAtOnce = false): {
  lines: Line[]
  /** The kind of grip of the first line, and what has to be said of the lines; null before they are found. */
  taken: Taken | null
  /** The lines answer the question as it stands now. */
  current: boolean
  state: LinesState
  stop: () => void
  again: () => void
} {
  const [state, setState] = useState<LinesState>({ kind: 'none' })
  const [found, setFound] = useState<{ lines: Line[]; answered: string | null; taken: Taken | null }>({ lines: [], answered: null, taken: null })
  const [attempt, setAttempt] = useState(0)
  const worker = useRef<Worker | null>(null)
  const asked = question ? JSON.stringify(question) : null

  const stop = useCallback(() => {
    worker.current?.terminate()
    worker.current = null
    setState((now) => (now.kind === 'searching' ? { kind: 'stopped' } : now))
  }, [])

  useEffect(() => {
    if (asked === null) {
      setFound({ lines: [], answered: null, taken: null })
      setState({ kind: 'none' })
      return
    }
    setState({ kind: 'searching', done: 0, of: 1 })
    const asking = firstAtOnce ? askFirst(asked, (line) => setFound((now) => (now.answered === asked ? now : { lines: [line], answered: asked, taken: now.taken }))) : null
    const timer = setTimeout(() => {
      const here = resting ?? startWorker()
      resting = null
      worker.current = here
      here.onmessage = ({ data }: MessageEvent<SearchReply>) => {
        if (data.kind === 'progress') setState({ kind: 'searching', done: data.done, of: data.of })
        if (data.kind === 'fault') setState({ kind: 'fault', message: data.message })
        if (data.kind === 'lines') {
          setFound({ lines: data.lines, answered: asked, taken: { texture: data.texture, says: data.says } })
          setState({ kind: 'found' })
        }
        if (data.kind === 'progress') return
        worker.current = null
        if (resting) here.terminate()
        else resting = here
      }
      guarded(here, 'The search', (message) => setState({ kind: 'fault', message }))
      here.postMessage({ kind: 'lines', id: 1, ...(JSON.parse(asked) as LinesQuestion) } satisfies SearchRequest)
    }, pauseMs)
    return () => {
      clearTimeout(timer)
      asking?.()
      worker.current?.terminate()
      worker.current = null
    }
  }, [asked, attempt, pauseMs, firstAtOnce])

  return { lines: found.lines, taken: found.taken, current: asked !== null && found.answered === asked, state, stop, again: () => setAttempt((count) => count + 1) }
}

/** Asks for the best line alone; the answer is left out when the returned function was called before it came. */
function askFirst(asked: string, onLine: (line: Line) => void): () => void {
  const id = ++asks
  keeping ??= guarded(startWorker(), 'The search')
  const here = ({ data }: MessageEvent<SearchReply>) => {
    if (data.kind !== 'first' || data.id !== id) return
    keeping?.removeEventListener('message', here)
    if (data.line) onLine(data.line)
  }
  keeping.addEventListener('message', here)
  keeping.postMessage({ kind: 'first', id, question: JSON.parse(asked) as LinesQuestion } satisfies SearchRequest)
  return () => keeping?.removeEventListener('message', here)
}
