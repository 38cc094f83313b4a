import { firstOf, lastOf } from '../lists'
import type { Chart } from '../chart/chart'
import type { MelodyNote } from '../reharm/melodyFit'
import { Clock, NEAR, sungIn } from './clock'

/** Notes that belong together, as places of the first and the last. */
export interface Phrase {
  from: { bar: number; beat: number }
  to: { bar: number; beat: number }
  notes: number
}

/**
 * A rest of this many beats ends a phrase, and so does a note this many times as long as the usual
 * one of the tune (common practice, no source).
 */
const REST = 1
const LONG = 2.5
/** Fewer notes than this are no phrase of their own. */
const FEWEST = 3

/**
 * The phrases of a melody: broken at rests and after long notes. Breaks the player made or took
 * away go first.
 * @param moved places of notes (`bar:beat`) where a phrase begins (true) or does not (false)
 *   whatever is found
 */
export function phrasesOf(
  chart: Chart,
  melody: readonly MelodyNote[],
  moved: Readonly<Record<string, boolean>> = {},
): Phrase[] {
  const notes = sungIn(new Clock(chart), melody)
  const lengths = notes.map(({ from, to }) => to - from).sort((a, b) => a - b)
  const usual = lengths[Math.floor(lengths.length / 2)] ?? 1
  const phrases: (typeof notes)[] = []
  notes.forEach((one, at) => {
    const before = notes[at - 1]
    const decided = moved[`${one.note.bar}:${one.note.beat}`]
    const rests = before !== undefined && one.from - before.to >= REST - NEAR
    const longs = before !== undefined && before.to - before.from >= Math.max(2, usual * LONG) - NEAR
    const open = phrases.at(-1)
    if (!open || decided === true || (decided === undefined && (rests || longs) && open.length >= FEWEST))
      phrases.push([one])
    else open.push(one)
  })
  return phrases.map((group) => ({
    from: placeOf(firstOf(group).note),
    to: placeOf(lastOf(group).note),
    notes: group.length,
  }))
}

const placeOf = ({ bar, beat }: MelodyNote) => ({ bar, beat })
