import { entryOf } from '../../lists'
import { analyse } from '../../analysis/analyse'
import { kindOf, type Kind } from '../../analysis/kind'
import type { Analysis } from '../../analysis/chordReading'
import { slotsOf, type Chart, type Idiom } from '../../chart/chart'
import type { ChordSymbol } from '../../chord/symbol'
import { modulo, pitchClass } from '../../pitch/note'
import { barStarts, type MelodyNote } from '../melodyFit'
import { spotsOf, type Spot } from '../spot'

/** A chord of the version that is judged, with the plain chord it begins over. */
export interface Sounded {
  bar: number
  beat: number
  beats: number
  /** Beats from the beginning of the tune, and the bar's place in it from 0. */
  from: number
  barIndex: number
  barBeats: number
  chord: ChordSymbol
  kind: Kind
  root: number
  bass: number
  /** The plain chord that stands there; null where the plain chart is silent. */
  plain: Spot | null
  /** The plain chord begins here too. */
  begins: boolean
  /** It is the plain chord itself. */
  isPlain: boolean
  /** Another root than the plain chord's. */
  moved: boolean
  next: Sounded | null
  previous: Sounded | null
}

/** Two versions of a tune laid side by side. */
export interface Aligned {
  chart: Chart
  plain: readonly Spot[]
  analysis: Analysis
  idiom: Idiom
  sounded: readonly Sounded[]
  /** What is played first, and again behind the end. */
  top: Sounded | null
  /** What sounds from the beginning of a plain chord to its end. */
  over: (spot: Spot) => readonly Sounded[]
  melody: readonly MelodyNote[]
  bars: number
}

/**
 * Lays a new version over the plain chart, bar by bar and beat by beat.
 * @param known the plain chart's analysis and spots, where they are known
 */
export function aligned(
  chart: Chart,
  version: Chart,
  melody: readonly MelodyNote[],
  idiom: Idiom | null,
  known?: { analysis: Analysis; spots: readonly (Spot | null)[] },
): Aligned {
  const read = known?.analysis ?? analyse(idiom ? { ...chart, idiom } : chart)
  const plain = (known?.spots ?? spotsOf(chart, read)).filter((spot): spot is Spot => spot !== null)
  const starts = barStarts(chart)
  const placed = plain.map((spot) => ({ spot, from: starts(spot.slot.bar) + spot.slot.beat - 1 }))
  const index = new Map(chart.bars.map(({ number }, at) => [number, at]))
  const beatsOf = new Map(chart.bars.map(({ number, beats }) => [number, beats]))
  const sounded = slotsOf(version).flatMap((slot): Sounded[] => {
    if (slot.symbol?.kind !== 'chord' || !index.has(slot.bar)) return []
    const { chord } = slot.symbol
    const from = starts(slot.bar) + slot.beat - 1
    const under = placed.findLast((one) => one.from <= from + 1e-6 && from < one.from + one.spot.beats - 1e-6)
    const root = pitchClass(chord.root)
    return [
      {
        bar: slot.bar,
        beat: slot.beat,
        beats: slot.beats,
        from,
        barIndex: entryOf(index, slot.bar),
        barBeats: entryOf(beatsOf, slot.bar),
        chord,
        kind: kindOf(chord),
        root,
        bass: pitchClass(chord.bass ?? chord.root),
        plain: under?.spot ?? null,
        begins: under !== undefined && Math.abs(under.from - from) < 1e-6,
        isPlain: under?.spot.chord.canonical === chord.canonical,
        moved: under !== undefined && pitchClass(under.spot.chord.root) !== root,
        next: null,
        previous: null,
      },
    ]
  })
  sounded.forEach((one, at) => {
    one.next = sounded[at + 1] ?? null
    one.previous = sounded[at - 1] ?? null
  })
  const overOf = new Map<Spot, Sounded[]>()
  for (const one of sounded) if (one.plain) overOf.set(one.plain, [...(overOf.get(one.plain) ?? []), one])
  return {
    chart,
    plain,
    analysis: read,
    idiom: read.idiom.idiom,
    sounded,
    top: sounded[0] ?? null,
    over: (spot) => overOf.get(spot) ?? [],
    melody,
    bars: chart.bars.length,
  }
}

/** Half steps up from one sound to another, 0 to 11. */
export const up = (from: number, to: number): number => modulo(to - from, 12)
/** Half steps of the nearest way, 0 to 6. */
export const apart = (a: number, b: number): number => Math.min(up(a, b), up(b, a))
