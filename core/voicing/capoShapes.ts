import { keyAbove, transposeSymbol } from '../chart/transpose'
import { parseChord } from '../chord/parseChord'
import type { ChordSymbol } from '../chord/symbol'
import type { Key } from '../pitch/key'
import { noteName } from '../pitch/note'
import { must } from '../result'

/** A fret for the capo, and the shapes that are played there. */
export interface CapoPlace {
  capo: number
  /** Chords, each as often as it comes, that are played with an open shape. */
  open: number
  /** What is fingered for each different chord, in the order in which they come. */
  shapes: { chord: ChordSymbol; shape: ChordSymbol; open: boolean }[]
}

/** The highest fret a capo is put on in practice. */
export const HIGHEST_CAPO = 9

/**
 * The shapes of open position, by root and quality: C A G E D, Am Em Dm, their sevenths, and what
 * lifting or adding one finger makes of them. Common practice, no source.
 */
const MAJOR_ROOTS: readonly string[] = ['C', 'A', 'G', 'E', 'D']
const MINOR_ROOTS: readonly string[] = ['A', 'E', 'D']
const MAJOR_SHAPES: readonly string[] = ['', '7', 'maj7', 'sus2', 'sus4', 'add9', '6', '7sus4']
const MINOR_SHAPES: readonly string[] = ['m', 'm7']

const isOpenShape = ({ root, suffix }: ChordSymbol): boolean => {
  const plain = suffix.replace(/\/.*$/, '')
  return (
    (MAJOR_ROOTS.includes(noteName(root)) && MAJOR_SHAPES.includes(plain)) ||
    (MINOR_ROOTS.includes(noteName(root)) && MINOR_SHAPES.includes(plain))
  )
}

/**
 * Where a capo makes a tune easy: for each fret how many of its chords are played with open shapes
 * and which, the most first, then the lowest fret. Fret 0 is the tune without a capo.
 */
export function capoPlaces(chords: readonly ChordSymbol[], key: Key): CapoPlace[] {
  const different = [...new Map(chords.map((chord) => [chord.canonical, chord])).values()]
  return Array.from({ length: HIGHEST_CAPO + 1 }, (_, capo): CapoPlace => {
    const played = keyAbove(key, -capo)
    const shapes = different.map((chord) => {
      const shape = must(parseChord(transposeSymbol(chord.canonical, key, played)))
      return { chord, shape, open: isOpenShape(shape) }
    })
    const open = new Set(shapes.filter((one) => one.open).map(({ chord }) => chord.canonical))
    return { capo, open: chords.filter(({ canonical }) => open.has(canonical)).length, shapes }
  }).sort((a, b) => b.open - a.open || a.capo - b.capo)
}
