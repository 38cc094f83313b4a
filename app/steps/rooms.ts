import type { Room } from '../services/room/room'
import { chartRoom } from './chart/room'
import { colourRoom } from './colour/room'
import { linesRoom } from './lines/room'
import { melodyRoom } from './melody/room'
import { practiceRoom } from './practice/room'
import { rhythmRoom } from './rhythm/room'
import { sheetRoom } from './sheet/room'

/** The steps of the work in their order, as they stand along the top. */
export const ROOMS: readonly Room[] = [
  chartRoom,
  colourRoom,
  linesRoom,
  melodyRoom,
  rhythmRoom,
  practiceRoom,
  sheetRoom,
]

/** The room of a name in the address; undefined where there is none. */
export const roomNamed = (name: string | undefined, rooms = ROOMS): Room | undefined =>
  rooms.find((room) => room.name === name && room.View !== null)
