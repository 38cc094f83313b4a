import { useMemo, useState } from 'react'
import type { TuneState } from '../../db/tunes'
import { GripsProvider } from '../services/grips/GripsContext'
import { FrameSlot, RoomContext } from '../services/room/RoomFrame'
import type { Room } from '../services/room/room'
import { SelectionProvider } from '../services/selection/SelectionContext'
import { SoundProvider } from '../services/sound/SoundContext'
import { TuneProvider } from '../services/tune/TuneContext'
import { Frame } from './Frame'

interface Props {
  state: TuneState
  /** The chord it was left at, `bar:beat`; null at the beginning. */
  at: string | null
  /** The room the player is in, and all there are. */
  room: Room
  rooms: readonly Room[]
  /** What of the tune is kept for reading without the server; asked for when it is time. */
  kept: () => readonly string[]
}

/** The workspace of one tune: what every room shares, and the room the player is in. */
export function Workspace({ state, at, room, rooms, kept }: Props) {
  const [slot] = useState(() => new FrameSlot())
  const here = useMemo(() => ({ room, slot }), [room, slot])
  const { View } = room
  return (
    <TuneProvider state={state}>
      <SelectionProvider at={at}>
        <GripsProvider>
          <SoundProvider>
            <RoomContext value={here}>{View && <View key={room.name} />}</RoomContext>
            <Frame slot={slot} rooms={rooms} kept={kept} />
          </SoundProvider>
        </GripsProvider>
      </SelectionProvider>
    </TuneProvider>
  )
}
