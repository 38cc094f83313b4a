import { parentPort, Worker } from 'node:worker_threads'
import { answerLine, refuse, type Reply } from './answerRequest'

/**
 * The longest that a file from elsewhere is read, in ms, and the memory it may take, in MB: the
 * bounds the server has.
 */
const MOST_MS = 20_000
const MOST_MB = 512

/** Whether a line asks for a file to be read that others have made. */
export const readsForeign = (line: string): boolean => /"do"\s*:\s*"import"/.test(line)

/**
 * Reads files in a thread of its own, so that one that takes too long or too much is ended and
 * said, and the next line is served.
 */
export class Apart {
  private worker: Worker | null = null

  /** @param file the program, which answers lines when it is started as a worker */
  constructor(
    private readonly file: URL,
    private readonly mostMs = MOST_MS,
  ) {}

  answer(line: string): Promise<Reply> {
    const worker = (this.worker ??= new Worker(this.file, {
      resourceLimits: { maxOldGenerationSizeMb: MOST_MB },
    }))
    return new Promise((resolve) => {
      const end = (reply: Reply) => {
        clearTimeout(deadline)
        worker.off('message', end).off('error', broken)
        resolve(reply)
      }
      const lost = (why: string) => {
        this.worker = null
        end(refuse('too-large', `${why} Accepted: a file as other programs write it.`, 'content'))
        worker.on('error', () => null)
        void worker.terminate()
      }
      const broken = ({ code }: NodeJS.ErrnoException) =>
        lost(
          code === 'ERR_WORKER_OUT_OF_MEMORY'
            ? `Reading this needs more than ${MOST_MB} MB of memory and was stopped.`
            : 'The reader broke off at this.',
        )
      const deadline = setTimeout(
        () => lost(`Reading this took longer than ${this.mostMs / 1_000} seconds and was stopped.`),
        this.mostMs,
      )
      worker.on('message', end).on('error', broken)
      worker.postMessage(line)
    })
  }

  /** Nothing is asked any more. */
  end(): void {
    void this.worker?.terminate()
    this.worker = null
  }
}

/** Answers lines as they come: what the thread does. */
export const answerApart = (): void =>
  void parentPort!.on('message', (line: string) => parentPort!.postMessage(answerLine(line)))
