import { itemAt } from '../core/lists'
import type { NextFunction, Request, Response } from 'express'
import { dirname, join, resolve } from 'node:path'
import { pino, type Logger } from 'pino'
import roll from 'pino-roll'
import { z } from 'zod'

/**
 * What went wrong and what was slow, in `log/` beside the book: five files of 1 MB at most. Nothing
 * a player typed is in it: of an address only its path, of a fault its kind, its code and its
 * places in the program, since its words may hold a chart or a title.
 */
const FILES = { size: '1m', limit: { count: 4 } }
/** What waits to be written while the disk takes nothing, in bytes; more is let go. */
const MOST_WAITING = 64 * 1024
/** An answer that takes longer is written down. */
const SLOW_MS = 2_000

/**
 * Without a folder that can be written there is no log, which is said once; the book itself may
 * still be read. A disk that is full, or that fails, takes nothing of the log: that is said once
 * too, until something is written again, and harms nothing else.
 */
export async function openLog(book: string): Promise<Logger> {
  try {
    const file = join(dirname(resolve(book)), 'log', 'heron')
    const out = await roll({ ...FILES, file, mkdir: true, sync: true, maxLength: MOST_WAITING })
    let isSaid = false
    out.on('error', (error: Error) => {
      if (!isSaid) process.stderr.write(`The log cannot be written: ${error.message}\n`)
      isSaid = true
    })
    out.on('write', () => (isSaid = false))
    return pino({ base: null, timestamp: pino.stdTimeFunctions.isoTime }, out)
  } catch (error) {
    process.stderr.write(`There is no log: ${error instanceof Error ? error.message : String(error)}\n`)
    return pino({ enabled: false })
  }
}

export interface FaultTold {
  name: string
  code?: string
  at: string[]
}

const MOST_PLACES = 12
/** A fault without its words. */
export function faultTold(error: unknown): FaultTold {
  if (!(error instanceof Error)) return { name: typeof error, at: [] }
  const { code } = error as { code?: unknown }
  return {
    name: error.name.slice(0, 60),
    ...(typeof code === 'string' ? { code: code.slice(0, 60) } : {}),
    at: placesIn(error.stack ?? ''),
  }
}

/**
 * The lines of a stack that name a place in the program; words of the fault before them are left
 * out.
 */
const placesIn = (stack: string): string[] =>
  stack
    .split('\n')
    .flatMap((line) => {
      const read = PLACE.exec(line)
      return read ? [`${read[1] ?? ''} ${itemAt(read, 2)}`.trim()] : []
    })
    .slice(0, MOST_PLACES)
const PLACE = /^\s*at (?:([\w.<>[\] ]{1,80}) \()?[^\s()]{0,300}?([\w.-]{1,80}:\d{1,7}:\d{1,7})\)?$/

/** Answers that failed or were slow. */
export const logAnswers =
  (log: Logger) =>
  (request: Request, response: Response, next: NextFunction): void => {
    const from = performance.now()
    response.on('finish', () => {
      const ms = Math.round(performance.now() - from)
      const of = { method: request.method, path: request.path.slice(0, 200), status: response.statusCode, ms }
      if (response.statusCode >= 500) log.error(of, 'failed')
      else if (ms > SLOW_MS) log.warn(of, 'slow')
    })
    next()
  }

/** What a page tells of a fault of its own. */
const pageFault = z.strictObject({
  name: z.string().max(60),
  stack: z.string().max(8_000),
  page: z.string().max(200),
})
/**
 * Faults of pages that are written down in a minute: a page that fails in a circle must not fill
 * the log.
 */
const MOST_A_MINUTE = 20
const MINUTE_MS = 60_000

/** Takes faults of pages: 204 whether or not they are written down. */
export function pageFaults(log: Logger): (request: Request, response: Response) => void {
  let [since, count] = [0, 0]
  return (request, response) => {
    const told = pageFault.safeParse(request.body)
    if (!told.success)
      return void response.status(400).type('text/plain').send('A name, a stack and a page are accepted.\n')
    if (Date.now() - since > MINUTE_MS) [since, count] = [Date.now(), 0]
    count += 1
    if (count <= MOST_A_MINUTE)
      log.error(
        {
          fault: { name: told.data.name.replace(/[^\w ]/g, ''), at: placesIn(told.data.stack) },
          page: told.data.page.replace(/[?#].*$/, ''),
        },
        'page failed',
      )
    response.status(204).end()
  }
}
