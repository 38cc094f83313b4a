import { itemAt } from '../../lists'
import { fretFor, writtenFrets, type Frets } from '../../neck/instrument'
import type { Limits } from '../../voicing/gripLimits'
import { voicingOf, type Voicing } from '../../voicing/voicing'
import type { ChordSymbol } from '../../chord/symbol'
import { drawnBelow, type Asks } from './question'

/**
 * Each voice of a grip goes up to the next sound of the grip on its own string; null where that
 * leaves the neck or no hand holds it.
 */
export function inversionAbove(voicing: Voicing, chord: ChordSymbol, limits: Limits): Voicing | null {
  const sounds = [...new Set(voicing.midis.map((midi) => midi % 12))].sort((a, b) => a - b)
  const above = (midi: number): number => {
    const steps = sounds.map((pc) => (pc - (midi % 12) + 12) % 12 || 12)
    return midi + Math.min(...steps)
  }
  const frets: (number | null)[] = voicing.frets.map(() => null)
  for (const { string, midi } of voicing.strings) {
    const fret = fretFor(limits.instrument, string, above(midi))
    if (fret === null || fret > limits.frets[1]) return null
    frets[string] = fret
  }
  return voicingOf(frets, chord, limits)
}

/** The next inversion up the same strings. */
export const nextInversion: Asks = ({ chords, voicings, limits, seed }) => {
  const possible = voicings.flatMap((voicing, at) => {
    const chord = itemAt(chords, at)
    const next =
      voicing.midis.length >= 3 && distinct(voicing) ? inversionAbove(voicing, chord, limits) : null
    return next ? [{ chord, voicing, next }] : []
  })
  if (possible.length === 0) return null
  const { chord, voicing, next } = itemAt(possible, drawnBelow(seed, possible.length, 3))
  const low = (one: Voicing) =>
    one.strings.reduce((lowest, tone) => (tone.midi < lowest.midi ? tone : lowest))
  const written = (frets: Frets) => writtenFrets(frets)
  return {
    kind: 'inversion',
    item: `${chord.canonical} above ${written(voicing.frets)}`,
    ask: `${chord.canonical} is ${written(voicing.frets)}. What is the next inversion up the same strings?`,
    accepts: [written(next.frets)],
    by: 'grip',
    explain: `Each voice goes up to the next tone of the chord: the ${low(next).degree} comes into the bass, ${written(next.frets)}.`,
    shows: [voicing],
    answers: [next],
    moves: [
      { chord, voicing },
      { chord, voicing: next },
    ],
    sounds: [voicing.midis, next.midis],
  }
}

/** No sound stands twice: then every voice has a step of its own. */
const distinct = ({ midis }: Voicing): boolean =>
  new Set(midis.map((midi) => midi % 12)).size === midis.length
