import { useEffect, useRef, useState } from 'react'
import { z } from 'zod'
import { linesOf } from '../../services/forms/ndjson'

/** How far the PDF of a set is. */
export type SetPdfState =
  { kind: 'idle' } | { kind: 'working'; done: number; of: number } | { kind: 'fault'; message: string }

const told = z.union([
  z.object({ done: z.number(), of: z.number() }),
  z.object({ ready: z.string() }),
  z.object({ fault: z.string() }),
])

/** Has a set printed, watches how far it is, and fetches the file when it is ready. */
export function useSetPdf(setId: string) {
  const [state, setState] = useState<SetPdfState>({ kind: 'idle' })
  const running = useRef<AbortController | null>(null)
  useEffect(() => () => running.current?.abort(), [])
  const stop = () => {
    running.current?.abort()
    setState({ kind: 'idle' })
  }
  const make = async (layout: string) => {
    stop()
    const own = new AbortController()
    running.current = own
    setState({ kind: 'working', done: 0, of: 1 })
    const address = `/sets/${setId}/set.pdf?${new URLSearchParams({ layout, watch: '' })}`
    try {
      const answer = await fetch(address, { signal: own.signal })
      if (!answer.ok || !answer.body) throw new Error(await answer.text())
      for await (const line of linesOf(answer.body)) {
        const said = told.parse(line)
        if ('done' in said) setState({ kind: 'working', ...said })
        else if ('fault' in said) setState({ kind: 'fault', message: said.fault })
        else {
          window.location.assign(`/sets/${setId}/set.pdf?${new URLSearchParams({ ready: said.ready })}`)
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
