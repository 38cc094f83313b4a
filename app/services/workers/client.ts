import { releaseProxy, transfer, wrap, type Remote } from 'comlink'
import pLimit from 'p-limit'
import type { AnswerOf, Answers, Counted, QuestionOf, ToldOf } from '../../../workers/answering'
import type { ImportAnswers } from '../../../workers/import'
import type { MelodyAnswers } from '../../../workers/melody'
import type { SearchAnswers } from '../../../workers/search'

/** Something in a worker broke off: its code did not load, or an answer could not be read. */
export class WorkerFault extends Error {
  override name = 'WorkerFault'
}

/** Workers that have answered and rest, at most: they have read their code, and know the grips they found. */
const RESTING = 2

/**
 * Questions asked aside that are worked on at a time, at most: more would each begin a worker and have to read its code first. A machine of two cores has
 * one of them for the page.
 */
const ASIDE_AT_ONCE = (globalThis.navigator?.hardwareConcurrency ?? 4) > 2 ? 2 : 1

/** A short question that nobody waits for any more may still take so long, in ms: about what beginning a worker anew costs (reading its code, 100 to 200 ms of a core), and most are answered in it. */
const PATIENCE_MS = 300

/** A worker with the half of it that is asked. */
interface Desk<All extends Answers> {
  worker: Worker
  remote: Remote<All>
}

/** The workers of one kind. A question takes one for itself; to stop it the worker is ended, so that it stops at once. */
export class Office<All extends Answers> {
  private readonly resting: Desk<All>[] = []
  private keeping: Desk<All> | null = null
  private readonly aside = pLimit(ASIDE_AT_ONCE)

  /**
   * @param start begins a worker that answers with `All`
   * @param what is being done, as the beginning of a sentence: "The search"
   * @param keeps one worker answers all questions in turn and is never ended, since it keeps what it worked out; the answer to a question that was stopped is passed over
   */
  constructor(
    private readonly start: () => Worker,
    private readonly what: string,
    private readonly keeps = false,
  ) {}

  /**
   * Asks a question. Rejects with the reason where there is no answer, with `WorkerFault` where the worker broke, and with the signal's reason when it was stopped.
   * @param question plain data
   * @param onTold what is known before the whole answer is
   */
  async ask<Kind extends keyof All & string>(
    kind: Kind,
    question: QuestionOf<All, Kind>,
    signal?: AbortSignal,
    onTold: (told: ToldOf<All, Kind>) => void = () => undefined,
  ): Promise<AnswerOf<All, Kind>> {
    signal?.throwIfAborted()
    const desk = this.take()
    const done = new AbortController()
    const { port1: ear, port2: mouth } = new MessageChannel()
    let broken = false
    try {
      return await new Promise<AnswerOf<All, Kind>>((resolve, reject) => {
        const broke = (why: string) => {
          broken = true
          reject(new WorkerFault(`${this.what} broke off: ${why}.`))
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
        let heard = 0
        let whole: Counted<AnswerOf<All, Kind>> | null = null
        // The answer is whole when everything told before it has come too.
        const settle = () => {
          if (whole && heard >= whole.told) resolve(whole.answer)
        }
        ear.onmessage = ({ data }: MessageEvent<ToldOf<All, Kind>>) => {
          heard += 1
          if (!signal?.aborted) onTold(data)
          settle()
        }
        const asking = desk.remote as unknown as Record<
          string,
          (question: unknown, port: MessagePort) => Promise<Counted<AnswerOf<All, Kind>>>
        >
        const asked = asking[kind]!(question, transfer(mouth, [mouth]))
        asked.then((answer) => {
          whole = answer
          settle()
        }, reject)
      })
    } finally {
      done.abort()
      ear.close()
      this.giveBack(desk, broken, signal?.aborted ?? false)
    }
  }

  /**
   * Asks a short question that may wait for other short ones. Stopped while it waits, it is not asked; stopped while it is worked on, its worker has
   * `PATIENCE_MS` to come to its end, and is ended only then: whoever goes through chords quickly should not have a worker begun anew for each of them.
   */
  askAside<Kind extends keyof All & string>(
    kind: Kind,
    question: QuestionOf<All, Kind>,
    signal?: AbortSignal,
    onTold?: (told: ToldOf<All, Kind>) => void,
  ): Promise<AnswerOf<All, Kind>> {
    const ended = new AbortController()
    const heard = (told: ToldOf<All, Kind>) => {
      if (!signal?.aborted) onTold?.(told)
    }
    return new Promise((resolve, reject) => {
      signal?.addEventListener('abort', () => reject(signal.reason as Error), { once: true })
      void this.aside(async () => {
        if (signal?.aborted) return reject(signal.reason as Error)
        let patience: ReturnType<typeof setTimeout> | undefined
        const stop = () => (patience = setTimeout(() => ended.abort(), PATIENCE_MS))
        signal?.addEventListener('abort', stop, { once: true })
        await this.ask(kind, question, ended.signal, heard).then(resolve, reject)
        clearTimeout(patience)
        signal?.removeEventListener('abort', stop)
      })
    })
  }

  private take(): Desk<All> {
    const fresh = (): Desk<All> => {
      const worker = this.start()
      return { worker, remote: wrap<All>(worker) }
    }
    if (this.keeps) return (this.keeping ??= fresh())
    return this.resting.pop() ?? fresh()
  }

  /** What the worker's own code throws is the reason why there is no answer: it can be asked again. */
  private giveBack(desk: Desk<All>, broken: boolean, stopped: boolean): void {
    if (this.keeps) {
      if (!broken) return
      this.keeping = null
    } else if (!broken && !stopped && this.resting.length < RESTING) return void this.resting.push(desk)
    desk.remote[releaseProxy]()
    desk.worker.terminate()
  }
}

export const OFFICES = {
  search: new Office<SearchAnswers>(
    () => new Worker(new URL('../../../workers/search.worker.ts', import.meta.url), { type: 'module' }),
    'The search',
  ),
  /** The best line alone, from a search that only looks at what changed. */
  first: new Office<SearchAnswers>(
    () => new Worker(new URL('../../../workers/search.worker.ts', import.meta.url), { type: 'module' }),
    'The search',
    true,
  ),
  melody: new Office<MelodyAnswers>(
    () => new Worker(new URL('../../../workers/melody.worker.ts', import.meta.url), { type: 'module' }),
    'The search',
  ),
  import: new Office<ImportAnswers>(
    () => new Worker(new URL('../../../workers/import.worker.ts', import.meta.url), { type: 'module' }),
    'Reading it',
  ),
} as const
export type Offices = typeof OFFICES
export type AnswersOf<Name extends keyof Offices> = Offices[Name] extends Office<infer All> ? All : never
