import type { Room } from '../../services/room/room'
import { usePracticeRoom } from './usePracticeRoom'

export const practice: Room = { name: 'practice', label: 'Practice', useRoom: usePracticeRoom }
