import Button from '@mui/material/Button'
import { useEffect } from 'react'
import type { TuneDocument } from '../../core/tune/document'
import { usePlayerSettings } from '../services/player/PlayerContext'
import type { Room } from '../services/room/room'

interface Props {
  room: Room
  rooms: readonly Room[]
  document: Pick<TuneDocument, 'colour' | 'choices'>
  onRoom: (room: Room) => void
}

/** The last two of the first steps, each told in the room where it is done, until it is done or skipped. */
const STEPS = {
  colour: {
    place: 3,
    room: 'colour',
    says: 'Move the control from plain to ninths, then press Space: the plain chords, then yours.',
    done: 'That is a richer version. Hear it with Space; move the control further if you like.',
  },
  lines: {
    place: 4,
    room: 'lines',
    says: 'Every chord has a grip, and the threads are its voices. Choose another line above, press Space, and play along.',
    done: '',
  },
} as const

export function FirstStrip({ room, rooms, document, onRoom }: Props) {
  const {
    settings: { firstSteps },
    change,
  } = usePlayerSettings()
  const isColoured = document.colour > 0 || Object.keys(document.choices).length > 0
  // Whoever goes on by themselves is on the next step.
  useEffect(() => {
    if (firstSteps === 'colour' && isColoured && room.name === 'lines') change({ firstSteps: 'lines' })
  }, [firstSteps, isColoured, room.name, change])
  if (firstSteps !== 'colour' && firstSteps !== 'lines') return null
  const step = STEPS[firstSteps]
  const [own, lines] = [step.room, 'lines'].map((name) => rooms.find((one) => one.name === name))
  if (!own || !lines) return null
  const isHere = room === own
  const toDo = firstSteps === 'colour' && isColoured ? step.done : step.says
  return (
    <div className="first-strip" role="group" aria-label="First steps">
      <p role="status">
        <b>
          {step.place} of 4, {own.label}.
        </b>{' '}
        {isHere ? toDo : 'It is done on its own step.'}
      </p>
      {!isHere && (
        <Button size="small" variant="contained" color="primary" onClick={() => onRoom(own)}>
          Go to {own.label}
        </Button>
      )}
      {isHere && firstSteps === 'colour' && isColoured && (
        <Button
          size="small"
          variant="contained"
          color="primary"
          onClick={() => {
            change({ firstSteps: 'lines' })
            onRoom(lines)
          }}
        >
          On to Lines
        </Button>
      )}
      {isHere && firstSteps === 'lines' ? (
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
