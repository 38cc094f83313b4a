import type { Room } from '../../services/room/room'
import { useColourRoom } from './useColourRoom'

export const colour: Room = { name: 'colour', label: 'Colour', useRoom: useColourRoom }
