import { z } from 'zod'
import { parseChord } from '../chord/parseChord'
import { parseStringing } from '../neck/otherInstrument'

/**
 * The highest fret a grip can be written at, whatever the instrument: frets of a neck are checked
 * by its player's settings.
 */
export const HIGHEST_FRET = 36

export const place = z
  .string()
  .regex(/^\d+:\d+(\.\d+)?$/, 'a place such as 3:1 (bar:beat)')
  .max(16)
export const frets = z.array(z.int().min(0).max(HIGHEST_FRET).nullable()).min(4).max(8)
export const symbol = z
  .string()
  .max(80)
  .refine((text) => parseChord(text).ok, 'a chord symbol such as Am9')
/**
 * Open strings and capo that frets are meant for: `E2 A2 D3 G3 B3 E4 capo 0`. Frets without it were
 * kept before it was written down.
 */
export const stringing = z
  .string()
  .max(80)
  .refine((text) => parseStringing(text).ok, 'open strings and a capo such as E2 A2 D3 G3 B3 E4 capo 0')
/** What was done, as undo names it. */
export const did = z.string().min(1).max(80)
