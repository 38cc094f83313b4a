import type { ChordSymbol } from '../chord/symbol'
import type { Degree } from '../pitch/degree'
import type { Key } from '../pitch/key'
import { pitchClass } from '../pitch/note'
import { namesOf } from './possibleNames'
import { requirementOf } from './requirement'
import { ToneNames } from './voicing'

/** What a grip is to the chord it stands for. */
export interface Called {
  /**
   * The chord that sounds: the one meant where it is that, else the likeliest name; null where the
   * sounds have no usual name.
   */
  sounds: ChordSymbol | null
  /** Degrees that sound and are not of the chord that was meant. */
  foreign: Degree[]
  /** Degrees without which the chord that was meant is not heard as itself. */
  missing: Degree[]
}

/**
 * A name on the root that was meant is preferred to a plainer one elsewhere by so many places of
 * the list of names. Common practice, no source.
 */
const OWN_ROOT = 16
/** The same where that root is the lowest note: then it is heard as the root. */
const OWN_BASS = 30

/**
 * What sounds where a chord was meant. A grip with nothing foreign that has what carries the chord
 * is that chord; else it is named anew, by the root that was meant where that gives a name about as
 * plain.
 * @param midis sounding notes, of which the lowest is the bass
 */
export function calledOf(midis: readonly number[], chord: ChordSymbol, key?: Key): Called {
  const names = new ToneNames(chord)
  const own = new Set(chord.tones.map(({ note }) => pitchClass(note)))
  if (chord.bass) own.add(pitchClass(chord.bass))
  const sounds = new Set(midis.map((midi) => midi % 12))
  const foreign = [...new Set(midis.filter((midi) => !own.has(midi % 12)).map((midi) => names.of(midi)[0]))]
  const { required, oneOf } = requirementOf(chord, { bass: 'any', omit: [] })
  const bits = [...sounds].reduce((all, sound) => all | (1 << sound), 0)
  const missing = chord.tones
    .filter(({ note }) => (required & ~bits & (1 << pitchClass(note))) !== 0)
    .map(({ degree }) => degree)
  if (foreign.length === 0 && missing.length === 0 && oneOf.every((set) => (set & bits) !== 0))
    return { sounds: chord, foreign, missing }
  const options = key ? { key } : {}
  const [onRoot] = namesOf(midis, { ...options, over: chord.root })
  const [likeliest] = namesOf(midis, options)
  const name =
    onRoot &&
    (!likeliest ||
      onRoot.score <=
        likeliest.score + (Math.min(...midis) % 12 === pitchClass(chord.root) ? OWN_BASS : OWN_ROOT))
      ? onRoot
      : likeliest
  return { sounds: name && name.outside === 0 ? name.chord : null, foreign, missing }
}
