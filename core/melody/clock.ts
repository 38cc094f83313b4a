import { itemAt } from '../lists'
import { NEAR } from '../chart/beats'
import type { Bar, Chart } from '../chart/chart'
import { midiOf } from '../pitch/note'
import type { MelodyNote } from '../reharm/melodyFit'

export { NEAR }

/**
 * Bars and beats as one running count, in beats of the metre the tune begins with; bars in the
 * order in which they are written.
 */
export class Clock {
  private readonly starts = new Map<number, { at: number; bar: Bar; scale: number }>()
  /** Where the last bar ends. */
  readonly end: number

  constructor(chart: Chart) {
    let at = 0
    for (const bar of chart.bars) {
      const scale = chart.meter.unit / bar.meter.unit
      this.starts.set(bar.number, { at, bar, scale })
      at += bar.beats * scale
    }
    this.end = at
  }

  /** NaN for a bar the chart does not have. */
  at({ bar, beat }: { bar: number; beat: number }): number {
    const start = this.starts.get(bar)
    return start ? start.at + (beat - start.bar.from) * start.scale : NaN
  }

  /** How long some beats of a bar are in beats of the first metre. */
  lasts(bar: number, beats: number): number {
    return beats * (this.starts.get(bar)?.scale ?? 1)
  }

  /** The bar and beat at a time; past the end the last bar's beats go on. */
  place(time: number): { bar: number; beat: number } {
    const bars = [...this.starts.values()]
    const found = bars.findLast(({ at }) => at <= time + NEAR) ?? bars[0]
    return found
      ? { bar: found.bar.number, beat: rounded(found.bar.from + (time - found.at) / found.scale) }
      : { bar: 1, beat: 1 + time }
  }

  /** The ends of bars, as times. */
  get barLines(): number[] {
    return [...this.starts.values()].map(({ at, bar, scale }) => at + bar.beats * scale)
  }

  /**
   * The beginning of the next bar, or of this one, or of the one before where this is its beginning
   * already.
   */
  barAway(time: number, by: 1 | -1): number {
    const starts = [...this.starts.values()].map(({ at }) => at)
    return by > 0
      ? (starts.find((at) => at > time + NEAR) ?? this.end)
      : (starts.findLast((at) => at < time - NEAR) ?? 0)
  }

  /** Beats of a bar in which a time of the first metre lasts. */
  beatsIn(bar: number, lasts: number): number {
    return lasts / (this.starts.get(bar)?.scale ?? 1)
  }
}

/** Twenty-fourths of a beat hold halves, thirds, quarters, sixths and eighths. */
const GRAIN = 24
export const rounded = (beats: number): number => Math.round(beats * GRAIN * 100) / (GRAIN * 100)

/** A melody note with its time. */
export interface Sung {
  note: MelodyNote
  midi: number
  from: number
  to: number
}

/**
 * The notes within the chart's bars in order, one at a time: each ends at the latest where the next
 * begins.
 */
export function sungIn(clock: Clock, melody: readonly MelodyNote[]): Sung[] {
  const all = melody
    .map((note): Sung => {
      const from = clock.at(note)
      return { note, midi: midiOf(note.note), from, to: from + clock.lasts(note.bar, note.beats) }
    })
    .filter(({ from }) => from >= -NEAR && from < clock.end - NEAR)
    .sort((a, b) => a.from - b.from || b.midi - a.midi)
  const inTurn = all.filter(({ from }, at) => at === 0 || from > itemAt(all, at - 1).from + NEAR)
  return inTurn.map((one, at) => ({ ...one, to: Math.min(one.to, inTurn[at + 1]?.from ?? clock.end) }))
}

/** A piece of a note inside one bar; a note over a bar line is several pieces, tied. */
export interface Piece {
  note: MelodyNote
  bar: number
  beat: number
  beats: number
  tiedFrom: boolean
  tiedOn: boolean
}

/** Notes cut at the bar lines, as they are written. */
export function notatedPieces(chart: Chart, melody: readonly MelodyNote[]): Piece[] {
  const clock = new Clock(chart)
  const lines = clock.barLines
  return sungIn(clock, melody).flatMap(({ note, from, to }) => {
    const cuts = [from, ...lines.filter((line) => line > from + NEAR && line < to - NEAR), to]
    return cuts.slice(0, -1).map((begin, at): Piece => {
      const { bar, beat } = clock.place(begin)
      return {
        note,
        bar,
        beat,
        beats: rounded(clock.beatsIn(bar, itemAt(cuts, at + 1) - begin)),
        tiedFrom: at > 0,
        tiedOn: at < cuts.length - 2,
      }
    })
  })
}
