import { parseKey, type Key } from '../../../core/pitch/key'
import type { SongbookEntry, Twin } from '../../../db/songbook'

export interface SongbookRow {
  id: string
  title: string
  /** Null for a tune without chords. */
  key: Key | null
  meter: string
  bars: number
  /** How far it is, in words. */
  far: string
  /** Things due today; null for a tune that was never practised. */
  due: number | null
  /** A tune of the demo that nobody has changed. */
  demo: boolean
  touched: string
  touchedAt: number
  tags: string[]
  /** The step it was left at. */
  step: string
  /** Another tune that is the same; null where none is. */
  twin: Twin | null
}

/**
 * Tunes on one page of the book, and the most that one page shows: behind that a search finds them
 * sooner.
 */
export const ROWS_A_PAGE = 60
export const MOST_ROWS = 600

/** The words of a search, each of which must be in the title or the chart. */
export const searchWordsOf = (query: string): string[] => query.split(/\s+/).filter(Boolean)

export function rowOf(
  { id, title, summary: { key, meter, bars, far = 'typed' }, touchedAt, tags, place }: SongbookEntry,
  now: number,
  { due = null, demo = false, twin = null }: Partial<Pick<SongbookRow, 'due' | 'demo' | 'twin'>> = {},
): SongbookRow {
  const known = key === null ? null : parseKey(key)
  return {
    id,
    title,
    touchedAt,
    key: known?.ok ? known.value : null,
    meter,
    bars,
    far,
    due,
    demo,
    tags,
    step: place?.step ?? 'chart',
    twin,
    touched: daysAgo(touchedAt, now),
  }
}

const DAY_MS = 86_400_000

export function daysAgo(then: number, now: number): string {
  const midnight = new Date(now).setHours(0, 0, 0, 0)
  const days = Math.ceil((midnight - then) / DAY_MS)
  if (days <= 0) return 'today'
  if (days === 1) return 'yesterday'
  return days < 30
    ? `${days} days ago`
    : new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium' }).format(then)
}
