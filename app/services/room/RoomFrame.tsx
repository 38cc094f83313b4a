import { createContext, useContext, useLayoutEffect, useSyncExternalStore, type ReactNode } from 'react'
import type { KeyRow } from '../keys/keyTable'
import type { Bank } from '../selection/SelectionContext'
import type { Room, RoomPlays } from './room'

/** What a room puts into the frame of the workspace. */
export interface RoomParts {
  /** One row: what is set now, each word a control that opens. */
  bar: ReactNode
  /** Over the music, always in sight: a text, or a neck. */
  head?: ReactNode
  /** Comes a frame after the music where the player goes from chord to chord by keys. */
  drawer: { name: string; content: ReactNode }
  /** First to be listened to; the rest of the house has its own. */
  keys: readonly KeyRow[]
  /**
   * The bank whose chords the arrow keys go through; null where the room has a cursor of its own.
   */
  cursor: Bank | null
  /** What Play plays, where it is not the tune as it is made. */
  plays?: RoomPlays
  /** What goes with the music, before it. */
  lead?: ReactNode
  /**
   * The music: `Music`, in every room, so that what of it is drawn already stays when the player
   * goes from room to room.
   */
  children: ReactNode
}

/** The parts of the room the player is in. */
export interface RoomShown {
  room: Room
  parts: RoomParts
}

/**
 * The opening in the workspace into which a room puts its parts. The frame around it is never drawn
 * anew while rooms come and go: focus, place in the music and the home line stay. React keeps what
 * stands under one component only while that component stays, so the rooms stand beside the frame,
 * not around it.
 */
export class FrameSlot {
  private shown: RoomShown | null = null
  private readonly listeners = new Set<() => void>()

  /**
   * What is put in while the page is drawn for the first time (on the server too) is there for the
   * frame, which is drawn after it.
   */
  begin(shown: RoomShown): void {
    this.shown ??= shown
  }

  show(shown: RoomShown): void {
    this.shown = shown
    for (const listener of this.listeners) listener()
  }

  readonly now = (): RoomShown => {
    if (!this.shown) throw new Error('The frame was drawn before any room had put its parts into it.')
    return this.shown
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }
}

/** Around a room: the slot it puts its parts into, and which room it is. */
export const RoomContext = createContext<{ room: Room; slot: FrameSlot } | null>(null)

/** The bank whose chords the arrow keys go through in the room that is shown. */
export const CursorContext = createContext<Bank | null>(null)

/**
 * The workspace around a room: its bar, the music, its drawer, its keys and what Play plays stand
 * where they stand in every room.
 */
export function RoomFrame(parts: RoomParts) {
  const here = useContext(RoomContext)
  if (!here) throw new Error('A room is drawn inside the workspace.')
  const { room, slot } = here
  slot.begin({ room, parts })
  // Before the browser paints, so that nothing of another room is ever seen with this one.
  useLayoutEffect(() => slot.show({ room, parts }))
  return null
}

export const useRoomShown = (slot: FrameSlot): RoomShown =>
  useSyncExternalStore(slot.subscribe, slot.now, slot.now)
