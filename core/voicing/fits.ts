import type { ChordSymbol } from '../chord/symbol'
import { soundAt, type Frets } from '../neck/instrument'
import type { Limits } from './limits'
import { requirementOf } from './requirement'

/** Whether a set of frets sounds what a chord asks for under the limits' bass rule: nothing foreign, nothing missing. */
export function soundsLike(frets: Frets, chord: ChordSymbol, limits: Pick<Limits, 'instrument' | 'bass' | 'omit'>): boolean {
  const midis = frets.flatMap((fret, string) => (fret === null ? [] : [soundAt(limits.instrument, string, fret)]))
  if (midis.length === 0) return false
  const sounds = midis.reduce((bits, midi) => bits | (1 << (midi % 12)), 0)
  const { allowed, required, oneOf, bass } = requirementOf(chord, limits)
  return (
    (sounds & ~allowed) === 0 && (required & ~sounds) === 0 && oneOf.every((set) => (set & sounds) !== 0) &&
    (bass & (1 << (Math.min(...midis) % 12))) !== 0
  )
}
