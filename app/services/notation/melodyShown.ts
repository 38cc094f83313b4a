import type { Clock, Piece } from '../../../core/melody/clock'
import type { HarmonisedNote } from '../../../core/melody/melodyLine'
import type { Phrase } from '../../../core/melody/phrases'
import type { NoteReading } from '../../../core/melody/melodyReading'

/** One event of the chord melody as it is shown. */
export interface EventShown {
  key: string
  index: number
  from: number
  to: number
  made: HarmonisedNote
  /** Its grip was chosen by hand. */
  fixed: boolean
  /**
   * The grip by hand is for other open strings and cannot be had on these: another stands there.
   */
  elsewhere?: boolean
}

/** What each note is over the plain chord, and over the new one, by place. */
export type Over = ReadonlyMap<string, { plain: NoteReading | null; made: NoteReading | null }>

/** A melody and what is made under it, as it is drawn. */
export interface MelodyDrawn {
  clock: Clock
  pieces: Piece[]
  over: Over
  phrases: Phrase[]
  events: EventShown[]
  selected: string | null
}
