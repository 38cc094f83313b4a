import { firstOf, itemAt, lastOf } from '../lists'
import { NEAR, sameBeat } from '../chart/beats'
import type { Analysis } from '../analysis/chordReading'
import { slotsOf, type Chart } from '../chart/chart'
import { playOrder } from '../chart/form'
import { kindOf, type Kind } from '../analysis/kind'
import { modulo, pitchClass } from '../pitch/note'
import type { Change, Put } from './change'
import type { Spot } from './spot'

/**
 * What keeps a reharmonised tune recognisable (common practice, no source). Each can be switched
 * off.
 */
export const GUARD_NAMES = ['home', 'way home', 'form', 'written bass', 'moving', 'melody'] as const
export type GuardName = (typeof GUARD_NAMES)[number]
export const GUARDS: Readonly<Record<GuardName, string>> = {
  home: 'It begins on the chord the tune begins on, and ends on the one the tune ends on.',
  'way home': 'Before the last chord stands a way home: a V, its substitute, the backdoor, or a plagal step.',
  form: 'A blues keeps its IV in bar 5, and a cadence at the end of a section still arrives.',
  'written bass': 'A bass that is written stays.',
  moving: 'Where two chords moved, no single chord stands.',
  melody: 'No chord is put under a melody note that it would make sour.',
}
export type Guards = Partial<Readonly<Record<GuardName, boolean>>>
/** Every guard is on but those that are switched off. */
export const isOn = (guards: Guards, name: GuardName): boolean => guards[name] !== false

/** Places of a tune that guards look at, by the slot's place. */
export interface GuardedPlaces {
  first: number | null
  last: number | null
  /** The chord right before the last one, where it leads home. */
  beforeLast: number | null
  /** Where a form's chord stands, or a cadence arrives. */
  kept: ReadonlySet<number>
}

/** Blues: the bar, from its first, in which the IV comes. */
const BLUES_IV = 4
/** Bars at the end of a section in which its cadence arrives. */
const SECTION_END = 2

export function guardedPlaces(
  chart: Chart,
  { groups }: Pick<Analysis, 'groups'>,
  spots: readonly (Spot | null)[],
): GuardedPlaces {
  const slots = slotsOf(chart)
  const at = (bar: number, beat: number) =>
    slots.findIndex((slot) => slot.bar === bar && sameBeat(slot.beat, beat))
  const sounding = playOrder(chart)
    .flatMap((bar) => itemAt(chart.bars, bar).slots.map((slot) => slots.indexOf(slot)))
    .filter((index) => spots[index])
  const first = sounding[0] ?? null
  const last = sounding.at(-1) ?? null
  const kept = new Set<number>()
  const endsSection = new Set(
    chart.bars.flatMap((bar, index) => {
      const next = chart.bars[index + 1]
      return !next || next.opensSection
        ? Array.from({ length: SECTION_END }, (_, back) => bar.number - back)
        : []
    }),
  )
  for (const group of groups) {
    if (group.kind === 'blues form') {
      const four = at(group.from.bar + BLUES_IV, 1)
      if (spots[four]?.rel === 5) kept.add(four)
    }
    if (
      (group.kind === 'authentic cadence' || group.kind === 'ii-V-I') &&
      group.resolves &&
      endsSection.has(group.to.bar)
    ) {
      const arrives = at(group.to.bar, group.to.beat)
      if (spots[arrives]?.rel === 0) kept.add(arrives)
    }
  }
  const before =
    last === null
      ? null
      : (sounding
          .slice(0, -1)
          .findLast(
            (index) => itemAt(spots, index)!.chord.canonical !== itemAt(spots, last)!.chord.canonical,
          ) ?? null)
  // Every arrival of the form keeps its chord.
  spots.forEach((spot, index) => {
    if (spot?.place === 'arrival') kept.add(index)
  })
  return {
    first,
    last,
    beforeLast:
      before !== null &&
      last !== null &&
      itemAt(spots, last)!.rel === 0 &&
      leadsHome(itemAt(spots, before)!.chord.root, itemAt(spots, before)!.kind, itemAt(spots, last)!)
        ? before
        : null,
    kept,
  }
}

/**
 * Semitones above home from which each kind of chord leads there: V, bII, bVII, IV, vii°, and the
 * diminished sevenths and augmented triads of the V.
 */
const WAYS_HOME: Partial<Record<Kind, readonly number[]>> = {
  dominant: [7, 1, 10, 5],
  major: [7, 5, 1],
  suspended: [7, 10],
  minor: [5, 7],
  'half-diminished': [11, 5],
  diminished: [11, 2, 5, 8],
  augmented: [7, 11, 3],
  power: [7, 5],
}
const leadsHome = (root: Put['chord']['root'], kind: Kind, home: Spot): boolean =>
  (WAYS_HOME[kind] ?? []).includes(modulo(pitchClass(root) - pitchClass(home.key.tonic), 12))

const rootOf = ({ chord }: Put): number => pitchClass(chord.root)
const bassOf = ({ chord }: Put): number => pitchClass(chord.bass ?? chord.root)

/**
 * The guard a change goes against by itself; null where it goes against none. Melody and neighbours
 * are looked at elsewhere.
 */
export function guardAgainst(
  change: Pick<Change, 'index' | 'span' | 'puts'>,
  spots: readonly (Spot | null)[],
  { first, last, beforeLast, kept }: GuardedPlaces,
  guards: Guards,
): GuardName | null {
  const [from, to] = [change.index, change.index + change.span - 1]
  const [begins, ends] = [firstOf(change.puts), lastOf(change.puts)]
  const covers = (index: number | null): index is number => index !== null && from <= index && index <= to
  const plainRoot = (index: number) => pitchClass(itemAt(spots, index)!.chord.root)
  if (isOn(guards, 'home')) {
    if (
      covers(first) &&
      (first !== from ||
        rootOf(begins) !== plainRoot(first) ||
        (kindOf(begins.chord) === 'diminished' && itemAt(spots, first)!.kind !== 'diminished'))
    )
      return 'home'
    if (
      covers(last) &&
      ((last === to ? rootOf(ends) : -1) !== plainRoot(last) ||
        (last === to &&
          itemAt(spots, last)!.rel === 0 &&
          change.puts.length > 1 &&
          kindOf(ends.chord) === 'dominant'))
    )
      return 'home'
  }
  if (
    isOn(guards, 'way home') &&
    covers(beforeLast) &&
    last !== null &&
    !covers(last) &&
    !leadsHome(ends.chord.root, kindOf(ends.chord), spots[last]!)
  )
    return 'way home'
  if (isOn(guards, 'form')) {
    let offset = 0
    for (let index = from; index <= to; index += 1) {
      if (kept.has(index)) {
        let end = 0
        const there = change.puts.find((put) => {
          end += put.beats
          return offset < end - NEAR
        })
        if (!there || rootOf(there) !== plainRoot(index)) return 'form'
      }
      offset += spots[index]?.beats ?? 0
    }
  }
  if (isOn(guards, 'written bass')) {
    const written = spots[from]?.chord.bass
    if (written && bassOf(begins) !== pitchClass(written)) return 'written bass'
    if (change.span > 1 && spots.slice(from + 1, to + 1).some((spot) => spot?.chord.bass))
      return 'written bass'
  }
  return null
}

/**
 * Whether one chord would stand where two moved: the same root, bass and kind on both sides of a
 * change, where the tune goes on.
 */
export function standsStill(a: Put, b: Put, plainA: Spot, plainB: Spot): boolean {
  const moved = pitchClass(plainA.chord.root) !== pitchClass(plainB.chord.root)
  return moved && rootOf(a) === rootOf(b) && bassOf(a) === bassOf(b) && kindOf(a.chord) === kindOf(b.chord)
}
