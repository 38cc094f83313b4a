import { itemAt } from '../lists'
import { midi } from '../pitch/note'

/** A fretted instrument, strings from the lowest to the highest as the hand finds them. */
export interface Instrument {
  /** MIDI numbers of the open strings without capo, lowest string first. */
  tuning: readonly number[]
  /** Fret the capo lies on, 0 for none. Open strings sound at the capo. */
  capo: number
  /** Nut to saddle in mm. */
  scaleLengthMm: number
}

export const STANDARD_TUNING = ['E2', 'A2', 'D3', 'G3', 'B3', 'E4'] as const
export const DEFAULT_SCALE_LENGTH_MM = 648

export const STANDARD_GUITAR: Instrument = {
  tuning: STANDARD_TUNING.map(midi),
  capo: 0,
  scaleLengthMm: DEFAULT_SCALE_LENGTH_MM,
}

/**
 * Distance in mm from the nut to a fret: L (1 - 2^(-n/12)), the twelve-tone equal-tempered neck.
 * @param fret 0 is the nut
 */
export const fretMm = (fret: number, scaleLengthMm: number): number =>
  scaleLengthMm * (SHARE_OF_STRING[fret] ?? 1 - 2 ** (-fret / 12))
/** The highest fret of any neck there is; above it the share is worked out when it is asked for. */
const HIGHEST_FRET = 36
/**
 * How much of the string lies behind each fret, worked out once: whole necks are measured with it.
 */
const SHARE_OF_STRING = Array.from({ length: HIGHEST_FRET + 1 }, (_, fret) => 1 - 2 ** (-fret / 12))

/** Distance in mm between two frets, in either order. */
export const reachMm = (a: number, b: number, scaleLengthMm: number): number =>
  Math.abs(fretMm(b, scaleLengthMm) - fretMm(a, scaleLengthMm))

/**
 * A fret for each string, lowest string first: `null` not played, `0` open (at the capo), else the
 * absolute fret.
 */
export type Frets = readonly (number | null)[]

/** A place touched on the neck: held there from now on, or let go where it was held. */
export const touched = (frets: Frets, string: number, fret: number): (number | null)[] => {
  const held = frets[string] === fret ? null : fret
  return frets.map((now, at) => (at === string ? held : now))
}
export const writtenFrets = (frets: Frets): string => frets.map((fret) => fret ?? 'x').join(' ')

/** What a string sounds at a fret, as a MIDI number. */
export const soundAt = (instrument: Instrument, string: number, fret: number): number =>
  itemAt(instrument.tuning, string) + (fret === 0 ? instrument.capo : fret)

/** The trade's string numbers count from the highest: on six strings index 0 is string 6. */
export const stringNumber = (index: number, strings: number): number => strings - index

/**
 * The fret at which a string sounds a pitch, 0 for open; null where it does not have it. Frets
 * behind the capo do not sound.
 */
export function fretFor(instrument: Instrument, string: number, midi: number): number | null {
  const above = midi - itemAt(instrument.tuning, string)
  if (above === instrument.capo) return 0
  return above > instrument.capo ? above : null
}
