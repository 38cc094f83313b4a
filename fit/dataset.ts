import guitar from '@tombatossals/chords-db/lib/guitar.json'
import { parseChord } from '../core/chord/parseChord'
import type { ChordSymbol } from '../core/chord/symbol'
import type { Frets } from '../core/neck/instrument'

/**
 * A chord of the open shape dataset (@tombatossals/chords-db 0.5.1) with the shapes written down
 * for it, from the nut up.
 */
export interface Written {
  key: string
  chord: ChordSymbol
  shapes: Frets[]
}

interface Shape {
  frets: number[]
  baseFret: number
}
interface Entry {
  key: string
  suffix: string
  positions: Shape[]
}

const SUFFIXES: Readonly<Record<string, string>> = { major: '', minor: 'm' }
const symbolOf = ({ key, suffix }: Entry) => key + (SUFFIXES[suffix] ?? suffix)
const fretsOf = ({ frets, baseFret }: Shape) =>
  frets.map((fret) => {
    if (fret < 0) return null
    if (fret === 0) return 0
    return fret + baseFret - 1
  })

/** Every chord of the dataset that is a chord symbol. */
export const WRITTEN: readonly Written[] = Object.values(guitar.chords as unknown as Record<string, Entry[]>)
  .flat()
  .flatMap((entry) => {
    const chord = parseChord(symbolOf(entry))
    return chord.ok ? [{ key: entry.key, chord: chord.value, shapes: entry.positions.map(fretsOf) }] : []
  })

/** The keys the weights are fitted on; the others are kept unseen, and tested on. */
const FITTED = ['C', 'D', 'E', 'F', 'G', 'A', 'B']
export const isFitted = ({ key }: Pick<Written, 'key'>): boolean => FITTED.includes(key)
