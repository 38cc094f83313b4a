import type { Room } from '../../services/room/room'
import { MelodyRoom } from './MelodyRoom'

export const melodyRoom: Room = { name: 'melody', label: 'Melody', View: MelodyRoom }
