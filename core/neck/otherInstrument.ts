import { firstOf, itemAt } from '../lists'
import { midiOf, parsePitch, plainPitchName } from '../pitch/note'
import { bad, good, type Result } from '../result'
import { fingeringsOf, type FingeringAnswer } from './fingering'
import type { Hand } from './hand'
import { fretFor, soundAt, STANDARD_GUITAR, type Frets, type Instrument } from './instrument'

/** What decides where a pitch lies: the open strings and the capo. */
export type Stringing = Pick<Instrument, 'tuning' | 'capo'>

/**
 * `E2 A2 D3 G3 B3 E4 capo 0`: open strings without capo from the lowest, and the fret of the capo.
 */
export const stringingName = ({ tuning, capo }: Stringing): string =>
  `${tuning.map(plainPitchName).join(' ')} capo ${capo}`

/** Reads what `stringingName` writes. */
export function parseStringing(text: string): Result<Stringing> {
  const [strings, capo] = text.split(' capo ')
  const pitches = (strings ?? '').split(' ').map(parsePitch)
  const tuning = pitches.flatMap((pitch) => (pitch.ok ? [midiOf(pitch.value)] : []))
  if (tuning.length !== pitches.length || !/^\d{1,2}$/.test(capo ?? ''))
    return bad({
      code: 'bad-stringing',
      message: `"${text}" names no open strings and capo.`,
      accepted: 'E2 A2 D3 G3 B3 E4 capo 0',
      text,
    })
  return good({ tuning, capo: Number(capo) })
}

export const sameStringing = (a: Stringing, b: Stringing): boolean =>
  a.capo === b.capo &&
  a.tuning.length === b.tuning.length &&
  a.tuning.every((midi, at) => midi === b.tuning[at])

/** Whether the open strings are those of a guitar in standard tuning, whatever its capo. */
export const isStandard = (tuning: readonly number[]): boolean =>
  sameStringing({ tuning, capo: 0 }, STANDARD_GUITAR)

/**
 * The same pitches on an instrument strung otherwise: each on its own string where it has it, else
 * the easiest way a hand holds them on any strings; null where no hand does.
 * @param highest the highest fret that may be held
 */
export function movedTo(
  frets: Frets,
  from: Stringing,
  to: Instrument,
  hand: Hand,
  highest: number,
): Frets | null {
  if (sameStringing(from, to)) return frets
  const made: Instrument = { ...to, ...from }
  if (from.tuning.length === to.tuning.length) {
    const stays = frets.map((fret, string) =>
      fret === null ? null : fretFor(to, string, soundAt(made, string, fret)),
    )
    const all = stays.every(
      (fret, string) => (fret === null) === (frets[string] === null) && (fret === null || fret <= highest),
    )
    if (all && fingeringsOf(stays, to, hand).playable) return stays
  }
  const midis = frets
    .flatMap((fret, string) => (fret === null ? [] : [soundAt(made, string, fret)]))
    .sort((a, b) => a - b)
  return onAnyStrings(midis, to, hand, highest)?.frets ?? null
}

/** Some pitches on any strings, the easiest way a hand holds them; null where none does. */
export function onAnyStrings(
  midis: readonly number[],
  instrument: Instrument,
  hand: Hand,
  highest: number,
): { frets: (number | null)[]; fingering: FingeringAnswer } | null {
  const strings = instrument.tuning.length
  let best: { frets: (number | null)[]; fingering: FingeringAnswer; effort: number } | null = null
  const grip = Array<number | null>(strings).fill(null)
  const place = (voice: number) => {
    if (voice === midis.length) {
      const fingering = fingeringsOf(grip, instrument, hand)
      if (!fingering.playable) return
      const effort = firstOf(fingering.fingerings).difficulty
      if (!best || effort < best.effort) best = { frets: [...grip], fingering, effort }
      return
    }
    for (let string = 0; string < strings; string += 1) {
      if (grip[string] !== null) continue
      const fret = fretFor(instrument, string, itemAt(midis, voice))
      if (fret === null || fret > highest) continue
      grip[string] = fret
      place(voice + 1)
      grip[string] = null
    }
  }
  place(0)
  return best
}
