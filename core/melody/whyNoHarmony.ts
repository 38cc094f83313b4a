import { itemAt } from '../lists'
import { stringNumber } from '../neck/instrument'
import { plainPitchName } from '../pitch/note'
import type { Fault } from '../result'
import type { Limits } from '../voicing/gripLimits'

/** What those who ask call the limits, so that a refusal names the one that made it. */
export interface LimitNames {
  /** The highest fret, as the player knows it. */
  frets?: string
  /** The strings left out, as the player knows them. */
  strings?: string
}

/**
 * Why a melody note can be had nowhere on the neck within the limits, and what would be accepted;
 * null where it can be.
 */
export function whyNoNote(
  midi: number,
  name: string,
  where: string,
  { instrument: { tuning, capo }, frets: [low, high], strings }: Limits,
  names: LimitNames = {},
): Pick<Fault, 'message' | 'accepted'> | null {
  const used = strings ?? tuning.map((_, string) => string)
  const frets = used.map((string) => ({ string, fret: midi - itemAt(tuning, string) }))
  const nut = frets.filter(({ fret }) => fret >= capo)
  if (nut.length === 0) {
    const lowest = Math.min(...used.map((string) => itemAt(tuning, string) + capo))
    return {
      message: `${name} in ${where} lies below the lowest open string in use, ${plainPitchName(lowest)}.`,
      accepted: 'the melody an octave higher',
    }
  }
  if (nut.some(({ fret }) => fret === capo || (fret >= low && fret <= high))) return null
  const nearest = nut.reduce((a, b) => (b.fret < a.fret ? b : a))
  const at = `fret ${nearest.fret} on string ${stringNumber(nearest.string, tuning.length)} (${plainPitchName(itemAt(tuning, nearest.string))})`
  if (nearest.fret > high) {
    const leftOut = tuning.length - used.length
    return {
      message: `${name} in ${where} needs ${at}; ${names.frets ?? 'the highest fret of the limits'} is ${high}${leftOut > 0 ? `, and ${names.strings ?? `${leftOut} strings are left out`}` : ''}.`,
      accepted: `a highest fret of ${nearest.fret} or more, or the melody an octave lower`,
    }
  }
  return {
    message: `${name} in ${where} lies at no fret from ${low} to ${high}: the nearest is ${at}.`,
    accepted: 'another position, or the melody in another octave',
  }
}
