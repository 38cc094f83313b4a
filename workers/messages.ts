import type { Line } from '../core/leading/lead'
import type { StyleName } from '../core/leading/weights'
import type { Frets } from '../core/neck/instrument'
import type { Voicing } from '../core/voicing/voicing'

/** What the page asks of the search worker. Chords go as symbols: the worker reads them with the same core. */
export type SearchRequest =
  | { kind: 'lines'; id: number; symbols: string[]; fixed: [number, Frets][]; bass: 'chord' | 'any'; capo: number; style: StyleName; count: number }
  | { kind: 'grips'; id: number; symbol: string; bass: 'chord' | 'any'; capo: number; before: number[] | null; after: number[] | null }
  | { kind: 'ways'; id: number; text: string; distance: number; keep: number[]; count: number }

export type SearchReply =
  | { kind: 'progress'; id: number; done: number; of: number }
  | { kind: 'lines'; id: number; lines: Line[] }
  | { kind: 'grips'; id: number; grips: NearGrip[] }
  | { kind: 'ways'; id: number; ways: Way[] }
  | { kind: 'fault'; id: number; message: string }

/** One way through the whole tune: for each chord changed, by its index, what takes its place. */
export interface Way {
  /** 0 to 1. */
  distance: number
  chords: { index: number; symbol: string; rule: string; name: string }[]
}

/** A grip of a chord with how far its voices lie from its neighbours'. */
export interface NearGrip {
  voicing: Voicing
  /** Least motion in semitones from the grip before and to the grip after together. */
  motion: number
}
