import type { Line } from '../../../core/leading/lead'
import type { ChordSymbol } from '../../../core/chord/symbol'
import type { Frets } from '../../../core/neck/instrument'
import { soundsLike } from '../../../core/voicing/fits'
import { tuneLimits } from '../../../core/voicing/limits'
import { voicingOf, type Voicing } from '../../../core/voicing/voicing'
import type { TuneDocument } from '../tune/document'
import type { LineChord } from '../tune/decisions'
import { madeChord } from '../workspace/useTuneReading'

/** The grips of a found line by slot. */
export const gripsOfLine = (line: Line, sounding: readonly LineChord[]): Record<string, (number | null)[]> =>
  Object.fromEntries(line.voicings.map((voicing, at) => [sounding[at]!.key, [...voicing.frets]]))

/** Fingerings take time, and a grip is the same as long as its chord and its capo are. */
const KNOWN = new WeakMap<ChordSymbol, Map<string, Voicing | null>>()

function knownVoicing(frets: Frets, chord: ChordSymbol, capo: number): Voicing | null {
  const byGrip = KNOWN.get(chord) ?? new Map<string, Voicing | null>()
  KNOWN.set(chord, byGrip)
  const grip = `${capo}:${frets.join()}`
  const voicing = byGrip.get(grip) ?? voicingOf(frets, chord, tuneLimits(capo, 'any'))
  byGrip.set(grip, voicing)
  return voicing
}

/**
 * The grips kept with the tune, read against the chords that stand there now. A grip whose chord has changed since is
 * left out until the search has found another; one fixed by hand always stays.
 */
export function keptVoicings(document: Pick<TuneDocument, 'grips' | 'fixed' | 'bass'>, chords: readonly LineChord[], capo: number): Map<string, Voicing> {
  const limits = tuneLimits(capo, document.bass)
  const kept = new Map<string, Voicing>()
  for (const chord of chords) {
    const symbol = madeChord(chord)
    const fixed = document.fixed[chord.key]
    const frets: Frets | undefined = fixed ?? document.grips[chord.key]
    if (!symbol || !frets || (!fixed && !soundsLike(frets, symbol, limits))) continue
    const voicing = knownVoicing(frets, symbol, capo)
    if (voicing) kept.set(chord.key, voicing)
  }
  return kept
}
