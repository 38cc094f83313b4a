import { itemAt } from '../../../core/lists'
import type { FormPlaceName } from '../../../core/analysis/formPlaces'
import { placeName, type Chart } from '../../../core/chart/chart'
import type { CountIn } from '../sound/SoundContext'
import type { Sequence } from '../sound/sequence'
import type { AskedState } from '../workers/useAnswer'
import type { LineChord } from '../../../core/tune/decisions'
import { rangeOf, type ChordSelection } from '../selection/selection'
import { madeChord, type TuneChord, type TuneReading } from '../../../core/tune/tuneReading'

/** The selected chord for those who listen: place, plain chord, numeral, and what it has become. */
export function chordInWords({ slot, reading, decision }: TuneChord, { line }: TuneReading): string {
  const became =
    decision && decision.rule !== 'plain'
      ? `, now ${line
          .filter((one) => one.decision?.key === decision.key)
          .map((one) => madeChord(one)!.canonical)
          .join(' ')}`
      : ''
  return `${placeName(slot)}: ${slot.text}${reading ? `, ${reading.roman}` : ''}${became}`
}

export function placeInWords(
  chords: readonly TuneChord[],
  selection: ChordSelection,
  made: LineChord | undefined,
): string {
  if (made) return placeName(made.slot)
  const [from, to] = rangeOf(selection)
  return from === to
    ? placeName(itemAt(chords, from).slot)
    : `${placeName(itemAt(chords, from).slot)} to ${placeName(itemAt(chords, to).slot)}`
}

/** So many bars clicked; before a pickup also the beats of its bar that stay silent. */
export function countInBeats(
  { meter, pickup }: Chart,
  first: TuneChord | undefined,
  bars: CountIn = 1,
): number {
  return bars === 0 ? 0 : bars * meter.beats + (first?.slot.bar === 0 ? meter.beats - pickup : 0)
}

export function hearingInWords({ home: chords, range }: Sequence): string {
  const [first, last] = [chords[0], chords.at(-1)]
  if (!first || !last || range === 'all') return 'The whole tune'
  return range === 'from'
    ? `From ${placeName(first.slot)} to the end`
    : `${placeName(first.slot)} to ${placeName(last.slot)}`
}

/**
 * Why nothing is heard, where nothing is.
 * @param all chords of the tune
 * @param searches for the grips, as they stand
 */
export function silenceInWords(
  all: readonly TuneChord[],
  { home }: Pick<Sequence, 'home'>,
  searches: readonly AskedState['kind'][],
): string {
  if (all.length === 0) return 'There are no chords to play yet.'
  // What cannot be read is not looked for.
  if (!home.some(({ reading }) => reading))
    return all.some(({ reading }) => reading)
      ? 'No chord sounds from here on: select one before it.'
      : 'There is no chord that can be read yet.'
  return searches.includes('fault') ? 'No grip fits: the Lines step says why.' : 'Finding grips to play…'
}

/** Places of a chord in the form, as a drawer says them. */
export const PLACE_WORDS: Readonly<Record<FormPlaceName, string>> = {
  arrival: 'Arrival',
  turnaround: 'Where the form turns',
  cadence: 'Cadence',
  standing: 'Standing',
  way: 'On the way',
}
