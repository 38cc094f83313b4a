import type { MessagePort } from 'node:worker_threads'
import { JOBS, type OnJobProgress } from './jobs'

/** A question to one of `JOBS`, and where to tell how far it is. */
interface Asked {
  kind: keyof typeof JOBS
  question: never
  port: MessagePort | null
}

/** At most this often is progress told, in ms. */
const TOLD_EVERY_MS = 60

/** What a worker of the server's pool runs for each question. */
export default async function work({ kind, question, port }: Asked): Promise<unknown> {
  let last = 0
  const tell: OnJobProgress = (done, of) => {
    const now = performance.now()
    if (!port || now - last < TOLD_EVERY_MS) return
    last = now
    port.postMessage([done, of])
  }
  try {
    return await (JOBS[kind] as (question: never, tell: OnJobProgress) => unknown)(question, tell)
  } finally {
    port?.close()
  }
}
