import type { Chart, Meter, Slot } from '../chart/chart'
import { NEAR } from '../chart/beats'
import type { ChordSymbol } from '../chord/symbol'

/** A place where the bass may begin a note. */
export interface Pulse {
  bar: number
  beat: number
  beats: number
  slot: Slot
  chord: ChordSymbol
  /** Another chord than at the pulse before, or none before. */
  changes: boolean
  /** The first one, or behind a silence: a line begins anew here. */
  begins: boolean
  beginsBar: boolean
  strong: boolean
}

/** Three eighths are a beat: 6/8, 9/8, 12/8. */
export const isCompound = ({ beats, unit }: Meter): boolean => unit >= 8 && beats > 3 && beats % 3 === 0

/**
 * Length of a walking step in beats of the metre: the dotted beat of a compound metre, else the
 * beat.
 */
export const walkingStep = (meter: Meter): number => (isCompound(meter) ? 3 : 1)

/**
 * The beat on which the second half of a bar begins: 3 of 4/4 and 3/4, 4 of 5/4 (3 + 2) and 6/8, 7
 * of 12/8.
 */
export function halfOf(meter: Meter): number {
  const step = walkingStep(meter)
  const steps = Math.max(1, Math.round(meter.beats / step))
  return Math.min(steps - 1, steps === 3 ? 2 : Math.ceil(steps / 2)) * step + 1
}

/**
 * Strong beats of a metre: the first, and the one its second half begins on where that is not the
 * last.
 */
const strongOf = (meter: Meter): number[] => {
  const half = halfOf(meter)
  return half + walkingStep(meter) <= meter.beats ? [1, half] : [1]
}

export type PulseGrid = 'steps' | 'halves' | 'bars'

/**
 * The places where a bass may strike: the steps, the halves or the beginnings of bars, and wherever
 * a chord comes. Bars stand as written; silences have none.
 */
export function pulsesOf(chart: Chart, grid: PulseGrid): Pulse[] {
  const pulses: Pulse[] = []
  let before: ChordSymbol | null = null
  for (const bar of chart.bars) {
    const end = bar.from + bar.beats
    const strong = strongOf(bar.meter)
    const places = new Set([bar.from])
    for (const slot of bar.slots) places.add(slot.beat)
    if (grid === 'steps')
      for (let beat = 1; beat < end - NEAR; beat += walkingStep(bar.meter)) places.add(beat)
    if (grid === 'halves') places.add(halfOf(bar.meter))
    const inside = [...places]
      .filter((beat) => beat >= bar.from - NEAR && beat < end - NEAR)
      .sort((a, b) => a - b)
    inside.forEach((beat, at) => {
      const slot = bar.slots.find((one) => one.beat <= beat + NEAR && beat < one.beat + one.beats - NEAR)
      if (slot?.symbol?.kind !== 'chord') {
        before = null
        return
      }
      const { chord } = slot.symbol
      const until = Math.min(inside[at + 1] ?? end, slot.beat + slot.beats)
      pulses.push({
        bar: bar.number,
        beat,
        beats: until - beat,
        slot,
        chord,
        changes: before?.canonical !== chord.canonical,
        begins: before === null,
        beginsBar: at === 0,
        strong: strong.some((one) => Math.abs(one - beat) < NEAR),
      })
      before = chord
    })
  }
  return pulses
}
