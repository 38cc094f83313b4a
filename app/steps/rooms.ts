import type { Room } from '../services/room/room'
import { chart } from './chart/room'
import { colour } from './colour/room'
import { lines } from './lines/room'
import { melody } from './melody/room'
import { practice } from './practice/room'
import { rhythm } from './rhythm/room'
import { sheet } from './sheet/room'

/** The steps of the work in their order, as they stand along the top. */
export const ROOMS: readonly Room[] = [chart, colour, lines, melody, rhythm, practice, sheet]

/** The room of a name in the address; undefined where there is none. */
export const roomNamed = (name: string | undefined, rooms = ROOMS): Room | undefined =>
  rooms.find((room) => room.name === name && room.View !== null)
