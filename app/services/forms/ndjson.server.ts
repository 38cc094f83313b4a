/**
 * An answer that tells line by line (NDJSON) how far it is. @param work its signal is aborted when
 * nobody waits any more; @param inWords what is told where it fails
 */
export function streamLines(
  work: (tell: (said: object) => void, signal: AbortSignal) => Promise<void>,
  inWords: (error: unknown) => string,
): Response {
  const encoder = new TextEncoder()
  const gone = new AbortController()
  const stream = new ReadableStream<Uint8Array>({
    async start(controller) {
      const tell = (said: object) => controller.enqueue(encoder.encode(`${JSON.stringify(said)}\n`))
      try {
        await work(tell, gone.signal)
      } catch (error) {
        if (gone.signal.aborted) return
        tell({ fault: inWords(error) })
      }
      controller.close()
    },
    cancel: () => gone.abort(),
  })
  return new Response(stream, { headers: { 'Content-Type': 'application/x-ndjson' } })
}

/** A fault as its own words, behind what could not be done. */
export const because = (what: string, error: unknown): string =>
  `${what}: ${error instanceof Error ? error.message : String(error)}`
