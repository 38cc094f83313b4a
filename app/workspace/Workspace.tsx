import { useState } from 'react'
import type { TuneState } from '../../db/tunes'
import { GripsProvider } from '../services/grips/GripsContext'
import type { Room } from '../services/room/room'
import { SelectionProvider } from '../services/selection/SelectionContext'
import { SoundProvider } from '../services/sound/SoundContext'
import { TuneProvider } from '../services/tune/TuneContext'
import { Frame } from './Frame'
import { RoomNow, Speaking } from './roomNow'

interface Props {
  state: TuneState
  /** The room the player is in, and all there are. */
  room: Room
  rooms: readonly Room[]
}

/** The workspace of one tune: what every room shares, and the room the player is in. */
export function Workspace({ state, room, rooms }: Props) {
  const [told] = useState(() => new RoomNow())
  return (
    <TuneProvider state={state}>
      <SelectionProvider>
        <GripsProvider>
          <SoundProvider>
            <Speaking key={room.name} room={room} told={told} />
            <Frame told={told} rooms={rooms} />
          </SoundProvider>
        </GripsProvider>
      </SelectionProvider>
    </TuneProvider>
  )
}
