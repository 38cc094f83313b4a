import { useEffect, useState } from 'react'
import type { NearGrip, SearchReply, SearchRequest } from '../../../workers/messages'

export type GripsQuestion = Omit<Extract<SearchRequest, { kind: 'grips' }>, 'kind' | 'id'>

/** Every grip of a chord, those nearest to its neighbours first; null while the worker is at it. */
export function useNearGrips(question: GripsQuestion | null): NearGrip[] | null {
  const [found, setFound] = useState<{ asked: string; grips: NearGrip[] } | null>(null)
  const asked = question ? JSON.stringify(question) : null
  useEffect(() => {
    if (asked === null) return
    const worker = new Worker(new URL('../../../workers/search.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<SearchReply>) => {
      if (data.kind === 'grips') setFound({ asked, grips: data.grips })
    }
    worker.postMessage({ kind: 'grips', id: 1, ...(JSON.parse(asked) as GripsQuestion) } satisfies SearchRequest)
    return () => worker.terminate()
  }, [asked])
  return found && found.asked === asked ? found.grips : null
}
