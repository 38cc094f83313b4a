import type { ComponentType } from 'react'
import type { PlayerSettings } from '../../../core/player/playerSettings'
import type { TuneDocument } from '../../../core/tune/document'
import type { TuneReading } from '../../../core/tune/tuneReading'
import type { LineChord } from '../../../core/tune/decisions'
import type { Lyric } from '../../../core/melody/lyrics'
import type { Group } from '../../../core/analysis/chordReading'
import type { Rhythm } from '../../../core/tune/rhythmSchema'
import type { Voicing } from '../../../core/voicing/voicing'
import type { Editing } from '../notation/BeatInput'
import type { System } from '../notation/systemLayout'
import type { SoundedNote } from '../notation/Threads'
import type { ChordSelection } from '../selection/selection'
import type { Schedule } from '../sound/schedule'
import type { VoiceHeard } from '../sound/voiceHeard'
import type { RowsTold } from './rowsContext'

/**
 * A step of the work on a tune. Adding one is a folder in `steps` and a line in `steps/rooms.ts`:
 * its address, its place along the top, its keys and its help come from there.
 */
export interface Room {
  /** In the address, one small word. */
  name: string
  /** Along the top. */
  label: string
  /**
   * The room, with state of its own, in a `RoomFrame`. Null for a page of its own, without the
   * workspace around it.
   */
  View: ComponentType | null
  /** What whoever goes through the first steps does here. */
  firstStep?: FirstStep
}

/** One of the first steps, told in the room where it is done. */
export interface FirstStep {
  /** As the player's settings keep it. */
  name: PlayerSettings['firstSteps']
  says: string
  /** How it is seen that it is done, and what is said then; without it the player says so. */
  done?: { is: (document: TuneDocument) => boolean; says: string }
}

/** What of the playing a room decides. */
export interface RoomPlays {
  /** In place of the chords: a score of the room's own. The count-in is the frame's. */
  score?: ((asked: { version: 'plain' | 'new' | 'both'; countIn: number }) => Schedule) | null
  /** Heard after the new line when both are heard in turn. */
  beside?: { name: string; reading: TuneReading; midis: ReadonlyMap<string, readonly number[]> } | null
  /** Voices of the new line that are heard. */
  voice?: VoiceHeard
  /** An accompaniment that is tried, in place of the tune's. */
  rhythm?: Rhythm | null
}

/** What the systems show in a room. */
export interface MusicShown {
  reading: TuneReading
  /** Of the new line, where what is shown is not what is selected. */
  lineSelection?: ChordSelection
  /** Brackets over the home line, keys the tune moves to, and beats that can be typed on. */
  form?: FormShown | undefined
  /**
   * The new line: its chords alone, with the reason of those that were changed, or with their
   * grips.
   */
  newLine: 'none' | 'reasons' | 'grips'
  voicings?: ReadonlyMap<string, Voicing>
  /** The voices from chord to chord between the lines, and a note of theirs that is pulled. */
  threads?: Pulling | null
  /** A kept version under the new line. */
  beside?: { name: string; isKept: boolean; line: readonly LineChord[] } | null
  /** A row of the room's own between the lines. Must be the same component at every drawing. */
  Row?: ComponentType<RowProps> | undefined
  /** What that row reads beside its system. The same object while nothing of it changes. */
  rows?: RowsTold
  /** Room at the left for a clef and a signature, in px. */
  gutter?: number
  onSelectLine?: (index: number, stretch: boolean) => void
}

/** What a row of a room's own is told of the system it stands in. */
export interface RowProps {
  system: System
  /** The first system of the tune. */
  first: boolean
}

export interface FormShown {
  editing: Editing | null
  onBeat: ((bar: number, beat: number) => void) | undefined
  onGroup: (group: Group) => void
  /** Words are typed under the bars: takes those of one. */
  onWords?: ((bar: number, lyrics: Lyric[]) => void) | undefined
}

/** A note of the threads taken hold of. */
export interface Pulling {
  taken: { key: string; string: number } | null
  onTake: (key: string, string: number) => void
  onDrag: (semitones: number) => void
  /** What is struck in a system, where the threads show it. */
  sounded?: (system: System) => readonly SoundedNote[]
}
