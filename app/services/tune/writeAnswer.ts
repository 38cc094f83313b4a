import { z } from 'zod'
import type { TuneState } from '../../../db/tunes'

/** What became of a write that was sent. */
export type WriteAnswer =
  | {
      kind: 'done'
      state: TuneState
      /** The revision it made, where it was known from before. */ made?: string
    }
  | { kind: 'copied' }
  | { kind: 'conflict'; theirs: TuneState }
  | { kind: 'refused'; message: string }
  /** The server failed on it: it may be the write's fault. */
  | { kind: 'failed'; message: string }
  /**
   * Nothing came back, or nothing that says what became of it; `message` where the server said why.
   */
  | { kind: 'unreachable'; message?: string }

/** An answer that has not come whole by then is taken as none. */
const ANSWER_MS = 20_000
/** A request may go on when the page is left, up to the browser's limit. */
const KEEPALIVE_LETTERS = 60_000

const state = z.looseObject({
  id: z.string(),
  revision: z.string(),
  document: z.looseObject({ title: z.string(), text: z.string() }),
  undo: z.string().nullable(),
  redo: z.string().nullable(),
})
const said = z.looseObject({ message: z.string() })

/**
 * Sends a write and reads what comes back, whatever it is: JSON, text, half of either, or nothing.
 * Never rejects.
 */
export async function sendWrite(address: string, body: unknown): Promise<WriteAnswer> {
  const content = JSON.stringify(body)
  return ask(address, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: content,
    keepalive: content.length < KEEPALIVE_LETTERS,
  })
}

export const askState = (address: string): Promise<WriteAnswer> => ask(address, {})

async function ask(address: string, request: RequestInit): Promise<WriteAnswer> {
  let status: number
  let text: string
  try {
    const response = await fetch(address, { ...request, signal: AbortSignal.timeout(ANSWER_MS) })
    status = response.status
    text = await response.text()
  } catch {
    return { kind: 'unreachable' }
  }
  return answerOf(status, text)
}

export function answerOf(status: number, text: string): WriteAnswer {
  const json = readJson(text)
  const message =
    said.safeParse(json).data?.message ?? (text.trimStart().startsWith('<') ? '' : text.trim().slice(0, 400))
  const present = state.safeParse(json)
  if (status === 200) {
    if (present.success)
      return {
        kind: 'done',
        state: json as TuneState,
        ...(typeof present.data.made === 'string' ? { made: present.data.made } : {}),
      }
    return json !== null && typeof json === 'object' && 'copied' in json
      ? { kind: 'copied' }
      : { kind: 'unreachable' }
  }
  if (status === 409 && present.success) return { kind: 'conflict', theirs: json as TuneState }
  // What is no fault of the write waits: another address, another site, a tune deleted elsewhere, a
  // disk that is full.
  if ([401, 403, 404, 408, 421, 429, 502, 503, 504].includes(status))
    return { kind: 'unreachable', ...(message ? { message } : {}) }
  if (status >= 500) return { kind: 'failed', message: message || `The server failed (${status}).` }
  if (status >= 400) return { kind: 'refused', message: message || `The server refused it (${status}).` }
  return { kind: 'unreachable' }
}

function readJson(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return null
  }
}
