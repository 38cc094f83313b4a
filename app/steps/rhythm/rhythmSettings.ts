import type { TuneEdit } from '../../../core/tune/tuneEdit'
import type { Rhythm } from '../../../core/tune/rhythmSchema'

/** What a word of the bar needs to say a setting and to change it. */
export interface RhythmSetting {
  rhythm: Rhythm
  onSet: (set: Extract<TuneEdit, { kind: 'rhythm' }>['set'], did: string) => void
}

/** @param own what a figure is called that has no name */
export function figureInWords(figure: Rhythm['figure'], own = 'your own'): string {
  if (figure === null) return 'each chord once'
  return typeof figure === 'string' ? figure : own
}
