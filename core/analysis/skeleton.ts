import { itemAt } from '../lists'
import { slotKey, type Bar, type Chart, type Slot } from '../chart/chart'
import { parseSymbol } from '../chord/parseChord'
import { hasDegree, type ChordSymbol } from '../chord/symbol'
import { noteName } from '../pitch/note'
import { must } from '../result'
import { analyse } from './analyse'
import type { HarmonicFunction, GroupKind } from './chordReading'

/**
 * 1 drops the ii of each ii-V and passing and approach chords; 2 reduces what is left to sevenths;
 * 3 to triads. Each level holds the ones before it. The chart itself is not changed: bringing it
 * back is reading it again.
 */
export type SkeletonLevel = 1 | 2 | 3

/** Chords that only lead to the next one. Common practice, no source. */
const PASSING: readonly HarmonicFunction[] = [
  'passing diminished',
  'common-tone diminished',
  'leading diminished',
  'chromatic approach',
]

const TWO_FIVES: readonly GroupKind[] = ['ii-V', 'ii-V-I', 'minor ii-V', 'substituted ii-V']

export function skeletonOf(chart: Chart, level: SkeletonLevel): Chart {
  const chords = withoutPassing(chart)
  const reduced = level === 1 ? chords : chords.map((chord) => chord && reduceTo(chord, level))
  let at = 0
  const bars = chart.bars.map((bar): Bar => {
    const slots = bar.slots.map((slot): Slot => {
      const chord = reduced[at]
      at += 1
      return chord ? { ...slot, text: chord.canonical, symbol: { kind: 'chord', chord } } : slot
    })
    return { ...bar, slots: joined(slots) }
  })
  return {
    ...chart,
    bars: bars.map((bar, index) => ({ ...bar, repeats: bar.repeats && sameChords(bar, bars[index - 1]) })),
  }
}

/**
 * The chord of each slot after the passing ones have given their time to others; null for silences
 * and unread text.
 */
function withoutPassing(chart: Chart): (ChordSymbol | null)[] {
  const slots = chart.bars.flatMap((bar) => bar.slots)
  const { readings, groups } = analyse(chart)
  const functions = new Map(readings.map((reading) => [slotKey(reading.slot), reading.function]))
  const chords = slots.map((slot) => (slot.symbol?.kind === 'chord' ? slot.symbol.chord : null))
  const result = [...chords]

  // The V takes the time of its ii: it sounds the ii's tones anyway.
  for (const group of groups) {
    if (!TWO_FIVES.includes(group.kind)) continue
    const first = slots.findIndex((slot) => slotKey(slot) === slotKey(group.from))
    const two = chords[first]
    let five = first
    while (chords[five]?.canonical === two?.canonical) five += 1
    for (let at = first; at < five; at += 1) result[at] = chords[five] ?? null
  }
  // A passing chord gives its time to the chord it leaves; one that begins the tune gives it to the
  // chord it leads to.
  slots.forEach((slot, at) => {
    if (!PASSING.includes(functions.get(slotKey(slot)) ?? 'tonic')) return
    const left = result[at - 1]
    const reached = result
      .slice(at + 1)
      .find((chord) => chord && chord.canonical !== itemAt(chords, at)!.canonical)
    result[at] = left ?? reached ?? itemAt(result, at)
  })
  return result
}

/**
 * The same chord with no more than its seventh, or no more than its triad. Altered fifths and
 * tensions go first.
 */
export function reduceTo(chord: ChordSymbol, level: 2 | 3): ChordSymbol {
  const bass = chord.bass ? `/${noteName(chord.bass)}` : ''
  const symbol = must(parseSymbol(noteName(chord.root) + suffixAt(chord, level) + bass))
  return symbol.kind === 'chord' ? symbol.chord : chord
}

function suffixAt(chord: ChordSymbol, level: 2 | 3): string {
  const has = (...degrees: Parameters<typeof hasDegree>[1][]) => hasDegree(chord, ...degrees)
  const seventh = level === 2
  if (has('b3')) {
    if (has('b5') && !has('5')) {
      if (!seventh) return 'dim'
      if (has('bb7')) return 'dim7'
      return has('b7') ? 'm7b5' : 'dim'
    }
    if (!seventh) return 'm'
    if (has('7')) return 'm(maj7)'
    if (has('b7')) return 'm7'
    if (has('6')) return 'm6'
    return 'm'
  }
  if (has('3')) {
    if (has('b7')) return seventh ? '7' : ''
    if (has('#5') && !has('5')) return has('7') && seventh ? 'maj7#5' : 'aug'
    if (!seventh) return ''
    if (has('7')) return 'maj7'
    if (has('6')) return '6'
    return ''
  }
  if (has('4', '11')) return has('b7') && seventh ? '7sus4' : 'sus4'
  if (has('2')) return has('b7') && seventh ? '7sus2' : 'sus2'
  return '5'
}

/** Neighbours that have become one chord are written as one. */
function joined(slots: readonly Slot[]): Slot[] {
  const out: Slot[] = []
  for (const slot of slots) {
    const last = out.at(-1)
    if (last && last.symbol?.kind === 'chord' && last.text === slot.text)
      out[out.length - 1] = { ...last, beats: last.beats + slot.beats }
    else out.push(slot)
  }
  return out
}

const sameChords = (bar: Bar, other: Bar | undefined): boolean =>
  other !== undefined &&
  bar.slots.map((slot) => slot.text).join() === other.slots.map((slot) => slot.text).join()
