import Button from '@mui/material/Button'
import { useEffect } from 'react'
import type { TuneDocument } from '../../core/tune/document'
import { usePlayerSettings } from '../services/player/PlayerContext'
import type { Room } from '../services/room/room'

interface Props {
  room: Room
  rooms: readonly Room[]
  document: TuneDocument
  onRoom: (room: Room) => void
}

/** The first two of the first steps are told in the songbook. */
const TOLD_BEFORE = 2

/**
 * The rest of the first steps, each told as its room says it, in the room where it is done, until
 * it is done or skipped.
 */
export function FirstStrip({ room, rooms, document, onRoom }: Props) {
  const {
    settings: { firstSteps },
    change,
  } = usePlayerSettings()
  const steps = rooms.flatMap((one) => (one.firstStep ? [{ ...one.firstStep, room: one }] : []))
  const at = steps.findIndex(({ name }) => name === firstSteps)
  const [own, next] = [steps[at], steps[at + 1]]
  const isDone = own?.done?.is(document) ?? false
  // Whoever goes on by themselves is on the next step.
  const goneTo = isDone && room === next?.room ? next.name : null
  useEffect(() => {
    if (goneTo) change({ firstSteps: goneTo })
  }, [goneTo, change])
  if (!own) return null
  const isHere = room === own.room
  const { label } = own.room
  const toDo = isDone ? own.done!.says : own.says
  return (
    <div className="first-strip" role="group" aria-label="First steps">
      <p role="status">
        <b>
          {TOLD_BEFORE + at + 1} of {TOLD_BEFORE + steps.length}, {label}.
        </b>{' '}
        {isHere ? toDo : 'It is done on its own step.'}
      </p>
      {!isHere && (
        <Button size="small" variant="contained" color="primary" onClick={() => onRoom(own.room)}>
          Go to {label}
        </Button>
      )}
      {isHere && isDone && next && (
        <Button
          size="small"
          variant="contained"
          color="primary"
          onClick={() => {
            change({ firstSteps: next.name })
            onRoom(next.room)
          }}
        >
          On to {next.room.label}
        </Button>
      )}
      {isHere && !next ? (
        <Button
          size="small"
          variant="contained"
          color="primary"
          onClick={() => change({ firstSteps: 'away' })}
        >
          Done
        </Button>
      ) : (
        <Button size="small" onClick={() => change({ firstSteps: 'away' })}>
          Skip the first steps
        </Button>
      )}
    </div>
  )
}
