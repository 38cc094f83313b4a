import type { Room } from '../../services/room/room'
import { PracticeRoom } from './PracticeRoom'

export const practiceRoom: Room = { name: 'practice', label: 'Practice', View: PracticeRoom }
