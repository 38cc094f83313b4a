import type { Room } from '../../services/room/room'
import { RhythmRoom } from './RhythmRoom'

export const rhythm: Room = { name: 'rhythm', label: 'Rhythm', View: RhythmRoom }
