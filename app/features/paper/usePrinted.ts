import { useEffect, useRef, useState } from 'react'
import { z } from 'zod'
import { linesOf } from '../../services/forms/ndjson'

/** How far a PDF is. */
export type PrintState =
  { kind: 'idle' } | { kind: 'working'; done: number; of: number } | { kind: 'fault'; message: string }

const onLine = z.union([
  z.object({ done: z.number(), of: z.number() }),
  z.object({ ready: z.string() }),
  z.object({ fault: z.string() }),
])

/** Has a tune or a set printed, watches how far it is, and fetches the file when it is ready. */
export function usePrinted() {
  const [state, setState] = useState<PrintState>({ kind: 'idle' })
  const running = useRef<AbortController | null>(null)
  useEffect(() => () => running.current?.abort(), [])
  const stop = () => {
    running.current?.abort()
    setState({ kind: 'idle' })
  }
  /** @param path where it is printed @param asked what is asked of it */
  const make = async (path: string, asked: URLSearchParams) => {
    stop()
    const own = new AbortController()
    running.current = own
    setState({ kind: 'working', done: 0, of: 1 })
    const address = `${path}?${new URLSearchParams([...asked, ['watch', '']])}`
    try {
      const answer = await fetch(address, { signal: own.signal })
      if (!answer.ok || !answer.body) throw new Error(await answer.text())
      for await (const line of linesOf(answer.body)) {
        const said = onLine.parse(line)
        if ('done' in said) setState({ kind: 'working', ...said })
        else if ('fault' in said) setState({ kind: 'fault', message: said.fault })
        else {
          window.location.assign(`${path}?${new URLSearchParams({ ready: said.ready })}`)
          setState({ kind: 'idle' })
        }
      }
    } catch (error) {
      if (!own.signal.aborted)
        setState({ kind: 'fault', message: error instanceof Error ? error.message : String(error) })
    }
  }
  return { state, make, stop }
}
