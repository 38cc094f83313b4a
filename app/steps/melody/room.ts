import type { Room } from '../../services/room/room'
import { useMelodyRoom } from './useMelodyRoom'

export const melody: Room = { name: 'melody', label: 'Melody', useRoom: useMelodyRoom }
