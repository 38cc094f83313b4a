import { itemAt } from '../lists'
import { NEAR_WRITTEN } from '../chart/beats'
import { carryOver } from '../chart/carryOver'
import { slotKey, type Slot } from '../chart/chart'
import type { TuneDocument } from './document'

const placeOf = (key: string) => {
  const [bar, beat] = key.split(':').map(Number)
  return { bar: bar!, beat: beat! }
}

/** The chord of the home line that stands at a place, by its index; -1 where none does. */
export function homeIndexAt(slots: readonly Slot[], key: string): number {
  const { bar, beat } = placeOf(key)
  return slots.findIndex(
    (slot) =>
      slot.bar === bar && beat > slot.beat - NEAR_WRITTEN && beat < slot.beat + slot.beats - NEAR_WRITTEN,
  )
}

/**
 * Where a place of the music goes when the chords of one chart become those of another: with its
 * chord, or with the last one before it that is left.
 */
export function placeFollowing(
  before: readonly Slot[],
  after: readonly Slot[],
): (place: { bar: number; beat: number }) => { bar: number; beat: number } {
  const moved = carryOver(before, after)
  return (place) => {
    const under = before.findLastIndex(
      ({ bar, beat }) => bar < place.bar || (bar === place.bar && beat <= place.beat + NEAR_WRITTEN),
    )
    for (let at = under; at >= 0; at -= 1) {
      const to = moved.get(slotKey(itemAt(before, at)))
      if (to === undefined) continue
      const [from, goal] = [itemAt(before, at), placeOf(to)]
      // Inside its own bar a note goes with its chord; in a later one it keeps its beat and its
      // distance in bars.
      return from.bar === place.bar
        ? { bar: goal.bar, beat: place.beat + goal.beat - from.beat }
        : { bar: place.bar + goal.bar - from.bar, beat: place.beat }
    }
    return place
  }
}

type PlacedWork = Pick<TuneDocument, 'choices' | 'fixed' | 'grips' | 'gripsOn' | 'called' | 'conditions'>

/**
 * How what was made on the chords of one chart moves to another. A choice on several chords needs
 * all of them, in a row.
 */
export function following(before: readonly Slot[], after: readonly Slot[]): (made: PlacedWork) => PlacedWork {
  const moved = carryOver(before, after)
  const indexAfter = new Map(after.map((slot, index) => [slotKey(slot), index]))
  const movedIndex = (index: number) => indexAfter.get(moved.get(slotKey(itemAt(before, index))) ?? '') ?? -1
  const choices = (made: PlacedWork['choices']) =>
    Object.fromEntries(
      Object.entries(made).flatMap(([place, one]) => {
        const from = homeIndexAt(before, place)
        if (from < 0 || from + one.span > before.length) return []
        const to = movedIndex(from)
        const inARow =
          to >= 0 &&
          Array.from({ length: one.span }, (_, at) => movedIndex(from + at) === to + at).every(Boolean)
        return inARow ? [[slotKey(itemAt(after, to)), one]] : []
      }),
    )
  // A grip may stand inside a chord of the home line: it keeps its distance from where that begins.
  const grips = <T>(made: Record<string, T>) =>
    Object.fromEntries(
      Object.entries(made).flatMap(([place, one]) => {
        const from = homeIndexAt(before, place)
        const to = from < 0 ? undefined : after[movedIndex(from)]
        return to
          ? [[slotKey({ bar: to.bar, beat: to.beat + placeOf(place).beat - itemAt(before, from).beat }), one]]
          : []
      }),
    )
  const place = (key: string) => Object.keys(grips({ [key]: null }))[0]
  const conditions = (made: PlacedWork['conditions']) =>
    made.flatMap((one) => {
      const [first, last] = [place(one.from), place(one.to)]
      return first && last ? [{ ...one, from: first, to: last }] : []
    })
  return (made) => ({
    choices: choices(made.choices),
    fixed: grips(made.fixed),
    grips: grips(made.grips),
    gripsOn: grips(made.gripsOn),
    called: grips(made.called),
    conditions: conditions(made.conditions),
  })
}
