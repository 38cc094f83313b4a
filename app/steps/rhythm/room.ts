import type { Room } from '../../services/room/room'
import { RhythmRoom } from './RhythmRoom'

export const rhythmRoom: Room = { name: 'rhythm', label: 'Rhythm', View: RhythmRoom }
