import type { NextFunction, Request, Response } from 'express'
import { randomBytes } from 'node:crypto'

/**
 * The largest body taken: 2 MB, and for what is made of a tune 16 MB (what a tab made in an hour
 * without the server, kept as a copy).
 */
export const MOST_BODY_BYTES = 2 * 1024 * 1024
export const MOST_EDITS_BYTES = 16 * 1024 * 1024
/** A backup is written to disk as it comes; a tune from elsewhere may be a large score. */
export const MOST_BACKUP_BYTES = 8 * 1024 ** 3
export const MOST_TUNE_FILE_BYTES = 20 * 1024 * 1024
function mostBytes(path: string): number {
  if (/^\/tunes\/[^/]+\/edits$/.test(path)) return MOST_EDITS_BYTES
  if (path === '/files/restore') return MOST_BACKUP_BYTES
  return path === '/files/tunes' ? MOST_TUNE_FILE_BYTES : MOST_BODY_BYTES
}

/** A page may only run our own scripts (by nonce), load only from here, and be framed nowhere. */
export function contentSecurityPolicy(nonce: string): string {
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}'`,
    `style-src 'self' 'nonce-${nonce}'`,
    // Positions that scripts compute (slider thumbs, popovers) are style attributes; they cannot
    // run anything.
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' data:",
    "font-src 'self'",
    "connect-src 'self'",
    // The audio library keeps time in a worker it makes from a blob.
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ')
}

export function securityHeaders(_request: Request, response: Response, next: NextFunction): void {
  const nonce = randomBytes(16).toString('base64')
  response.locals.nonce = nonce
  response.set({
    'Content-Security-Policy': contentSecurityPolicy(nonce),
    'X-Content-Type-Options': 'nosniff',
    'Referrer-Policy': 'same-origin',
    'Cross-Origin-Opener-Policy': 'same-origin',
    'Cross-Origin-Resource-Policy': 'same-origin',
    // The player's own: no cache keeps it, the browser's for its Back among them. Files of the
    // application say otherwise for themselves.
    'Cache-Control': 'private, no-store',
  })
  next()
}

const LOOPBACK = /^(localhost|127(\.\d{1,3}){3}|\[::1\])(:\d+)?$/

/**
 * Names under which the home network may ask, where it is served at all; see `access/network.ts`.
 */
export const ownHostsOnly =
  (isOwn: (host: string | undefined) => boolean) =>
  (request: Request, response: Response, next: NextFunction): void =>
    'encrypted' in request.socket && isOwn(request.headers.host)
      ? next()
      : loopbackOnly(request, response, next)

/**
 * Only addresses of this machine are served, so that a foreign name pointed at it reads nothing.
 */
export function loopbackOnly(request: Request, response: Response, next: NextFunction): void {
  if (LOOPBACK.test(request.headers.host ?? '')) return next()
  refuse(
    response,
    421,
    `This server answers only to its own address (localhost or 127.0.0.1), not to "${request.headers.host ?? ''}".`,
  )
}

const READS = ['GET', 'HEAD', 'OPTIONS']
const METHODS = [...READS, 'POST']

/** What a page asks with, and nothing else. */
export function knownMethods(request: Request, response: Response, next: NextFunction): void {
  if (METHODS.includes(request.method)) return next()
  response.set('Allow', METHODS.join(', '))
  refuse(response, 405, `${request.method} is not answered here. Accepted: ${METHODS.join(', ')}.`)
}

/** An address is read before anything else reads it. */
export function readableAddress(request: Request, response: Response, next: NextFunction): void {
  try {
    decodeURIComponent(request.path)
  } catch {
    return refuse(
      response,
      400,
      'This address cannot be read: a % in it must be followed by two digits of a letter.',
    )
  }
  next()
}

/**
 * A body that broke off is the client's fault; what else was thrown is told without its inside.
 * @param onFault what else is done with it
 */
export const plainFaults =
  (onFault: (error: unknown) => void) =>
  (error: unknown, _request: Request, response: Response, next: NextFunction): void => {
    if (response.headersSent) return next(error)
    const status = (error as { status?: unknown } | null)?.status
    if (typeof status === 'number' && status >= 400 && status < 500)
      return refuse(response, 400, 'This request could not be read. Nothing was changed.')
    onFault(error)
    refuse(response, 500, 'Something went wrong in the server. What was saved is safe; the log says more.')
  }

/** Writes must come from our own pages: same origin by the browser's own headers. */
export function sameSiteWrites(request: Request, response: Response, next: NextFunction): void {
  if (READS.includes(request.method)) return next()
  const site = request.headers['sec-fetch-site']
  const { origin, host } = request.headers
  const scheme = 'encrypted' in request.socket ? 'https' : 'http'
  const foreignOrigin = origin !== undefined && origin !== `${scheme}://${host}`
  if (foreignOrigin || (site !== undefined && site !== 'same-origin' && site !== 'none'))
    return refuse(
      response,
      403,
      'This change came from another site and was refused. Nothing was changed. Open the page itself and try again.',
    )
  next()
}

/**
 * A body has so long, in ms, and a byte of it so much more: 50 KB a second are the least that a
 * home network brings.
 */
const BODY_MS = 20_000
const BODY_MS_A_BYTE = 1 / 50
const CHECKED_MS = 1_000

/**
 * Ends a request whose body does not come: what came so far must have come at a usual pace. @param
 * atLeastMs so long it has in any case
 */
export const bodyInTime =
  (atLeastMs = BODY_MS) =>
  (request: Request, response: Response, next: NextFunction): void => {
    if (READS.includes(request.method)) return next()
    const begun = performance.now()
    const before = request.socket.bytesRead
    const check = setInterval(
      () => {
        const came = request.socket.bytesRead - before
        if (performance.now() - begun < atLeastMs + came * BODY_MS_A_BYTE) return
        clearInterval(check)
        if (!response.headersSent) {
          response.set('Connection', 'close')
          refuse(response, 408, 'This request did not come whole in time. Nothing was changed. Try again.')
        }
        request.socket.destroySoon()
      },
      Math.min(CHECKED_MS, atLeastMs),
    )
    check.unref()
    const done = () => clearInterval(check)
    request.once('end', done).once('close', done)
    next()
  }

/**
 * Refuses a body over the limit, by its stated length at once, else as soon as it has grown too
 * large.
 */
export function bodyLimit(request: Request, response: Response, next: NextFunction): void {
  const most = mostBytes(request.path)
  const tooLarge = () =>
    refuse(
      response,
      413,
      `This is over ${most / 1024 / 1024} MB, more than a chart or form can be. Nothing was changed.`,
    )
  if (Number(request.headers['content-length'] ?? 0) > most) {
    response.set('Connection', 'close')
    return tooLarge()
  }
  if (READS.includes(request.method) || request.headers['content-length'] !== undefined) return next()
  let size = 0
  request.on('data', (chunk: Buffer) => {
    size += chunk.length
    if (size <= most) return
    if (!response.headersSent) {
      response.set('Connection', 'close')
      tooLarge()
    }
    request.destroy()
  })
  // The listener above must not start the flow before the application reads.
  request.pause()
  next()
}

function refuse(response: Response, status: number, message: string): void {
  response.status(status).type('text/plain').send(`${message}\n`)
}
