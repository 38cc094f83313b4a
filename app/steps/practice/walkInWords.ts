import { topNoteOf } from '../../../core/practice/walk'
import { madeChord, type TuneReading } from '../../../core/tune/tuneReading'
import type { Voicing } from '../../../core/voicing/voicing'
import type { StageChord } from './stagedGrips'
import type { Walking } from './useWalk'

/** Where the walk is, and what can be played on top of the grip it stands on. */
export function walkInWords(
  { name, degree, string, above, below }: ReturnType<typeof topNoteOf>,
  { at, phrases }: Pick<Walking, 'at' | 'phrases'>,
): string {
  const steps = [
    above && `${above.name} at fret ${above.fret} above`,
    below && `${below.name} at fret ${below.fret} below`,
  ]
  return `Phrase ${at + 1} of ${phrases.length}. On top ${name}, the ${degree}, on string ${string}; ${steps.filter(Boolean).join(', ')}. Stay, fill, go on when you like.`
}

/** The first chord of the next phrase. */
export function nextOfWalk(
  { at, phrases }: Pick<Walking, 'at' | 'phrases'>,
  line: TuneReading['line'],
  voicings: ReadonlyMap<string, Voicing>,
): StageChord | null {
  const from = phrases[at + 1]?.from
  const found = from === undefined ? undefined : line.find((one) => one.index === from)
  const chord = found && madeChord(found)
  return found && chord
    ? {
        key: found.key,
        index: found.index,
        chord,
        voicing: voicings.get(found.key) ?? null,
        beats: found.lasts,
      }
    : null
}
