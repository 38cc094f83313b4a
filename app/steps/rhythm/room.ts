import type { Room } from '../../services/room/room'
import { useRhythmRoom } from './useRhythmRoom'

export const rhythm: Room = { name: 'rhythm', label: 'Rhythm', useRoom: useRhythmRoom }
