import type { Line } from '../../../core/leading/lead'
import type { Frets } from '../../../core/neck/instrument'
import { soundsLike } from '../../../core/voicing/fits'
import { tuneLimits } from '../../../core/voicing/limits'
import { voicingOf, type Voicing } from '../../../core/voicing/voicing'
import type { TuneDocument } from '../tune/document'
import { madeChord, type TuneChord } from '../workspace/useTuneReading'

/** The grips of a found line by slot. */
export const gripsOfLine = (line: Line, sounding: readonly TuneChord[]): Record<string, (number | null)[]> =>
  Object.fromEntries(line.voicings.map((voicing, at) => [sounding[at]!.key, [...voicing.frets]]))

/**
 * The grips kept with the tune, read against the chords that stand there now. A grip whose chord has changed since is
 * left out until the search has found another; one fixed by hand always stays.
 */
export function keptVoicings(document: Pick<TuneDocument, 'grips' | 'fixed' | 'bass'>, chords: readonly TuneChord[], capo: number): Map<string, Voicing> {
  const limits = tuneLimits(capo, document.bass)
  const kept = new Map<string, Voicing>()
  for (const chord of chords) {
    const symbol = madeChord(chord)
    const fixed = document.fixed[chord.key]
    const frets: Frets | undefined = fixed ?? document.grips[chord.key]
    if (!symbol || !frets || (!fixed && !soundsLike(frets, symbol, limits))) continue
    const voicing = voicingOf(frets, symbol, limits)
    if (voicing) kept.set(chord.key, voicing)
  }
  return kept
}
