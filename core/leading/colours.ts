import type { Role } from '../analysis/role'
import type { Reading } from '../analysis/chordReading'
import { availableTensions } from '../analysis/tensions'
import { analyse } from '../analysis/analyse'
import { parseChart } from '../chart/parseChart'
import { parseChord } from '../chord/parseChord'
import { hasDegree, type ChordSymbol } from '../chord/symbol'
import { noteName } from '../pitch/note'
import type { Degree } from '../pitch/degree'
import { toneClass } from '../voicing/gripIdiom'
import { coloursOf } from '../reharm/colour'

/**
 * Sixths and sevenths a chord may take beside the tensions of its role: they belong to its kind.
 */
const BASIC: readonly Degree[] = ['6', '7', 'b7']
/** Most tones a line adds to one chord: a ninth for the root and a thirteenth for the fifth. */
const MOST_ADDED = 2

/**
 * What a chord may become inside a line, itself first: the same chord with free tensions of its
 * role, 9 for 1, 13 for 5 and their like (common practice; Nettles & Graf, *The Chord Scale Theory
 * and Jazz Harmony*, from memory). Special colours stay a decision of the player.
 */
export function coloursInLine(reading: Pick<Reading, 'slot' | 'role'>): ChordSymbol[] {
  if (reading.slot.symbol?.kind !== 'chord') return []
  const { chord } = reading.slot.symbol
  const free = new Set<Degree>([...availableTensions(chord, reading.role).free, ...BASIC])
  const keeps = (other: ChordSymbol) => {
    const added = addedTo(chord, other)
    return (
      added.length > 0 &&
      added.filter((degree) => !BASIC.includes(degree)).length <= MOST_ADDED &&
      added.every((degree) => free.has(degree)) &&
      chord.tones.every(
        ({ degree, need }) =>
          need === 'free' || need === 'root' || other.tones.some((tone) => tone.degree === degree),
      )
    )
  }
  const coloured = coloursOf(reading)
    .filter(({ special }) => !special)
    .map((option) => option.chord)
  const built =
    chord.bass || !hasDegree(chord, '6', '7', 'b7')
      ? []
      : BUILT.flatMap((degrees) => {
          const built = parseChord(`${noteName(chord.root)}${chord.suffix}(${degrees})`)
          return built.ok ? [built.value] : []
        })
  const all = new Map([...coloured, ...built].filter(keeps).map((other) => [other.canonical, other]))
  return [chord, ...all.values()]
}
/** Tensions, one or two at a time, as they are written behind a chord. */
const BUILT = ['9', '11', '13', 'b9', '#9', 'b13', '#11', '9,11', '9,13', 'b9,b13', '9,#11'] as const

/** Chords one after the other, read as a chart of a bar each. */
export const readingsOf = (chords: readonly ChordSymbol[]): readonly Reading[] =>
  analyse(parseChart(`| ${chords.map(({ text }) => text).join(' | ')} |`)).readings

/** Degrees a chord sounds in a line beyond those of the chord as it is written. */
export const addedTo = (chord: ChordSymbol, sounding: ChordSymbol): Degree[] =>
  sounding.tones
    .map(({ degree }) => degree)
    .filter((degree) => !chord.tones.some((tone) => tone.degree === degree))

/** Colours of a chord and role known before. */
const KNOWN_COLOURS = new Map<string, readonly ChordSymbol[]>()
const MOST_KNOWN = 2000

/**
 * What a chord in its role may become inside a line, itself first; only itself where its role is
 * not known.
 */
export function coloursFor(chord: ChordSymbol, role: Role | undefined): readonly ChordSymbol[] {
  if (!role) return [chord]
  const key = `${chord.canonical} ${role}`
  const known =
    KNOWN_COLOURS.get(key) ??
    coloursInLine({
      slot: { symbol: { kind: 'chord', chord } } as Parameters<typeof coloursInLine>[0]['slot'],
      role,
    })
  if (KNOWN_COLOURS.size > MOST_KNOWN) KNOWN_COLOURS.clear()
  KNOWN_COLOURS.set(key, known)
  return [chord, ...known.slice(1)]
}

/**
 * Whether a texture that lives on colours gives a chord one by itself: sixths and sevenths without
 * a tension of their own; a triad stays one.
 */
export const takesColour = ({ tones }: ChordSymbol): boolean =>
  tones.length > 3 && !tones.some(({ degree }) => toneClass(degree) === 'tension')
