import RedoOutlined from '@mui/icons-material/RedoOutlined'
import UndoOutlined from '@mui/icons-material/UndoOutlined'
import IconButton from '@mui/material/IconButton'
import Tooltip from '@mui/material/Tooltip'
import { memo } from 'react'
import { Link } from 'react-router'
import { PlacesMenu } from '../theme/Places'
import { ThemeSwitch } from '../theme/ThemeSwitch'
import { useListening } from '../services/forms/useListening'
import type { SaveStatus } from '../services/tune/session'
import { Roving } from '../services/controls/Roving'
import type { Room } from '../services/room/room'

interface Props {
  id: string
  title: string
  room: Room
  rooms: readonly Room[]
  undo: string | null
  redo: string | null
  /** What undo or redo did last, in words. */
  stepped: string | null
  status: SaveStatus['kind']
  /** What waits is kept on this browser's disk. */
  keptHere: boolean
  onTitle: (title: string) => void
  onStep: (direction: 'undo' | 'redo') => void
  onRoom: (room: Room) => void
  onKeys: () => void
}

export const Header = memo(function Header({
  id,
  title,
  room,
  rooms,
  undo,
  redo,
  stepped,
  status,
  keptHere,
  onTitle,
  onStep,
  onRoom,
  onKeys,
}: Props) {
  return (
    <header className="top">
      <PlacesMenu />
      <TitleField title={title} onTitle={onTitle} />
      <Steps id={id} room={room} rooms={rooms} onRoom={onRoom} />
      <span className="save-status" role="status">
        {status === 'waiting' && !keptHere ? NOT_KEPT : STATUS_WORDS[status]}
      </span>
      <span className="stepped" role="status">
        {stepped}
      </span>
      <Tools undo={undo} redo={redo} onStep={onStep} onKeys={onKeys} />
    </header>
  )
})

function Steps({ id, room, rooms, onRoom }: Pick<Props, 'id' | 'room' | 'rooms' | 'onRoom'>) {
  return (
    <Roving as="nav" className="steps" aria-label="Steps">
      {rooms.map((one) =>
        one.View ? (
          <Link
            key={one.name}
            to={`/tunes/${id}/${one.name}`}
            aria-current={one === room ? 'step' : undefined}
            preventScrollReset
          >
            {one.label}
          </Link>
        ) : (
          <a
            key={one.name}
            href={`/tunes/${id}/${one.name}`}
            onClick={(event) => {
              event.preventDefault()
              onRoom(one)
            }}
          >
            {one.label}
          </a>
        ),
      )}
    </Roving>
  )
}

/** The same on every step. */
const Tools = memo(function Tools({
  undo,
  redo,
  onStep,
  onKeys,
}: Pick<Props, 'undo' | 'redo' | 'onStep' | 'onKeys'>) {
  return (
    <>
      <Tooltip describeChild title={undo ? `Undo: ${undo}` : 'Nothing to undo'}>
        <span>
          <IconButton
            aria-label={undo ? `Undo: ${undo}` : 'Undo'}
            disabled={!undo}
            onClick={() => onStep('undo')}
          >
            <UndoOutlined />
          </IconButton>
        </span>
      </Tooltip>
      <Tooltip describeChild title={redo ? `Redo: ${redo}` : 'Nothing to redo'}>
        <span>
          <IconButton
            aria-label={redo ? `Redo: ${redo}` : 'Redo'}
            disabled={!redo}
            onClick={() => onStep('redo')}
          >
            <RedoOutlined />
          </IconButton>
        </span>
      </Tooltip>
      <ThemeSwitch />
      <Tooltip describeChild title="Keys (?)">
        <IconButton aria-label="Keys" onClick={onKeys}>
          <span className="key-mark">?</span>
        </IconButton>
      </Tooltip>
    </>
  )
})

const STATUS_WORDS: Readonly<Record<SaveStatus['kind'], string>> = {
  opening: 'Opening…',
  saved: 'Saved',
  saving: 'Saving…',
  waiting: 'Not saved yet: the server does not answer. Kept in this browser.',
  conflict: 'Changed in another tab',
}
const NOT_KEPT =
  'Not saved yet, and this browser has no room to keep it: leave this page open, or take it out as a file.'

function TitleField({ title, onTitle }: { title: string; onTitle: (title: string) => void }) {
  const listening = useListening()
  return (
    <input
      key={title}
      className="title-field"
      aria-label="Title"
      defaultValue={title}
      maxLength={120}
      readOnly={!listening}
      onBlur={(event) => {
        const next = event.target.value.trim()
        if (next && next !== title) onTitle(next)
        else event.target.value = title
      }}
      onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
    />
  )
}
