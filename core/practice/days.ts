import { DAY_MS, type DayOf } from './recall'

/** One for each zone that was asked for: making one takes a hundred times as long as using it. */
const FORMATS = new Map<string, Intl.DateTimeFormat>()

/** @throws RangeError for a name that is no zone */
function formatFor(zone: string): Intl.DateTimeFormat {
  const known = FORMATS.get(zone)
  if (known) return known
  const format = new Intl.DateTimeFormat('en-CA', {
    timeZone: zone,
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
  })
  FORMATS.set(zone, format)
  return format
}

/** A zone as the clock of a player's computer names it: `Europe/Vienna`, `UTC`. */
export function isZone(zone: string): boolean {
  try {
    formatFor(zone)
    return true
  } catch {
    return false
  }
}

/**
 * The days of a place: each begins at its own midnight, summer time and all. @param zone an IANA
 * time zone; throws on another name
 */
export function daysIn(zone: string): DayOf {
  const known = formatFor(zone)
  return (at) => {
    const [year, month, day] = known.format(at).split('-').map(Number)
    return Date.UTC(year!, month! - 1, day!) / DAY_MS
  }
}

/** A day by its date, `2026-05-04`. */
export const dateOf = (day: number): string => new Date(day * DAY_MS).toISOString().slice(0, 10)
/** The day of a date; NaN for what is none. */
export const dayOfDate = (date: string): number => Date.parse(`${date}T00:00:00Z`) / DAY_MS

/** How far a day lies from today, in words. */
export function dayInWords(day: number, today: number): string {
  const ahead = day - today
  if (ahead === 0) return 'today'
  if (Math.abs(ahead) === 1) return ahead > 0 ? 'tomorrow' : 'yesterday'
  return ahead > 0 ? `in ${ahead} days` : `${-ahead} days ago`
}
