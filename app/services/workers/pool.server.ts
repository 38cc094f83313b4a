import { availableParallelism } from 'node:os'
import { resolve } from 'node:path'
import { MessageChannel, type Transferable } from 'node:worker_threads'
import { Piscina } from 'piscina'
import type { JOBS, OnJobProgress } from '../../../workers/server/jobs'
import { WorkEnded } from '../../../workers/server/workEnded'

export { WorkEnded }

export type Jobs = typeof JOBS
export type JobQuestion<Kind extends keyof Jobs> = Parameters<Jobs[Kind]>[0]
export type JobAnswer<Kind extends keyof Jobs> = Awaited<ReturnType<Jobs[Kind]>>

export interface AskedHow {
  /** Aborted where nobody waits any more: the work ends at once. */
  signal?: AbortSignal | undefined
  onProgress?: OnJobProgress
  /** The longest it may take, in ms. */
  mostMs?: number
  /** What is handed over and not copied. */
  handed?: readonly Transferable[]
}

/**
 * The longest a file, a sheet or a page may take: the longest that are taken need two seconds of
 * this on a slow machine.
 */
const MOST_MS = 30_000
/** Memory of a worker, in MB: the longest MIDI file that is read needs 200. */
const MOST_MB = 512
/** What may wait for a worker. */
const MOST_WAITING = 64
/** A worker that has nothing to do for so long ends. */
const IDLE_MS = 60_000

/** The workers of this process, made with the first question. */
export class WorkPool {
  private pool: Piscina | undefined

  constructor(
    private readonly file = resolve('build/work.cjs'),
    private readonly bounds: { mostMb?: number; waiting?: number } = {},
  ) {}

  /**
   * An answer that is worked out beside the server's own thread.
   * @throws {WorkEnded} where it was ended for what it took; the signal's reason where nobody
   *   waits; what the work itself throws
   */
  async ask<Kind extends keyof Jobs>(
    kind: Kind,
    question: JobQuestion<Kind>,
    { signal, onProgress, mostMs = MOST_MS, handed = [] }: AskedHow = {},
  ): Promise<JobAnswer<Kind>> {
    this.pool ??= this.made()
    if (this.pool.queueSize >= (this.bounds.waiting ?? MOST_WAITING))
      throw new WorkEnded('Too much is asked of this machine just now. Try again in a moment.')
    signal?.throwIfAborted()
    const end = new AbortController()
    const leave = () => end.abort()
    signal?.addEventListener('abort', leave)
    let isLate = false
    const deadline = setTimeout(() => {
      isLate = true
      end.abort()
    }, mostMs)
    const channel = onProgress ? new MessageChannel() : null
    channel?.port1.on('message', ([done, of]: [number, number]) => onProgress!(done, of))
    channel?.port1.unref()
    try {
      return (await this.pool.run(
        { kind, question, port: channel?.port2 ?? null },
        {
          signal: end.signal,
          transferList: [...handed, ...(channel ? [channel.port2] : [])] as never,
        },
      )) as JobAnswer<Kind>
    } catch (error) {
      signal?.throwIfAborted()
      if (isLate) throw new WorkEnded(`This took longer than ${mostMs / 1_000} seconds and was stopped.`)
      const code = (error as { code?: unknown }).code
      if (code === 'ERR_WORKER_OUT_OF_MEMORY')
        throw new WorkEnded('This needs more memory than there is for one piece of work and was stopped.')
      throw error
    } finally {
      clearTimeout(deadline)
      signal?.removeEventListener('abort', leave)
      channel?.port1.close()
    }
  }

  private made(): Piscina {
    const pool = new Piscina({
      filename: this.file,
      minThreads: 0,
      // One more than there are cores: a long one must not keep the short ones waiting.
      maxThreads: availableParallelism() + 1,
      idleTimeout: IDLE_MS,
      // Answering comes first, where the system lets threads give way.
      niceIncrement: 5,
      resourceLimits: { maxOldGenerationSizeMb: this.bounds.mostMb ?? MOST_MB },
    })
    // A worker that breaks off while nothing is asked of it is replaced; what is asked of one says
    // so itself.
    pool.on('error', (error: Error) => process.stderr.write(`A worker ended: ${error.message}\n`))
    return pool
  }

  async end(): Promise<void> {
    const { pool } = this
    this.pool = undefined
    await pool?.destroy()
  }
}

const POOL = new WorkPool()

/** Asks the workers of this server; see `JOBS`. */
export const runJob: WorkPool['ask'] = (kind, question, how) => POOL.ask(kind, question, how)
