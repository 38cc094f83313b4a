import type { Room } from '../../services/room/room'
import { useChartRoom } from './useChartRoom'

export const chart: Room = { name: 'chart', label: 'Chart', useRoom: useChartRoom }
