import { firstOf, itemAt, lastOf } from '../lists'
import { wholeBeat } from '../chart/beats'
import { barAt, type PlayedBar } from './playedTime'
import { isCompound } from './pulses'

/**
 * What a swing can be set to, as long : short. 1 is straight, 2 a shuffle (triplets), 3 dotted
 * eighths and sixteenths.
 */
export const SWING_RANGE = [1, 4] as const
export const STRAIGHT = 1
export const SHUFFLE = 2

/**
 * How uneven eighths are played at a tempo where the player has not set it, long : short. From
 * memory of published timing studies: about 2 near 120 beats a minute and towards 1.3 above 220; a
 * little more below 120. Falls as the tempo rises.
 */
const BY_TEMPO: readonly (readonly [beatsPerMinute: number, ratio: number])[] = [
  [60, 2.3],
  [120, 2],
  [170, 1.6],
  [220, 1.35],
  [280, 1.2],
  [320, 1.15],
]

/** @param quartersPerMinute quarters a minute */
export function swingAt(quartersPerMinute: number): number {
  const after = BY_TEMPO.findIndex(([tempo]) => tempo >= quartersPerMinute)
  if (after === 0) return firstOf(BY_TEMPO)[1]
  if (after < 0) return lastOf(BY_TEMPO)[1]
  const [[slow, wide], [quick, narrow]] = [itemAt(BY_TEMPO, after - 1), itemAt(BY_TEMPO, after)]
  return wide + ((narrow - wide) * (quartersPerMinute - slow)) / (quick - slow)
}

/**
 * Where in a quarter, from 0 to 1, something straight is played with swing. Keeps the order of
 * everything inside.
 */
export function swung(place: number, ratio: number): number {
  const long = ratio / (1 + ratio)
  return place < 0.5 ? place * 2 * long : long + (place - 0.5) * 2 * (1 - long)
}

/**
 * A straight time as it is played with swing, both in beats of the first metre. Eighths are uneven;
 * bars of eighths (6/8, 12/8, 7/8) stay straight.
 * @param ratio long : short, 1 for straight
 */
export function swungTime(bars: readonly PlayedBar[], time: number, ratio: number): number {
  if (ratio === STRAIGHT || bars.length === 0) return time
  const { bar, from, scale } = barAt(bars, time)
  if (isCompound(bar.meter) || bar.meter.unit >= 8) return time
  // From the bar's own beat one, so that a pickup falls on its beats.
  const one = from - (bar.from - 1) * scale
  const quarter = (bar.meter.unit / 4) * scale
  const quarters = (time - one) / quarter
  const whole = wholeBeat(quarters)
  return one + (whole + swung(Math.max(0, quarters - whole), ratio)) * quarter
}
