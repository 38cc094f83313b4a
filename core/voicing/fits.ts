import type { ChordSymbol } from '../chord/symbol'
import { pitchClass } from '../pitch/note'
import { kindOf, type Kind } from '../analysis/kind'
import { soundAt, type Frets } from '../neck/instrument'
import type { Limits } from './gripLimits'
import { requirementOf } from './requirement'

/**
 * Whether a set of frets sounds what a chord asks for under the limits' bass rule: nothing foreign,
 * nothing missing.
 * @param colours what its kind may take besides is not foreign
 */
export function soundsLike(
  frets: Frets,
  chord: ChordSymbol,
  limits: Pick<Limits, 'instrument' | 'bass' | 'omit'>,
  colours = false,
): boolean {
  const midis = frets.flatMap((fret, string) =>
    fret === null ? [] : [soundAt(limits.instrument, string, fret)],
  )
  if (midis.length === 0) return false
  const sounds = midis.reduce((bits, midi) => bits | (1 << (midi % 12)), 0)
  const { allowed, required, oneOf, bass } = requirementOf(chord, limits)
  return (
    (colours ? standsFor(frets, chord, limits) : (sounds & ~allowed) === 0) &&
    (required & ~sounds) === 0 &&
    oneOf.every((set) => (set & sounds) !== 0) &&
    (bass & (1 << (Math.min(...midis) % 12))) !== 0
  )
}

/**
 * Semitones above the root that a line may add to each kind of chord: tensions, sixths and sevenths
 * (common practice).
 */
const ADDED: Readonly<Record<Kind, readonly number[]>> = {
  major: [2, 6, 9, 11],
  dominant: [1, 2, 3, 5, 6, 8, 9, 10],
  minor: [2, 5, 9, 10, 11],
  'half-diminished': [2, 5, 8, 10],
  diminished: [2, 5, 8, 9, 11],
  augmented: [2, 10],
  suspended: [2, 9, 10],
  power: [2],
}
/** Thirds and what stands for them; and with them sevenths. */
const THIRDS: readonly string[] = ['3', 'b3', '4', '2']
const GUIDES: readonly string[] = [...THIRDS, '7', 'b7', 'bb7', '6']

/**
 * Whether a grip can stand for a chord in a line that leaves the root to the bass, adds tensions or
 * thins out: it sounds the third, and nothing but the chord's tones and what its kind may take.
 * @param anyGuide the seventh is enough: an upper structure leaves the third to others
 */
export function standsFor(
  frets: Frets,
  chord: ChordSymbol,
  { instrument }: Pick<Limits, 'instrument'>,
  anyGuide = false,
): boolean {
  const root = pitchClass(chord.root)
  const own = chord.tones.map(({ note }) => pitchClass(note))
  if (chord.bass) own.push(pitchClass(chord.bass))
  const sounds = frets.flatMap((fret, string) =>
    fret === null ? [] : [soundAt(instrument, string, fret) % 12],
  )
  const guides = chord.tones
    .filter(({ degree }) => (anyGuide ? GUIDES : THIRDS).includes(degree))
    .map(({ note }) => pitchClass(note))
  return (
    sounds.length > 0 &&
    sounds.every((sound) => own.includes(sound) || ADDED[kindOf(chord)].includes((sound - root + 12) % 12)) &&
    (guides.length === 0 || guides.some((guide) => sounds.includes(guide)))
  )
}
