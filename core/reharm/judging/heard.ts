import { hasDegree, type ChordSymbol } from '../../chord/symbol'
import { type Degree } from '../../pitch/degree'
import { pitchClass } from '../../pitch/note'
import { Spot } from '../spot'
import { up, type Aligned, type Sounded } from './aligned'

/** Something a version does, at a place, with how much of it. */
export interface Found {
  bar: number
  beat: number
  amount: number
  /** What is heard there, in a few words with the chords. */
  what: string
}

/** One thing that is looked for in a version. */
export interface JudgedTerm {
  name: string
  /** Why players avoid it, or look for it. */
  why: string
  /** It is counted for eight bars: a long tune has more of it without being better. */
  isPerPhrase?: true
  /** It is heard in the chord and its neighbours alone. */
  isLocal?: true
  find: (version: Aligned) => Found[]
}

export const foundAt = (one: Sounded, what: string, amount = 1): Found => ({
  bar: one.bar,
  beat: one.beat,
  amount,
  what,
})
export const heardName = ({ chord }: { chord: ChordSymbol }) => chord.canonical
export const isDominant = ({ chord }: { chord: ChordSymbol }) =>
  hasDegree(chord, 'b7') && hasDegree(chord, '3')
export const isSus = ({ chord }: { chord: ChordSymbol }) =>
  hasDegree(chord, '4', '2', '11') && !hasDegree(chord, '3', 'b3')
export const ALTERED: readonly Degree[] = ['b9', '#9', 'b13', '#5', 'b5', '#11']
export const isAltered = (one: { chord: ChordSymbol }) => isDominant(one) && hasDegree(one.chord, ...ALTERED)
export const songs = ({ idiom }: Aligned) => idiom === 'song' || idiom === 'gospel'
export const isBlues = ({ idiom }: Aligned) => idiom === 'blues' || idiom === 'minor blues'
export const degreeIn = (spot: Spot, root: number) => up(pitchClass(spot.key.tonic), root)
export const changedOf = (version: Aligned) => version.sounded.filter((one) => one.plain && !one.isPlain)
export const resolvesTo = (one: Sounded, next: Sounded | null) =>
  next !== null && [5, 11].includes(up(one.root, next.root))
/** Where the tune goes on, the form beginning again behind its end. */
export const onwards = (one: Sounded, { top }: Aligned) => one.next ?? top

/** Sounds of the plain tune. */
export const soundsOf = ({ plain }: Aligned): ReadonlySet<number> => {
  const known = SOUNDS.get(plain)
  if (known) return known
  const made = new Set(plain.flatMap(({ chord }) => chord.tones.map(({ note }) => pitchClass(note))))
  SOUNDS.set(plain, made)
  return made
}
export const SOUNDS = new WeakMap<Aligned['plain'], ReadonlySet<number>>()

/** The tune has no leading note, and its home is minor, or it is a mode. */
export function keepsItsMode(version: Aligned): boolean {
  const { key } = version.analysis
  const leading = up(1, pitchClass(key.tonic))
  // In a mode another plane may hold that sound; only a V makes it lead.
  const leads =
    version.idiom === 'modal'
      ? version.plain.some(
          (spot) => spot.rel === 7 && spot.chord.tones.some(({ note }) => pitchClass(note) === leading),
        )
      : soundsOf(version).has(leading)
  return version.plain.length > 2 && !leads
}

/**
 * The voice that moves inside a standing chord: 8 7 b7 6, or 5 #5 6, in half steps above the root.
 */
export function lineTone({ chord }: Sounded): number | null {
  if (hasDegree(chord, '7')) return 11
  if (hasDegree(chord, 'b7')) return 10
  if (hasDegree(chord, '6', '13')) return 9
  if (hasDegree(chord, '#5', 'b13')) return 8
  return chord.tones.length === 3 ? 12 : null
}

export const sectionsOf = ({ chart }: Aligned): { from: number; to: number }[] => {
  const starts = chart.bars.flatMap((bar, index) => (index === 0 || bar.opensSection ? [index] : []))
  return starts.map((from, index) => ({ from, to: (starts[index + 1] ?? chart.bars.length) - 1 }))
}

/** The last place of a plain chord: its first chord of the new version. */
export const headOf = (version: Aligned, spot: Spot) =>
  version.over(spot).find(({ begins }) => begins) ?? null
