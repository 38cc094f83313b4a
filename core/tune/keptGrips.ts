import { itemAt } from '../lists'
import type { Line } from '../leading/line'
import type { ChordSymbol } from '../chord/symbol'
import type { Frets } from '../neck/instrument'
import { TEXTURES } from '../leading/texture'
import { takesColour } from '../leading/colours'
import { STYLES } from '../leading/weights'
import { soundsLike, standsFor } from '../voicing/fits'
import type { Limits } from '../voicing/gripLimits'
import { voicingOf, type Voicing } from '../voicing/voicing'
import type { TuneDocument } from './document'
import { fretsHere } from './sounding'
import { limitsFor, type PlayerBody } from '../player/playerLimits'
import type { LineChord } from './decisions'
import { madeChord } from './tuneReading'

/** The grips of a found line by slot. */
export const gripsOfLine = (line: Line, sounding: readonly LineChord[]): Record<string, (number | null)[]> =>
  Object.fromEntries(line.voicings.map((voicing, at) => [itemAt(sounding, at).key, [...voicing.frets]]))

/**
 * Fingerings take time, and a grip is the same as long as its chord, its capo, the instrument and
 * the hand are.
 */
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
 * The grips kept with the tune, read against the chords that stand there now, on the instrument at
 * hand: grips made for another one are moved to the same pitches where they can be. A grip whose
 * chord has changed since, or that cannot be moved, is left out until the search has found another.
 */
export function keptVoicings(
  document: Pick<TuneDocument, 'grips' | 'fixed' | 'bass'> & Partial<Pick<TuneDocument, 'gripsOn'>> & Led,
  chords: readonly LineChord[],
  capo: number,
  body: PlayerBody,
): Map<string, Voicing> {
  const limits = limitsFor(body, capo, document.bass)
  const bodyKey = JSON.stringify([body.instrument, body.hand])
  const kept = new Map<string, Voicing>()
  for (const chord of chords) {
    const symbol = madeChord(chord)
    const found = symbol && gripHere(document, chord, symbol, limits)
    const voicing = found && knownVoicing(found, symbol, limits, bodyKey)
    if (voicing) kept.set(chord.key, voicing)
  }
  return kept
}

/**
 * Whether the kept line can be played as it is: every chord has its grip, and what the search found
 * was found for this instrument.
 * @param kept grips as they are read here
 * @param on the instrument at hand, as grips remember it
 */
export const standsAsKept = (
  { grips, gripsOn, fixed }: Pick<TuneDocument, 'grips' | 'gripsOn' | 'fixed'>,
  sounding: readonly Pick<LineChord, 'key' | 'elsewhere'>[],
  kept: ReadonlyMap<string, unknown>,
  on: string,
): boolean =>
  sounding.every(({ key, elsewhere }) => !elsewhere && kept.has(key)) &&
  Object.keys(grips).every((key) => key in fixed || (gripsOn[key] ?? on) === on)

/** What decides how near to its symbol a grip of the line stays. */
type Led = Partial<Pick<TuneDocument, 'style' | 'leading' | 'line'>>

/**
 * Whether the grips of a line may leave out the root, add tensions or turn the chord over: its
 * style or its texture says so, or it is one of the other ways.
 */
function isFree({ style = 'smooth', leading, line = 0 }: Led, limits: Limits): boolean {
  // Where somebody else has the bass the chart may suggest triads and rootless grips.
  if ((line > 0 || limits.bass === 'any') && !leading?.texture) return true
  const { coloured, inversions, texture } = STYLES[leading?.own?.base ?? style]
  const {
    coloured: colours,
    rootless,
    noBass,
  } = TEXTURES[leading?.texture ?? texture?.(limits) ?? 'as it comes']
  return [coloured, inversions, colours, rootless, noBass, style === 'drone'].some(Boolean)
}

/**
 * The frets of the grip that is kept for a chord, on the instrument at hand; null where there is
 * none for it.
 */
export function gripHere(
  document: Pick<TuneDocument, 'grips' | 'fixed'> & Partial<Pick<TuneDocument, 'gripsOn'>> & Led,
  chord: LineChord,
  symbol: ChordSymbol,
  limits: Limits,
): Frets | null {
  const madeOn = document.gripsOn?.[chord.key]
  const byHand = document.fixed[chord.key]
  const own = byHand && fretsHere(byHand, madeOn, chord.sounding?.meant ?? symbol, limits)
  if (own) return own.frets
  const line = document.grips[chord.key]
  // Where the grip by hand cannot be had here, what the search found in its place is for this
  // instrument.
  const here = line && fretsHere(line, byHand ? undefined : madeOn, symbol, limits)
  return here &&
    // Without a texture of its own a line takes what the chart suggests, and some of those colour
    // plain sevenths.
    (soundsLike(here.frets, symbol, limits, !document.leading?.texture && takesColour(symbol)) ||
      (isFree(document, limits) &&
        standsFor(here.frets, symbol, limits, document.leading?.texture === 'upper structures')))
    ? here.frets
    : null
}
