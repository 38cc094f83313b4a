import { PassThrough, Readable } from 'node:stream'

/** A file that is written while it is sent: nothing of it waits in memory. @param write fails where the reader goes away */
export function streamedFile(
  name: string,
  write: (out: PassThrough, signal: AbortSignal) => Promise<unknown>,
): Response {
  const out = new PassThrough()
  const gone = new AbortController()
  out.on('close', () => gone.abort())
  write(out, gone.signal).catch((error: unknown) =>
    out.destroy(error instanceof Error ? error : new Error(String(error))),
  )
  return new Response(Readable.toWeb(out) as ReadableStream, {
    headers: { 'Content-Type': 'application/zip', 'Content-Disposition': `attachment; filename="${name}"` },
  })
}
