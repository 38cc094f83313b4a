import { DAY_MS, type DayOf } from './recall'

const FORMATS = new Map<string, Intl.DateTimeFormat>()

/** A zone as the clock of a player's computer names it: `Europe/Vienna`, `UTC`. */
export function isZone(zone: string): boolean {
  try {
    new Intl.DateTimeFormat('en-CA', { timeZone: zone })
    return true
  } catch {
    return false
  }
}

/** The days of a place: each begins at its own midnight, summer time and all. @param zone an IANA time zone; throws on another name */
export function daysIn(zone: string): DayOf {
  let format = FORMATS.get(zone)
  if (!format) {
    format = new Intl.DateTimeFormat('en-CA', {
      timeZone: zone,
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
    })
    FORMATS.set(zone, format)
  }
  const known = format
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
export function inWords(day: number, today: number): string {
  const ahead = day - today
  if (ahead === 0) return 'today'
  if (Math.abs(ahead) === 1) return ahead > 0 ? 'tomorrow' : 'yesterday'
  return ahead > 0 ? `in ${ahead} days` : `${-ahead} days ago`
}
