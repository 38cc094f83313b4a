import type { Bar, Slot } from '../../../core/chart/chart'

/** Bars in a system: the trade's four. */
export const BARS_IN_SYSTEM = 4
/** Share of a system that a pickup bar takes. */
const PICKUP_SHARE = 0.12

/** Some bars side by side, with their places across the page. */
export interface System {
  bars: Bar[]
  /** Left edge of each bar, and the right edge of the last, from 0 to 1. */
  edges: number[]
}

/** The bars of a tune in systems of four; a section begins a new one, a pickup stands before the first bar. */
export function systemsOf(bars: readonly Bar[]): System[] {
  const systems: Bar[][] = []
  let full = 0
  for (const bar of bars) {
    if (systems.length === 0 || full === BARS_IN_SYSTEM || (bar.opensSection && full > 0)) {
      systems.push([])
      full = 0
    }
    systems.at(-1)!.push(bar)
    if (bar.number > 0) full += 1
  }
  return systems.map((inside) => {
    const pickup = inside[0]!.number === 0
    const left = pickup ? PICKUP_SHARE : 0
    const width = (1 - left) / BARS_IN_SYSTEM
    return {
      bars: inside,
      edges: [
        ...(pickup ? [0] : []),
        ...Array.from({ length: inside.length + (pickup ? 0 : 1) }, (_, at) => left + at * width),
      ],
    }
  })
}

/** The columns of a system for a CSS grid, blank ones at the end where it has fewer than four bars. */
export function columnsOf({ bars, edges }: System): string {
  const widths = bars.map((_, at) => edges[at + 1]! - edges[at]!)
  const blank = 1 - edges.at(-1)!
  return [...widths, ...(blank > 0.001 ? [blank] : [])]
    .map((width) => `minmax(0, ${width.toFixed(4)}fr)`)
    .join(' ')
}

/** How far across its system a beat lies, 0 to 1. */
export function across({ bars, edges }: System, at: number, beat: number): number {
  const bar = bars[at]!
  const share = Math.max(0, Math.min(1, (beat - bar.from) / (bar.beats || 1)))
  return edges[at]! + share * (edges[at + 1]! - edges[at]!)
}

export const endOf = (slot: Slot): number => slot.beat + slot.beats
