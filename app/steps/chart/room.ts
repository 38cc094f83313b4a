import type { Room } from '../../services/room/room'
import { ChartRoom } from './ChartRoom'

export const chart: Room = { name: 'chart', label: 'Chart', View: ChartRoom }
