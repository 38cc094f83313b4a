import { useEffect, useState } from 'react'
import { guarded } from '../words/workerFault'
import type { SearchReply, SearchRequest } from '../../../workers/messages'

type Question<Kind extends SearchRequest['kind']> = Omit<Extract<SearchRequest, { kind: Kind }>, 'id'>

const startWorker = () => guarded(new Worker(new URL('../../../workers/search.worker.ts', import.meta.url), { type: 'module' }), 'Finding grips')

/** A worker that has read its code and waits, so that a question is answered without waiting for it to start. */
let spare: Worker | null = null
function takeWorker(): Worker {
  const worker = spare ?? startWorker()
  spare = startWorker()
  return worker
}

/**
 * What the worker answers to a question, asked whenever it changes; null while the worker is at it, or nothing is asked.
 * @param question must be plain data
 */
export function useAsked<Kind extends 'grips' | 'book' | 'related' | 'between' | 'easier'>(question: Question<Kind> | null): Extract<SearchReply, { kind: Kind }> | null {
  const [found, setFound] = useState<{ asked: string; answer: SearchReply } | null>(null)
  const asked = question ? JSON.stringify(question) : null
  useEffect(() => {
    if (asked === null) return
    const worker = takeWorker()
    const request = JSON.parse(asked) as Question<Kind>
    worker.onmessage = ({ data }: MessageEvent<SearchReply>) => {
      if (data.kind !== request.kind) return
      setFound({ asked, answer: data })
      worker.terminate()
    }
    worker.postMessage({ ...request, id: 1 })
    return () => worker.terminate()
  }, [asked])
  return found && found.asked === asked ? (found.answer as Extract<SearchReply, { kind: Kind }>) : null
}
