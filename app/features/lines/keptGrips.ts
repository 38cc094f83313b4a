import type { Line } from '../../../core/leading/lead'
import type { ChordSymbol } from '../../../core/chord/symbol'
import type { Frets } from '../../../core/neck/instrument'
import { soundsLike } from '../../../core/voicing/fits'
import type { Limits } from '../../../core/voicing/limits'
import { voicingOf, type Voicing } from '../../../core/voicing/voicing'
import type { TuneDocument } from '../tune/document'
import { limitsFor, type Body } from '../player/limits'
import type { LineChord } from '../tune/decisions'
import { madeChord } from '../workspace/useTuneReading'

/** The grips of a found line by slot. */
export const gripsOfLine = (line: Line, sounding: readonly LineChord[]): Record<string, (number | null)[]> =>
  Object.fromEntries(line.voicings.map((voicing, at) => [sounding[at]!.key, [...voicing.frets]]))

/** Fingerings take time, and a grip is the same as long as its chord, its capo, the instrument and the hand are. */
const KNOWN = new WeakMap<ChordSymbol, Map<string, Voicing | null>>()

function knownVoicing(frets: Frets, chord: ChordSymbol, limits: Limits, body: string): Voicing | null {
  const byGrip = KNOWN.get(chord) ?? new Map<string, Voicing | null>()
  KNOWN.set(chord, byGrip)
  const grip = `${body}:${limits.instrument.capo}:${frets.join()}`
  const voicing = byGrip.get(grip) ?? voicingOf(frets, chord, limits)
  byGrip.set(grip, voicing)
  return voicing
}

/**
 * The grips kept with the tune, read against the chords that stand there now. A grip whose chord has changed since is
 * left out until the search has found another; one fixed by hand always stays, as long as the instrument has its strings.
 */
export function keptVoicings(document: Pick<TuneDocument, 'grips' | 'fixed' | 'bass'>, chords: readonly LineChord[], capo: number, body: Body): Map<string, Voicing> {
  const limits = limitsFor(body, capo, document.bass)
  const bodyKey = JSON.stringify([body.instrument, body.hand])
  const strings = limits.instrument.tuning.length
  const kept = new Map<string, Voicing>()
  for (const chord of chords) {
    const symbol = madeChord(chord)
    const fixed = document.fixed[chord.key]
    const frets: Frets | undefined = fixed ?? document.grips[chord.key]
    if (!symbol || !frets || frets.length !== strings || (!fixed && !soundsLike(frets, symbol, limits))) continue
    const voicing = knownVoicing(frets, symbol, limits, bodyKey)
    if (voicing) kept.set(chord.key, voicing)
  }
  return kept
}
