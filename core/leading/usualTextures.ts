import { hasDegree, type ChordSymbol } from '../chord/symbol'
import { toneClass } from '../voicing/gripIdiom'
import type { Limits } from '../voicing/gripLimits'
import type { TextureName } from './textureNames'

/** From this share of plain triads on a tune is a song of plain triads. */
const PLAIN = 0.4

/**
 * Chords of a song: triads and what is hung on them, a bass that is written under them, the line
 * from a minor triad down.
 */
const isOfSongs = (chord: ChordSymbol): boolean =>
  chord.tones.length <= 3 ||
  chord.bass !== null ||
  (hasDegree(chord, 'b3') && hasDegree(chord, '7')) ||
  !hasDegree(chord, '7', 'b7', 'bb7', '6')

/** From this share of chords with a colour in the symbol on, shells take one on top. */
const COLOURED = 0.5

/**
 * The textures a chart is played in where none is asked for, the usual ones first (common
 * practice): plain triads ring open; sevenths with the guitar on the bass are shells, or drop 3 and
 * drop 2 with low roots; with a bass player four voices without the root, or drop 2.
 */
export function usualTextures(chords: readonly ChordSymbol[], { bass }: Pick<Limits, 'bass'>): TextureName[] {
  const plain = chords.filter(isOfSongs).length
  if (bass === 'none') return ['rootless', 'drop 2', 'triads']
  if (plain >= PLAIN * chords.length) return bass === 'any' ? ['triads', 'open'] : ['open', 'triads']
  if (bass === 'any') return ['drop 2', 'rootless', 'drop 3']
  const coloured = chords.filter(({ tones }) =>
    tones.some(({ degree }) => toneClass(degree) === 'tension'),
  ).length
  return coloured >= COLOURED * chords.length
    ? ['shells and colour', 'shells', 'drop 2', 'drop 3']
    : ['shells', 'drop 2', 'shells and colour', 'drop 3']
}
