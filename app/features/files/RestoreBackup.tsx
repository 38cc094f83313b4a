import { faultWords } from '../../../core/result'
import Button from '@mui/material/Button'
import { useRef, useState } from 'react'
import { Link } from 'react-router'
import { z } from 'zod'
import { linesOf } from '../../services/forms/ndjson'
import { Working } from '../../services/forms/Notices'
import { UNREACHABLE } from '../../services/forms/unlessUnreachable'

const restored = z.object({
  made: z.string(),
  brought: z.number(),
  same: z.number(),
  deleted: z.array(z.string()),
  beside: z.array(z.string()),
  left: z.array(z.string()),
  grips: z.number(),
  sets: z.number(),
  passes: z.number(),
  player: z.boolean(),
  unread: z.array(z.string()),
})
const onLine = z.union([
  z.object({ done: z.number(), of: z.number() }),
  z.object({ restored }),
  z.object({ fault: z.string() }),
])

type RestoreState =
  | { kind: 'idle' }
  | { kind: 'sending' }
  | { kind: 'working'; done: number; of: number }
  | { kind: 'restored'; said: z.infer<typeof restored> }
  | { kind: 'fault'; message: string }

/** Sends a backup, shows how far it is brought in, and says what came of it. */
export function RestoreBackup() {
  const [state, setState] = useState<RestoreState>({ kind: 'idle' })
  const running = useRef<AbortController | null>(null)
  const restore = async (form: FormData) => {
    const file = form.get('file')
    if (!(file instanceof File)) return
    const own = new AbortController()
    running.current = own
    setState({ kind: 'sending' })
    const asked = new URLSearchParams({
      different: form.has('leave') ? 'leave' : 'beside',
      player: form.has('player') ? 'take' : 'keep',
    })
    try {
      const answer = await fetch(`/files/restore?${asked}`, {
        method: 'POST',
        body: file,
        headers: { 'Content-Type': 'application/zip' },
        signal: own.signal,
      })
      if (!answer.ok || !answer.body) throw new Error(await answer.text())
      for await (const line of linesOf(answer.body)) {
        const said = onLine.parse(line)
        if ('done' in said) setState({ kind: 'working', ...said })
        else if ('fault' in said) setState({ kind: 'fault', message: said.fault })
        else setState({ kind: 'restored', said: said.restored })
      }
    } catch (error) {
      const why = error instanceof TypeError ? UNREACHABLE : faultWords(error)
      setState({
        kind: 'fault',
        message: own.signal.aborted
          ? 'Stopped. What was brought in by then stays; brought in again, the file goes on from there.'
          : why,
      })
    }
  }
  const busy = state.kind === 'sending' || state.kind === 'working'
  return (
    <form
      className="files-form"
      onSubmit={(event) => {
        event.preventDefault()
        void restore(new FormData(event.currentTarget))
      }}
    >
      <label>
        Backup file <input type="file" name="file" accept=".zip,application/zip" required />
      </label>
      <label className="tick">
        <input type="checkbox" name="leave" /> Leave out tunes and sets that differ from mine
      </label>
      <label className="tick">
        <input type="checkbox" name="player" /> Take the player&rsquo;s settings of the backup
      </label>
      {busy ? (
        <Working
          label={state.kind === 'sending' ? 'Sending the backup' : 'Restoring'}
          at={state.kind === 'working' ? state : null}
          onStop={() => running.current?.abort()}
        />
      ) : (
        <Button type="submit">Restore</Button>
      )}
      {state.kind === 'fault' && (
        <p className="notice" role="alert">
          {state.message}
        </p>
      )}
      {state.kind === 'restored' && <Said said={state.said} />}
    </form>
  )
}

function Said({ said }: { said: z.infer<typeof restored> }) {
  const { made, brought, same, deleted, beside, left, grips, sets, passes, player, unread } = said
  return (
    <div className="notice" role="status">
      <p>
        The backup of {made.slice(0, 10)}: {brought} tunes brought in, {same} were here and the same. New:{' '}
        {grips} grips, {sets} sets, {passes} passes of the log.{' '}
        {player
          ? 'The player’s settings are those of the backup.'
          : 'The player’s settings stay as they were.'}
      </p>
      {deleted.length > 0 && (
        <p>
          Deleted in this book, and waiting in the list of <Link to="/deleted">deleted tunes</Link>:{' '}
          {deleted.join('; ')}.
        </p>
      )}
      {beside.length > 0 && <p>Beside tunes that are others now: {beside.join('; ')}.</p>}
      {left.length > 0 && <p>Left out, because they are others now: {left.join('; ')}.</p>}
      {unread.length > 0 && <p>Not read: {unread.join(' ')}</p>}
    </div>
  )
}
