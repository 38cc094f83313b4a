import type { Room } from '../../services/room/room'
import { MelodyRoom } from './MelodyRoom'

export const melody: Room = { name: 'melody', label: 'Melody', View: MelodyRoom }
