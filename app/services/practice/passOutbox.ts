import { loggedPass, type LoggedPass } from '../../../core/practice/passSchema'

/** Where passes wait on this computer until the log has them. */
const WAITING = 'passes waiting'

function waiting(): LoggedPass[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(WAITING) ?? '[]')
    return Array.isArray(kept)
      ? kept.flatMap((one) => {
          const pass = loggedPass.safeParse(one)
          return pass.success ? [pass.data] : []
        })
      : []
  } catch {
    return []
  }
}
const keep = (passes: readonly LoggedPass[]): void => {
  try {
    localStorage.setItem(WAITING, JSON.stringify(passes))
  } catch {
    // Without a place on this computer it is only sent.
  }
}

/** Sends what is told to the log. @returns null when it has it, else why not */
export async function tellLog(body: unknown): Promise<string | null> {
  try {
    const response = await fetch('/practice/passes', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
      keepalive: true,
    })
    if (response.ok) return null
    const said = (await response.json().catch(() => null)) as { message?: unknown } | null
    return typeof said?.message === 'string' ? said.message : `The log answers ${response.status}.`
  } catch {
    return 'The log cannot be reached; what you play is kept here and sent when it can be.'
  }
}

/** Something waits on this computer. */
export const isWaiting = (): boolean => waiting().length > 0

/** Sends what waits. @returns null when nothing waits any more, else why */
export async function sendWaiting(): Promise<string | null> {
  const passes = waiting()
  if (passes.length === 0) return null
  const fault = await tellLog({ do: 'keep', passes })
  if (fault) return fault
  const sent = new Set(passes.map(({ id }) => id))
  keep(waiting().filter(({ id }) => !sent.has(id)))
  return null
}

/**
 * A pass that was graded: kept here first, then sent, so that neither page nor server can lose it.
 */
export function logPass(pass: LoggedPass): Promise<string | null> {
  keep([...waiting(), pass])
  return sendWaiting()
}
