import { useLayoutEffect, useSyncExternalStore } from 'react'
import type { Room, RoomView } from '../services/room/room'

/** A room, and what it says and shows at present. */
interface RoomSaid {
  room: Room
  view: RoomView
}

/** The room the player is in: what it says is left here by the room and taken up by the frame, which stands still while rooms change. */
export class RoomNow {
  private said: RoomSaid | null = null
  private readonly listeners = new Set<() => void>()

  /** What is said first, while the page is drawn for the first time (on the server too), is there at once for the frame, which is drawn after it. */
  begin(said: RoomSaid): void {
    this.said ??= said
  }

  tell(said: RoomSaid): void {
    if (said === this.said) return
    this.said = said
    for (const listener of this.listeners) listener()
  }

  readonly now = (): RoomSaid => {
    if (!this.said) throw new Error('The frame was drawn before any room had said what it shows.')
    return this.said
  }

  readonly listen = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }
}

/** A room speaking: its hook lives here, anew for each room. Drawn before the frame. */
export function Speaking({ room, told }: { room: Room; told: RoomNow }) {
  const said = { room, view: room.useRoom!() }
  told.begin(said)
  // Before the browser paints, so that nothing of another room is ever seen with this one.
  useLayoutEffect(() => told.tell(said))
  return null
}

export const useRoomNow = (told: RoomNow): RoomSaid => useSyncExternalStore(told.listen, told.now, told.now)
