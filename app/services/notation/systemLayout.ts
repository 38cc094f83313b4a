import { firstOf, itemAt, lastOf } from '../../../core/lists'
import type { Bar, Slot } from '../../../core/chart/chart'

/** Bars in a system: the trade's four, and half as many where the window is a phone's. */
export const BARS_IN_SYSTEM = 4
export const BARS_ON_A_PHONE = 2
/** How wide a bar is in the drawings that go through a whole system, in their own units. */
const BAR_UNITS = 250
/** What a pickup bar takes of a system, in bars. */
const PICKUP_BARS = 0.48

/** Some bars side by side, with their places across the page. */
export interface System {
  bars: Bar[]
  /** Left edge of each bar, and the right edge of the last, from 0 to 1. */
  edges: number[]
  /** Bars it has room for. */
  room: number
}

/**
 * How wide a system's drawings are, in their own units: signs stay as large against a bar, however
 * many bars stand side by side.
 */
export const unitsOf = ({ room }: Pick<System, 'room'>): number => room * BAR_UNITS

/**
 * The bars of a tune in systems, of four where nothing else is said; a section begins a new one, a
 * pickup stands before the first bar.
 */
export function systemsOf(bars: readonly Bar[], room = BARS_IN_SYSTEM): System[] {
  const systems: Bar[][] = []
  let full = 0
  for (const bar of bars) {
    if (systems.length === 0 || full === room || (bar.opensSection && full > 0)) {
      systems.push([])
      full = 0
    }
    lastOf(systems).push(bar)
    if (bar.number > 0) full += 1
  }
  return systems.map((inside) => {
    const pickup = firstOf(inside).number === 0
    const left = pickup ? PICKUP_BARS / room : 0
    const width = (1 - left) / room
    return {
      bars: inside,
      room,
      edges: [
        ...(pickup ? [0] : []),
        ...Array.from({ length: inside.length + (pickup ? 0 : 1) }, (_, at) => left + at * width),
      ],
    }
  })
}

/**
 * The columns of a system for a CSS grid, blank ones at the end where it has fewer bars than room.
 */
export function columnsOf({ bars, edges }: System): string {
  const widths = bars.map((_, at) => itemAt(edges, at + 1) - itemAt(edges, at))
  const blank = 1 - lastOf(edges)
  return [...widths, ...(blank > 0.001 ? [blank] : [])]
    .map((width) => `minmax(0, ${width.toFixed(4)}fr)`)
    .join(' ')
}

/** How far across its system a beat lies, 0 to 1. */
export function across({ bars, edges }: System, at: number, beat: number): number {
  const bar = itemAt(bars, at)
  const share = Math.max(0, Math.min(1, (beat - bar.from) / (bar.beats || 1)))
  return itemAt(edges, at) + share * (itemAt(edges, at + 1) - itemAt(edges, at))
}

export const slotEnd = (slot: Slot): number => slot.beat + slot.beats
