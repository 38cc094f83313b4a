import { playOrder } from '../../../core/chart/form'
import { rangeOf, type Selection } from '../workspace/selection'
import type { TuneChord, TuneReading } from '../workspace/useTuneReading'

/** The chords that are played, in order. */
export interface Sequence {
  chords: TuneChord[]
  /** What is played, in words. */
  range: 'all' | 'from' | 'stretch'
}

/**
 * A stretched selection is played as it stands, to be looped; a single chord is where playing begins, and from there the
 * tune goes on as its form says, with repeats, endings and jumps.
 */
export function sequenceOf({ chart, chords }: TuneReading, selection: Selection): Sequence {
  const [from, to] = rangeOf(selection)
  if (from !== to) return { chords: chords.slice(from, to + 1), range: 'stretch' }
  const byBar = new Map<number, TuneChord[]>()
  for (const chord of chords) byBar.set(chord.slot.bar, [...(byBar.get(chord.slot.bar) ?? []), chord])
  const order = playOrder(chart).flatMap((index) => byBar.get(chart.bars[index]!.number) ?? [])
  const begin = Math.max(0, order.findIndex((chord) => chord.index === from))
  return { chords: order.slice(begin), range: begin === 0 ? 'all' : 'from' }
}
