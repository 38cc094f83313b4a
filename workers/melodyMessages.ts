import type { Body } from '../core/player/limits'
import type { ChordMelodySettings, KeptNote } from '../core/tune/melodySchema'
import type { StyleName, Weights } from '../core/leading/weights'
import type { BlockNote } from '../core/melody/block'
import type { Choice } from '../core/melody/harmonise'
import type { HarmonisedLine } from '../core/melody/line'
import type { InKey, Moved } from '../core/melody/move'
import type { NoteReading } from '../core/melody/reading'
import type { Frets } from '../core/neck/instrument'
import type { Family } from '../core/voicing/family'

/** A tune with its melody, as plain data: chords go as symbols, pitches by name. */
export interface MelodyAsked {
  text: string
  places: { symbol: string | null; bar: number; beat: number; beats: number }[]
  melody: KeptNote[]
}

/** What a chord melody is made from. */
export interface UnderAsked extends MelodyAsked {
  settings: ChordMelodySettings
  style: StyleName
  weights: Weights | null
  bass: 'chord' | 'any'
  body: Body
  tempo: number
  fixed: [place: string, { frets: Frets; symbol: string | null }][]
}

export type BlockAsked =
  | { kind: 'sevenths'; key: string; tone: 1 | 3 | 5 | 7; family: Family | null }
  | { kind: 'sixth-diminished'; chord: string; family: Family | null }
  | { kind: 'fourths'; key: string }

export type MelodyRequest =
  | { kind: 'lines'; asked: UnderAsked; count: number }
  /** What one note could have under it; the sounds of the grips around it as MIDI numbers. */
  | { kind: 'under'; asked: UnderAsked; place: { bar: number; beat: number }; before: number[] | null; after: number[] | null; all: boolean }
  | { kind: 'elsewhere'; asked: UnderAsked }
  | { kind: 'keys'; asked: UnderAsked }
  | { kind: 'blocks'; asked: Pick<UnderAsked, 'body' | 'text'>; notes: string[]; block: BlockAsked }
  | { kind: 'reading'; asked: MelodyAsked }

export type MelodyReply =
  | { kind: 'progress'; done: number; of: number }
  | { kind: 'lines'; lines: HarmonisedLine[] }
  | { kind: 'under'; choices: Choice[]; /** Other chords that take the note and were not tried. */ left: number }
  | { kind: 'elsewhere'; moved: Moved[] }
  | { kind: 'keys'; keys: InKey[] }
  | { kind: 'blocks'; blocks: BlockNote[] }
  | { kind: 'reading'; notes: NoteReading[] }
  | { kind: 'fault'; message: string }
