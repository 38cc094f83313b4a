import { entryOf, itemAt } from '../lists'
import { NEAR } from '../chart/beats'
import { slotsOf, type Chart, type Slot } from '../chart/chart'
import { withBars } from '../chart/editBars'
import { parseChart } from '../chart/parseChart'
import type { Change, Put } from './change'

/**
 * The chart text with some changes made, which must not overlap. Bars keep their length; all else
 * stays letter for letter.
 */
export function applyChanges<Made extends Pick<Change, 'index' | 'span' | 'puts'>>(
  text: string,
  changes: readonly Made[],
): string {
  const chart = parseChart(text)
  const slots = slotsOf(chart)
  const touched = new Map<number, Slot[]>()
  const barOf = new Map(chart.bars.map((bar, index) => [bar.number, index]))
  for (const change of changes) {
    const replaced = slots.slice(change.index, change.index + change.span)
    for (const slot of replaced) {
      const bar = entryOf(barOf, slot.bar)
      if (!touched.has(bar)) touched.set(bar, [...itemAt(chart.bars, bar).slots])
      touched.set(
        bar,
        entryOf(touched, bar).filter((one) => one !== slot),
      )
    }
    for (const slot of laidOut(change.puts, replaced)) {
      const bar = entryOf(barOf, slot.bar)
      touched.set(
        bar,
        [...entryOf(touched, bar), slot].sort((a, b) => a.beat - b.beat),
      )
    }
  }
  return withBars(text, touched)
}

/** The same chords in the same proportions over another time. */
export function stretched(puts: readonly Put[], beats: number): Put[] {
  const whole = puts.reduce((sum, put) => sum + put.beats, 0)
  return Math.abs(whole - beats) < NEAR
    ? [...puts]
    : puts.map((put) => ({ ...put, beats: (put.beats * beats) / whole }))
}

/**
 * Chords laid over the time of some slots; one that goes on over a bar line is held in the next
 * bar.
 */
export function laidOut(puts: readonly Put[], replaced: readonly Slot[]): Slot[] {
  const slots: Slot[] = []
  let at = 0
  let left = puts[0]?.beats ?? 0
  let begun = false
  for (const place of replaced) {
    let beat = place.beat
    let room = place.beats
    while (room > NEAR && at < puts.length) {
      const beats = Math.min(room, left)
      const { chord } = itemAt(puts, at)
      const last = slots.at(-1)
      if (begun && last && last.bar === place.bar) last.beats += beats
      else
        slots.push({
          bar: place.bar,
          beat,
          beats,
          text: chord.canonical,
          symbol: { kind: 'chord', chord },
          held: begun,
        })
      begun = true
      beat += beats
      room -= beats
      left -= beats
      if (left <= NEAR) {
        at += 1
        left = puts[at]?.beats ?? 0
        begun = false
      }
    }
  }
  return slots
}

/** The same, read. */
export const changedChart = (text: string, changes: readonly Change[]): Chart =>
  parseChart(applyChanges(text, changes))
