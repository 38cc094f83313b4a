import type { Frets } from '../neck/instrument'
import type { Limits } from '../voicing/gripLimits'

/** A row of grips in another key: the same shapes so many frets away. */
export interface MovedGrips {
  /** Frets up, below 0 down; null where there is no way. */
  by: number | null
  frets: Frets[]
  /** Why the shapes cannot be moved. */
  why: string | null
}

/**
 * The same shapes in a key so many semitones above: all of them up or down by the same way,
 * whichever stays on the neck and nearer; open strings cannot be moved.
 */
export function movedShapes(
  grips: readonly Frets[],
  semitones: number,
  limits: Pick<Limits, 'frets'>,
): MovedGrips {
  if (semitones % 12 === 0) return { by: 0, frets: grips.map((grip) => [...grip]), why: null }
  const open = grips.findIndex((grip) => grip.includes(0))
  if (open >= 0)
    return { by: null, frets: [], why: `Grip ${open + 1} has an open string, which cannot be moved along.` }
  const up = ((semitones % 12) + 12) % 12
  const [low, high] = limits.frets
  const ways = [up, up - 12]
    .filter((by) => grips.every((grip) => pressable(grip, by, Math.max(1, low), high)))
    .sort((a, b) => Math.abs(a) - Math.abs(b))
  const [by] = ways
  if (by === undefined)
    return {
      by: null,
      frets: [],
      why: `Neither ${up} frets up nor ${12 - up} down stays between frets ${low} and ${high}.`,
    }
  return { by, frets: grips.map((grip) => grip.map((fret) => (fret === null ? null : fret + by))), why: null }
}

/** A grip so many frets away stays between two frets. */
const pressable = (grip: Frets, by: number, low: number, high: number): boolean =>
  grip.every((fret) => fret === null || (fret + by >= low && fret + by <= high))
