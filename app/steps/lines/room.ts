import type { Room } from '../../services/room/room'
import { LinesRoom } from './LinesRoom'

export const linesRoom: Room = {
  name: 'lines',
  label: 'Lines',
  View: LinesRoom,
  firstStep: {
    name: 'lines',
    says: 'Every chord has a grip, and the threads are its voices. Choose another line above, press Space, and play along.',
  },
}
