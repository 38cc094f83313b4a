import { homeKey } from '../../../core/analysis/analyse'
import { parseChart } from '../../../core/chart/parse'
import type { Key } from '../../../core/pitch/key'
import type { SongbookEntry } from '../../../db/tunes'

export interface SongbookRow {
  id: string
  title: string
  /** Null for a tune without chords. */
  key: Key | null
  meter: string
  bars: number
  touched: string
  touchedAt: number
}

/** Tunes on one page of the book. */
export const ROWS_A_PAGE = 60

/** Every word of the search must be in the title or the chart text (a chord, a key line). */
export function matching(entries: readonly SongbookEntry[], query: string): SongbookEntry[] {
  const words = query.toLocaleLowerCase().split(/\s+/).filter(Boolean)
  return entries.filter(({ title, text }) => {
    const where = `${title}\n${text}`.toLocaleLowerCase()
    return words.every((word) => where.includes(word))
  })
}

export function rowOf({ id, title, text, touchedAt }: SongbookEntry, now: number): SongbookRow {
  const chart = parseChart(text)
  const key = chart.key ?? (chart.bars.length > 0 ? homeKey(chart) : null)
  return {
    id, title, touchedAt,
    key,
    meter: `${chart.meter.beats}/${chart.meter.unit}`,
    bars: chart.bars.length,
    touched: daysAgo(touchedAt, now),
  }
}

const DAY_MS = 86_400_000

function daysAgo(then: number, now: number): string {
  const midnight = new Date(now).setHours(0, 0, 0, 0)
  const days = Math.ceil((midnight - then) / DAY_MS)
  if (days <= 0) return 'today'
  if (days === 1) return 'yesterday'
  return days < 30 ? `${days} days ago` : new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium' }).format(then)
}
