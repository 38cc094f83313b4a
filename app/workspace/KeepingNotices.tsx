import Button from '@mui/material/Button'
import type { SessionView, TuneSession } from '../services/tune/session'
import { fileNameFrom } from '../../core/formats/fileName'
import { saveFile } from '../services/sound/saveSound'
import { ConflictNotice } from './ConflictNotice'

interface Props {
  view: Pick<SessionView, 'status' | 'keptHere' | 'aside'> & { title: string }
  /** What of the tune this version could not read when it was opened. */
  unread: readonly string[]
  session: TuneSession
}

/**
 * Everything that is not simply saved: said where the music is, with a way out that loses nothing.
 */
export function KeepingNotices({ view: { status, keptHere, aside, title }, unread, session }: Props) {
  const onFile = () =>
    saveFile(new Blob([session.asFile()], { type: 'application/json' }), `${fileNameFrom(title)} kept.json`)
  return (
    <>
      {status.kind === 'conflict' && (
        <ConflictNotice
          trouble={status.trouble}
          onMine={session.putMineOnTop}
          onCopy={() => void session.keepMineAsCopy()}
          onFile={onFile}
        />
      )}
      {status.kind === 'waiting' && (status.message || !keptHere) && (
        <p className="notice" role="alert">
          {status.message ? `${status.message} ` : ''}
          {keptHere
            ? 'What you made since is kept in this browser and is saved as soon as it can be.'
            : 'This browser has no room to keep what you made since: leave the page open until it is saved, or save it as a file.'}
          <Button size="small" onClick={onFile}>
            Save it as a file
          </Button>
        </p>
      )}
      {aside.map(({ id, what, message }) => (
        <p key={id} className="notice" role="alert">
          <b>Not taken: {what}.</b> {message} Everything else is as it was.{' '}
          <Button size="small" onClick={onFile}>
            Save it as a file
          </Button>
          <Button size="small" onClick={() => session.letAsideGo(id)}>
            Understood
          </Button>
        </p>
      ))}
      {unread.length > 0 && (
        <div className="notice" role="alert">
          <p>
            <b>Some of this tune could not be read by this version, and is left out of what is shown.</b> It
            stays in the history of the tune as it was written.
          </p>
          <ul>
            {unread.slice(0, UNREAD_SAID).map((one) => (
              <li key={one}>{one}</li>
            ))}
            {unread.length > UNREAD_SAID && <li>and {unread.length - UNREAD_SAID} more</li>}
          </ul>
        </div>
      )}
    </>
  )
}

const UNREAD_SAID = 6
