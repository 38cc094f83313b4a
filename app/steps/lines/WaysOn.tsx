import { memo } from 'react'
import Button from '@mui/material/Button'
import type { OnTheWay } from '../../../core/leading/onTheWay'
import type { NextGrip } from '../../../workers/searchQuestions'
import { ChordName } from '../../services/notation/ChordName'
import { engravedWords } from '../../../core/chord/engraved'
import { halfSteps } from '../../services/words/handWords'
import { GripDiagram } from '../../services/notation/GripDiagram'

interface Props {
  /** Null while they are being found. */
  found: { ways: readonly NextGrip[]; stops: readonly OnTheWay[] } | null
  capo: number
  /** Frets of the next chord as it is. */
  now: string
  /** Whether the chord, and the next one, has a beat to give away. */
  room: Readonly<Record<OnTheWay['takes'], boolean>>
  onTake: (way: NextGrip) => void
  onHear: (stop: OnTheWay) => void
  onStop: (stop: OnTheWay) => void
}

/**
 * How to get from the selected grip to the next chord, from the smoothest way to the boldest, and
 * what can stand on a beat between them.
 */
export const WaysOn = memo(function WaysOn({ found, capo, now, room, onTake, onHear, onStop }: Props) {
  const stops = found?.stops.filter(({ takes }) => room[takes]) ?? []
  return (
    <section aria-label="On to the next chord">
      <h3>On to the next chord, from the smoothest way to the boldest</h3>
      {!found && <p className="quiet">Looking for ways.</p>}
      <ol className="ways-on">
        {found?.ways.map((way, at) => (
          <li key={at}>
            <GripDiagram voicing={way.voicing} capo={capo} />
            <div>
              <b>voices move {halfSteps(way.motion)}</b>
              {way.voicing.frets.join() === now && ' (as it is)'}
              <p>{engravedWords(way.words)}.</p>
              <Button size="small" disabled={way.voicing.frets.join() === now} onClick={() => onTake(way)}>
                Take this way
              </Button>
            </div>
          </li>
        ))}
      </ol>
      {found && (
        <>
          <h3>A beat between</h3>
          {stops.length === 0 && (
            <p className="quiet">
              {room['end of first'] || room['beginning of second']
                ? 'No voice that moves by step can come late or early here, and nothing lies between.'
                : 'Neither chord has two beats to give one away.'}
            </p>
          )}
          <ol className="ways-on" aria-label="A beat between">
            {stops.map((stop, at) => (
              <li key={at}>
                <GripDiagram voicing={stop.voicing} capo={capo} />
                <div>
                  <b>
                    <ChordName chord={stop.chord} />
                  </b>
                  , {stop.kind}
                  <p>{engravedWords(stop.words)}.</p>
                  <Button size="small" onClick={() => onHear(stop)}>
                    Hear it
                  </Button>
                  <Button size="small" onClick={() => onStop(stop)}>
                    Put it there
                  </Button>
                </div>
              </li>
            ))}
          </ol>
        </>
      )}
    </section>
  )
})
