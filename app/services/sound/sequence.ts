import { itemAt } from '../../../core/lists'
import { playOrder } from '../../../core/chart/form'
import type { LineChord } from '../../../core/tune/decisions'
import { groupedBy } from '../../../core/grouped'
import { rangeOf, type ChordSelection } from '../selection/selection'
import type { TuneChord, TuneReading } from '../../../core/tune/tuneReading'

/** What is played, in order: the same stretch of time in both lines. */
export interface Sequence {
  home: TuneChord[]
  line: LineChord[]
  /** What is played, in words. */
  range: 'all' | 'from' | 'stretch'
}

/**
 * A stretched selection is played as it stands, to be looped; a single chord is where playing
 * begins, and from there the tune goes on as its form says, with repeats, endings and jumps.
 * @param selection of the home line
 */
export function sequenceOf(
  { chart, chords, line }: Pick<TuneReading, 'chart' | 'chords' | 'line'>,
  selection: ChordSelection,
): Sequence {
  const [from, to] = rangeOf(selection)
  if (from !== to)
    return {
      home: chords.slice(from, to + 1),
      line: line.filter((one) => one.home >= from && one.home <= to),
      range: 'stretch',
    }
  const order = playOrder(chart)
  const homeOf = byBar(chords)
  const lineOf = byBar(line)
  const home = order.flatMap((index) => homeOf.get(itemAt(chart.bars, index).number) ?? [])
  const begin = Math.max(
    0,
    home.findIndex((chord) => chord.index === from),
  )
  // The new line begins at the same moment: its chords of the bars before, and those before the
  // beat, are left out.
  const barsBefore = order.findIndex((index) => itemAt(chart.bars, index).number === home[begin]?.slot.bar)
  const later = order
    .slice(Math.max(0, barsBefore))
    .flatMap((index) => lineOf.get(itemAt(chart.bars, index).number) ?? [])
  const skip = later.findIndex((one) => one.slot.bar !== home[begin]?.slot.bar || one.home >= from)
  return {
    home: home.slice(begin),
    line: later.slice(Math.max(0, skip)),
    range: begin === 0 ? 'all' : 'from',
  }
}

/**
 * The chord that is played behind another the first time through: behind a first ending that is the
 * beginning of the repeat. Undefined at the end.
 */
export function playedBehind<Chord extends { slot: { bar: number } }>(
  chart: TuneReading['chart'],
  chords: readonly Chord[],
  chord: Chord,
): Chord | undefined {
  const inBars = byBar(chords)
  const here = inBars.get(chord.slot.bar) ?? []
  const after = here[here.indexOf(chord) + 1]
  if (after) return after
  const order = playOrder(chart).map((index) => itemAt(chart.bars, index).number)
  const at = order.indexOf(chord.slot.bar)
  // A bar the form never reaches goes on as it is written.
  if (at < 0) return chords[chords.indexOf(chord) + 1]
  return order.slice(at + 1).flatMap((bar) => inBars.get(bar) ?? [])[0]
}

const byBar = <Chord extends { slot: { bar: number } }>(chords: readonly Chord[]) =>
  groupedBy(chords, ({ slot }) => slot.bar)
