import { releaseProxy, transfer, wrap, type Remote } from 'comlink'
import pLimit from 'p-limit'
import type { AnswerOf, Answers, CountedAnswer, QuestionOf, ProgressOf } from '../../../workers/answering'
import type { ImportAnswers } from '../../../workers/importAnswers'
import type { MelodyAnswers } from '../../../workers/chordMelodyAnswers'
import type { SearchAnswers } from '../../../workers/searchAnswers'

/** Something in a worker broke off: its code did not load, or an answer could not be read. */
export class WorkerFault extends Error {
  override name = 'WorkerFault'
}

/**
 * Workers that have answered and rest, at most: they have read their code, and know the grips they
 * found.
 */
const MAX_IDLE = 2

/**
 * Questions asked aside that are worked on at a time, at most: more would each begin a worker and
 * have to read its code first. A machine of two cores has one of them for the page.
 */
const BACKGROUND_LIMIT = (globalThis.navigator?.hardwareConcurrency ?? 4) > 2 ? 2 : 1

/**
 * A short question that nobody waits for any more may still take so long, in ms: about what
 * beginning a worker anew costs (reading its code, 100 to 200 ms of a core), and most are answered
 * in it.
 */
const ABORT_GRACE_MS = 300

/** A worker with the half of it that is asked. */
interface PooledWorker<All extends Answers> {
  worker: Worker
  remote: Remote<All>
}

/**
 * The workers of one kind. A question takes one for itself; to stop it the worker is ended, so that
 * it stops at once.
 */
export class WorkerPool<All extends Answers> {
  private readonly idle: PooledWorker<All>[] = []
  private single: PooledWorker<All> | null = null
  private readonly background = pLimit(BACKGROUND_LIMIT)

  /**
   * @param startWorker begins a worker that answers with `All`
   * @param activity is being done, as the beginning of a sentence: "The search"
   * @param isSingle one worker answers all questions in turn and is never ended, since it keeps
   *   what it worked out; the answer to a question that was stopped is passed over
   */
  constructor(
    private readonly startWorker: () => Worker,
    private readonly activity: string,
    private readonly isSingle = false,
  ) {}

  /**
   * Asks a question. Rejects with the reason where there is no answer, with `WorkerFault` where the
   * worker broke, and with the signal's reason when it was stopped.
   * @param question plain data
   * @param onProgress what is known before the whole answer is
   */
  async ask<Kind extends keyof All & string>(
    kind: Kind,
    question: QuestionOf<All, Kind>,
    signal?: AbortSignal,
    onProgress: (progress: ProgressOf<All, Kind>) => void = () => undefined,
  ): Promise<AnswerOf<All, Kind>> {
    signal?.throwIfAborted()
    const desk = this.acquire()
    const done = new AbortController()
    const { port1: progressPort, port2: workerPort } = new MessageChannel()
    let broken = false
    try {
      return await new Promise<AnswerOf<All, Kind>>((resolve, reject) => {
        const broke = (why: string) => {
          broken = true
          reject(new WorkerFault(`${this.activity} broke off: ${why}.`))
        }
        desk.worker.addEventListener(
          'error',
          (event) => broke(event.message || 'its code could not be loaded'),
          { signal: done.signal },
        )
        desk.worker.addEventListener('messageerror', () => broke('its answer could not be read'), {
          signal: done.signal,
        })
        signal?.addEventListener('abort', () => reject(signal.reason as Error), { signal: done.signal })
        let received = 0
        let whole: CountedAnswer<AnswerOf<All, Kind>> | null = null
        // The answer is whole when everything told before it has come too.
        const settle = () => {
          if (whole && received >= whole.sent) resolve(whole.answer)
        }
        progressPort.onmessage = ({ data }: MessageEvent<ProgressOf<All, Kind>>) => {
          received += 1
          if (!signal?.aborted) onProgress(data)
          settle()
        }
        const asking = desk.remote as unknown as Record<
          string,
          (question: unknown, port: MessagePort) => Promise<CountedAnswer<AnswerOf<All, Kind>>>
        >
        const asked = asking[kind]!(question, transfer(workerPort, [workerPort]))
        asked.then((answer) => {
          whole = answer
          settle()
        }, reject)
      })
    } finally {
      done.abort()
      progressPort.close()
      this.release(desk, broken, signal?.aborted ?? false)
    }
  }

  /**
   * Asks a short question that may wait for other short ones. Stopped while it waits, it is not
   * asked; stopped while it is worked on, its worker has `PATIENCE_MS` to come to its end, and is
   * ended only then: whoever goes through chords quickly should not have a worker begun anew for
   * each of them.
   */
  askInBackground<Kind extends keyof All & string>(
    kind: Kind,
    question: QuestionOf<All, Kind>,
    signal?: AbortSignal,
    onProgress?: (progress: ProgressOf<All, Kind>) => void,
  ): Promise<AnswerOf<All, Kind>> {
    const ended = new AbortController()
    const received = (progress: ProgressOf<All, Kind>) => {
      if (!signal?.aborted) onProgress?.(progress)
    }
    return new Promise((resolve, reject) => {
      signal?.addEventListener('abort', () => reject(signal.reason as Error), { once: true })
      void this.background(async () => {
        if (signal?.aborted) return reject(signal.reason as Error)
        let patience: ReturnType<typeof setTimeout> | undefined
        const stop = () => (patience = setTimeout(() => ended.abort(), ABORT_GRACE_MS))
        signal?.addEventListener('abort', stop, { once: true })
        await this.ask(kind, question, ended.signal, received).then(resolve, reject)
        clearTimeout(patience)
        signal?.removeEventListener('abort', stop)
      })
    })
  }

  private acquire(): PooledWorker<All> {
    const fresh = (): PooledWorker<All> => {
      const worker = this.startWorker()
      return { worker, remote: wrap<All>(worker) }
    }
    if (this.isSingle) return (this.single ??= fresh())
    return this.idle.pop() ?? fresh()
  }

  /**
   * What the worker's own code throws is the reason why there is no answer: it can be asked again.
   */
  private release(desk: PooledWorker<All>, broken: boolean, stopped: boolean): void {
    if (this.isSingle) {
      if (!broken) return
      this.single = null
    } else if (!broken && !stopped && this.idle.length < MAX_IDLE) return void this.idle.push(desk)
    desk.remote[releaseProxy]()
    desk.worker.terminate()
  }
}

export const WORKER_POOLS = {
  search: new WorkerPool<SearchAnswers>(
    () => new Worker(new URL('../../../workers/search.worker.ts', import.meta.url), { type: 'module' }),
    'The search',
  ),
  /** The best line alone, from a search that only looks at what changed. */
  first: new WorkerPool<SearchAnswers>(
    () => new Worker(new URL('../../../workers/search.worker.ts', import.meta.url), { type: 'module' }),
    'The search',
    true,
  ),
  melody: new WorkerPool<MelodyAnswers>(
    () => new Worker(new URL('../../../workers/melody.worker.ts', import.meta.url), { type: 'module' }),
    'The search',
  ),
  import: new WorkerPool<ImportAnswers>(
    () => new Worker(new URL('../../../workers/import.worker.ts', import.meta.url), { type: 'module' }),
    'Reading it',
  ),
} as const
export type WorkerPools = typeof WORKER_POOLS
export type AnswersOf<Name extends keyof WorkerPools> =
  WorkerPools[Name] extends WorkerPool<infer All> ? All : never
