import { faultWords } from '../../../core/result'
import Button from '@mui/material/Button'
import { useRef, useState } from 'react'
import { Form, useNavigate } from 'react-router'
import { z } from 'zod'
import { inPieces } from '../../../core/practice/csv'
import { Working } from '../../services/forms/Notices'
import { UNREACHABLE } from '../../services/forms/unlessUnreachable'

const answer = z.object({ kept: z.number(), problems: z.array(z.string()) })
/** Lines that could not be read are told up to here. */
const TOLD = 5

type BringInState =
  { kind: 'idle' } | { kind: 'working'; done: number; of: number } | { kind: 'told'; message: string }

/**
 * Brings a log in piece by piece: how far it is shows, and it can be stopped; what was brought in
 * by then stays.
 */
export function BringIn() {
  const navigate = useNavigate()
  const [state, setState] = useState<BringInState>({ kind: 'idle' })
  const running = useRef<AbortController | null>(null)
  const bring = async (file: File) => {
    const own = new AbortController()
    running.current = own
    setState({ kind: 'working', done: 0, of: 1 })
    let kept = 0
    const problems: string[] = []
    try {
      const pieces = inPieces(await file.text())
      for (const [at, { csv, firstLine }] of pieces.entries()) {
        const sent = await fetch(`/log/file?line=${firstLine}`, {
          method: 'POST',
          body: csv,
          headers: { 'Content-Type': 'text/csv' },
          signal: own.signal,
        })
        if (!sent.ok) throw new Error(await sent.text())
        const said = answer.parse(await sent.json())
        kept += said.kept
        problems.push(...said.problems)
        setState({ kind: 'working', done: at + 1, of: pieces.length })
      }
    } catch (error) {
      const why = error instanceof TypeError ? UNREACHABLE : faultWords(error)
      return setState({
        kind: 'told',
        message: own.signal.aborted
          ? `Stopped: ${kept} passes were brought in by then. Brought in again, the file goes on from there.`
          : `${why} ${kept} passes were brought in by then.`,
      })
    }
    setState(
      problems.length === 0
        ? { kind: 'idle' }
        : {
            kind: 'told',
            message: `${kept} passes were new and are in the log. ${problems.length} lines could not be read: ${problems.slice(0, TOLD).join(' ')}`,
          },
    )
    await navigate(problems.length === 0 ? `/log?brought=${kept}` : '/log', { preventScrollReset: true })
  }
  return (
    <Form
      method="post"
      encType="multipart/form-data"
      onSubmit={(event) => {
        event.preventDefault()
        const file = new FormData(event.currentTarget).get('file')
        if (file instanceof File) void bring(file)
      }}
    >
      <input type="hidden" name="intent" value="bring" />
      <label>
        CSV to bring in <input type="file" name="file" accept=".csv,text/csv" required />
      </label>
      {state.kind === 'working' ? (
        <Working label="Bringing the log in" at={state} onStop={() => running.current?.abort()} />
      ) : (
        <Button type="submit">Bring in</Button>
      )}
      {state.kind === 'told' && (
        <p className="notice" role="alert">
          {state.message}
        </p>
      )}
    </Form>
  )
}
