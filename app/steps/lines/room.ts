import type { Room } from '../../services/room/room'
import { useLinesRoom } from './useLinesRoom'

export const lines: Room = { name: 'lines', label: 'Lines', useRoom: useLinesRoom }
