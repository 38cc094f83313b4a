/**
 * How moments are written. What writes them is made when the first is: it reads the tables of the
 * language for that, some 20 ms that a page without any date should not wait for.
 */
export function writtenAs(style: Intl.DateTimeFormatOptions): (at: number | Date) => string {
  let format: Intl.DateTimeFormat | undefined
  return (at) => (format ??= new Intl.DateTimeFormat('en-GB', style)).format(at)
}

/** A day and its time, for lists: "27 Nov 2026, 11:46". */
export const whenInWords = writtenAs({ dateStyle: 'medium', timeStyle: 'short' })
