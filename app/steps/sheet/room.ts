import type { Room } from '../../services/room/room'

/** A page for the music stand: nothing around it is printed. */
export const sheetRoom: Room = { name: 'sheet', label: 'Sheet', View: null }
