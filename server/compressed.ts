import compression from 'compression'
import type { Request, RequestHandler, Response } from 'express'

/** Answers smaller than this go as they are, in bytes. */
const THRESHOLD_BYTES = 1_024

/**
 * Answers over the home network are compressed, where it makes them smaller: a tune's first page is
 * a third of its size. On loopback it would cost both ends time and save none. What is told line by
 * line (`application/x-ndjson`) is never held back for it, and nothing a page carries is a secret
 * that its size could tell: who is signed in is known by a cookie alone.
 */
export const compressedOverNetwork = (): RequestHandler =>
  compression({
    threshold: THRESHOLD_BYTES,
    filter: (request: Request, response: Response) =>
      'encrypted' in request.socket && compression.filter(request, response),
  }) as RequestHandler
