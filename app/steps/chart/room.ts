import type { Room } from '../../services/room/room'
import { ChartRoom } from './ChartRoom'

export const chartRoom: Room = { name: 'chart', label: 'Chart', View: ChartRoom }
