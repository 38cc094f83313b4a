import { itemAt } from '../lists'
import { NEAR } from '../chart/beats'
import type { Chart } from '../chart/chart'
import { Clock } from '../melody/clock'

/** A note of a grip as it is written: sounding MIDI number's spelling is the writer's. */
export interface CompingNote<Written> {
  midi: number
  written: Written
}

/** A hit of a figure, bars as they are written. */
export interface CompingHit<Written> {
  bar: number
  beat: number
  /** How long it sounds, in beats of its bar. */
  beats: number
  accent: boolean
  notes: readonly CompingNote<Written>[]
}

/** A hit, or what is tied on of it, inside one bar. */
export interface CompingPiece<Written> {
  bar: number
  beat: number
  beats: number
  tiedFrom: boolean
  tiedOn: boolean
  accent: boolean
  /** Shorter than it is written. */
  short: boolean
  notes: readonly Written[]
}

/**
 * The shortest value a hit is written with, in quarters: an eighth, or a sixteenth where the next
 * one comes sooner.
 */
const EIGHTH = 0.5
const SIXTEENTH = 0.25

/**
 * Hits as they are written: what is struck together is one, a short one has an eighth (or the time
 * to the next) and a dot, a long one ends on the grid, and what goes over a bar line is tied.
 */
export function piecesOfComping<Written>(
  chart: Chart,
  hits: readonly CompingHit<Written>[],
): CompingPiece<Written>[] {
  const clock = new Clock(chart)
  const quarter = chart.meter.unit / 4
  const placed = hits
    .map((hit) => ({ ...hit, from: clock.at(hit), lasts: clock.lasts(hit.bar, hit.beats) }))
    .filter(({ from }) => Number.isFinite(from))
    .sort((a, b) => a.from - b.from)
  const together: typeof placed = []
  for (const hit of placed) {
    const last = together.at(-1)
    if (!last || hit.from > last.from + NEAR) {
      together.push(hit)
      continue
    }
    const known = new Set(last.notes.map(({ midi }) => midi))
    together[together.length - 1] = {
      ...last,
      lasts: Math.max(last.lasts, hit.lasts),
      accent: last.accent || hit.accent,
      notes: [...last.notes, ...hit.notes.filter(({ midi }) => !known.has(midi))].sort(
        (a, b) => a.midi - b.midi,
      ),
    }
  }
  const lines = clock.barLines
  return together.flatMap((hit, at): CompingPiece<Written>[] => {
    const room = (together[at + 1]?.from ?? clock.end) - hit.from
    const grid = (room < EIGHTH * quarter - NEAR ? SIXTEENTH : EIGHTH) * quarter
    const onGrid = Math.max(grid, Math.round(hit.lasts / grid) * grid)
    const lasts = Math.min(onGrid, room)
    const short = hit.lasts < lasts - NEAR
    const cuts = [
      hit.from,
      ...lines.filter((line) => line > hit.from + NEAR && line < hit.from + lasts - NEAR),
      hit.from + lasts,
    ]
    return cuts.slice(0, -1).map((begin, piece) => {
      const place = clock.place(begin)
      return {
        ...place,
        beats: clock.beatsIn(place.bar, itemAt(cuts, piece + 1) - begin),
        tiedFrom: piece > 0,
        tiedOn: piece < cuts.length - 2,
        accent: hit.accent && piece === 0,
        short: short && cuts.length === 2,
        notes: hit.notes.map(({ written }) => written),
      }
    })
  })
}
