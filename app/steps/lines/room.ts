import type { Room } from '../../services/room/room'
import { useLinesRoom } from './useLinesRoom'

export const lines: Room = {
  name: 'lines',
  label: 'Lines',
  useRoom: useLinesRoom,
  firstStep: {
    name: 'lines',
    says: 'Every chord has a grip, and the threads are its voices. Choose another line above, press Space, and play along.',
  },
}
