import { runJob, type JobQuestion } from '../../services/workers/pool.server'

/** Jobs that write what is long to a stream. */
type StreamedJob = 'backup' | 'songbook'
/** StreamedJob all of a book may take so long, in ms. */
const MOST_MS = 30 * 60_000

/**
 * A zip that a worker writes while it is sent: nothing of it waits in memory. The work ends where
 * nobody takes it any more.
 */
export function streamedFile<Kind extends StreamedJob>(
  name: string,
  signal: AbortSignal,
  kind: Kind,
  question: Omit<JobQuestion<Kind>, 'out'>,
): Response {
  const { readable, writable } = new TransformStream<Uint8Array, Uint8Array>()
  const gone = new AbortController()
  signal.addEventListener('abort', () => gone.abort())
  const written = readable.getReader()
  const sent = new ReadableStream<Uint8Array>({
    start(controller) {
      runJob(kind, { ...question, out: writable } as unknown as JobQuestion<Kind>, {
        signal: gone.signal,
        mostMs: MOST_MS,
        handed: [writable as never],
        // A file that breaks off is told as such by the connection.
      }).catch((error: unknown) => controller.error(error))
    },
    async pull(controller) {
      const { done, value } = await written.read()
      if (done) controller.close()
      else controller.enqueue(value)
    },
    cancel: () => gone.abort(),
  })
  return new Response(sent, {
    headers: { 'Content-Type': 'application/zip', 'Content-Disposition': `attachment; filename="${name}"` },
  })
}
