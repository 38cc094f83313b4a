import { itemAt } from '../lists'
import { hasDegree, type ChordSymbol } from '../chord/symbol'
import { pitchClass } from '../pitch/note'

/** C3: below it close intervals turn muddy (common practice). */
const MUD_LINE = 48
const PERFECT_FOURTH = 5

/** Two sounding notes that disturb each other, by their places among the notes from the lowest. */
export interface Clash {
  kind: 'mud' | 'sour'
  low: number
  high: number
}

/** Neighbours closer than a fourth whose lower one lies below C3. */
export function mudIn(midis: readonly number[]): Clash[] {
  const clashes: Clash[] = []
  for (let high = 1; high < midis.length; high += 1)
    if (
      itemAt(midis, high - 1) < MUD_LINE &&
      itemAt(midis, high) - itemAt(midis, high - 1) < PERFECT_FOURTH &&
      midis[high] !== midis[high - 1]
    )
      clashes.push({ kind: 'mud', low: high - 1, high })
  return clashes
}

/** D3: neighbours both below it want a fourth between them, better a fifth (common practice). */
const LOW_LINE = 50

/** Neighbours of two different notes, both below D3, that lie closer than a fourth. */
export function mudBelow(midis: readonly number[]): number {
  let mud = 0
  for (let high = 1; high < midis.length && itemAt(midis, high) < LOW_LINE; high += 1)
    if (itemAt(midis, high) - itemAt(midis, high - 1) < PERFECT_FOURTH && midis[high] !== midis[high - 1])
      mud += 1
  return mud
}

/**
 * Minor ninths between any two notes, but for root and b9 of a dominant (common practice: the sour
 * interval).
 */
export function soursIn(midis: readonly number[], chord: ChordSymbol): Clash[] {
  const root = pitchClass(chord.root)
  const dominant = hasDegree(chord, '3') && hasDegree(chord, 'b7')
  const clashes: Clash[] = []
  for (let low = 0; low < midis.length; low += 1)
    for (let high = low + 1; high < midis.length; high += 1)
      if (
        (itemAt(midis, high) - itemAt(midis, low)) % 12 === 1 &&
        itemAt(midis, high) - itemAt(midis, low) > 12 &&
        !(dominant && itemAt(midis, low) % 12 === root)
      )
        clashes.push({ kind: 'sour', low, high })
  return clashes
}
