import { itemAt, lastOf } from '../lists'
import type { Chart } from '../chart/chart'
import { keyName, type Key } from '../pitch/key'
import { sameKey } from './localKeys'
import type { Place } from './chordPlaces'

/**
 * What a chord's place in the form asks of whoever changes it; the first that holds, in this order.
 */
export const FORM_PLACES = ['arrival', 'turnaround', 'cadence', 'standing', 'way'] as const
export type FormPlaceName = (typeof FORM_PLACES)[number]

export interface FormPlace {
  place: FormPlaceName
  /** One sentence, using the actual chords. */
  reason: string
}

const name = ({ chord }: Place) => chord.canonical
const sameChord = (a: Place | undefined, b: Place | undefined) =>
  a !== undefined && b !== undefined && a.chord.canonical === b.chord.canonical
const isHome = ({ rel, kind, key }: Place) =>
  rel === 0 &&
  (kind === 'minor' ? key.mode === 'minor' : ['major', 'dominant', 'suspended', 'power'].includes(kind))
const isFive = ({ rel, kind }: Place) =>
  (rel === 7 && ['dominant', 'major', 'suspended', 'augmented', 'power'].includes(kind)) ||
  (rel === 1 && kind === 'dominant') ||
  (rel === 11 && kind === 'diminished')
const isBorrowed = ({ rel, kind, key }: Place) =>
  key.mode === 'major' &&
  ((kind === 'minor' && [5, 7, 0].includes(rel)) ||
    (kind === 'major' && [1, 3, 8, 10].includes(rel)) ||
    (kind === 'half-diminished' && rel === 2))

/** Why each chord is an arrival; null for the others. */
function arrivalsOf(places: readonly Place[], chart: Chart, home: Key): (string | null)[] {
  const opens = new Set(
    chart.bars.filter((bar, index) => index === 0 || bar.opensSection).map(({ number }) => number),
  )
  const lastBars = new Set(
    chart.bars
      .filter((_, index) => index === chart.bars.length - 1 || itemAt(chart.bars, index + 1).opensSection)
      .map(({ number }) => number),
  )
  const borrowedHere = new Set<number>()
  let section = 0
  /** Home of the key it is in has been heard. */
  let reached = true
  return places.map((place, at): string | null => {
    const before = places[at - 1]
    const begins = before?.slot.bar !== place.slot.bar && opens.has(place.slot.bar)
    if (begins) section += 1
    if (sameChord(before, place) && !begins) return null
    const last = runEnd(places, at)
    if (before && !sameKey(before.key, place.key)) {
      reached = isHome(place)
      if (!sameKey(place.key, home) || reached)
        return `${name(place)} is the first chord in ${keyName(place.key)}.`
    }
    if (isHome(place)) {
      if (begins) return `${name(place)} is home where the section begins.`
      if (!reached) {
        reached = true
        return `${name(place)} is where the tune comes home in ${keyName(place.key)}.`
      }
      if (lastBars.has(itemAt(places, last).slot.bar) && endsSection(places, last, lastBars))
        return `${name(place)} is home where the section ends.`
    }
    if (begins && at === 0) return `${name(place)} is where the tune begins.`
    if (before && isFive(before) && before.rel === 7 && before.kind !== 'minor' && isDeceived(place))
      return `${name(place)} comes where home was expected after ${name(before)}.`
    if (isBorrowed(place) && !borrowedHere.has(section)) {
      borrowedHere.add(section)
      return `${name(place)} is the first chord of the section from outside the key.`
    }
    return null
  })
}

/**
 * The place of each chord as it is played: an arrival, on the way round, a cadence, standing, or on
 * the way. One for each of `places`. Common practice, no source.
 */
export function formPlacesOf(places: readonly Place[], chart: Chart, home: Key): FormPlace[] {
  const arrivals = arrivalsOf(places, chart, home)
  const arriving = (place: Place | null) => place !== null && arrivals[places.indexOf(place)] !== null
  const top = places[0]
  const resolves = (place: Place) =>
    place.next !== null && (isHome(place.next) || place.next === top) && (arriving(place.next) || place.wraps)
  return places.map((place, at): FormPlace => {
    const arrival = arrivals[at]
    if (arrival) return { place: 'arrival', reason: arrival }
    const { next } = place
    const before = places[at - 1]
    const lastHome = places.findLastIndex((one, index) => isHome(one) && !sameChord(places[index - 1], one))
    if (at > lastHome && lastHome >= 0 && isTurning(places, at, lastHome))
      return {
        place: 'turnaround',
        reason: `${name(place)} stands between the last home and the top, where the form begins again.`,
      }
    if (isFive(place) && next && resolves(place))
      return {
        place: 'cadence',
        reason: place.wraps
          ? `${name(place)} leads to ${name(next)} at the top of the form.`
          : `${name(place)} leads into ${name(next)}, an arrival.`,
      }
    if (
      next &&
      isFive(next) &&
      resolves(next) &&
      [2, 5, 1, 8].includes(place.rel) &&
      !sameChord(before, place)
    )
      return {
        place: 'cadence',
        reason: `${name(place)} prepares ${name(next)}, which leads into ${name(next.next!)}.`,
      }
    if (sameChord(before, place))
      return { place: 'standing', reason: `${name(place)} has stood since the chord before.` }
    if (isVamp(places, at))
      return { place: 'standing', reason: `${name(place)} is one of two chords that go round.` }
    return {
      place: 'way',
      reason: next ? `${name(place)} is on the way to ${name(next)}.` : `${name(place)} is on the way.`,
    }
  })
}

const isDeceived = ({ rel, kind }: Place) =>
  (rel === 9 && kind === 'minor') || (rel === 8 && kind === 'major')

/** The last place at which the chord of another still stands. */
function runEnd(places: readonly Place[], at: number): number {
  let end = at
  while (sameChord(places[end + 1], places[at])) end += 1
  return end
}

/** Nothing of the section comes behind it. */
function endsSection(places: readonly Place[], at: number, lastBars: ReadonlySet<number>): boolean {
  const after = places[at + 1]
  return !after || after.slot.bar !== itemAt(places, at).slot.bar || !lastBars.has(after.slot.bar)
}

/** Home standing, or its usual chords, in the last bars of the form before it begins again. */
const TURN_BARS = 2
function isTurning(places: readonly Place[], at: number, lastHome: number): boolean {
  const [place, last, home] = [itemAt(places, at), lastOf(places), itemAt(places, lastHome)]
  if (last.slot.bar - home.slot.bar >= TURN_BARS + 1 || places.length < 4 || lastHome === 0) return false
  // A cadence that ends the tune on V without a home behind it is no turnaround.
  return sameChord(home, place) || last.slot.bar - place.slot.bar < TURN_BARS
}

/** Two chords in turn, for four changes or more. */
const VAMP = 4
function isVamp(places: readonly Place[], at: number): boolean {
  const heard: string[] = []
  for (let index = Math.max(0, at - 6); index <= Math.min(places.length - 1, at + 6); index += 1)
    if (!sameChord(places[index - 1], places[index])) heard.push(name(itemAt(places, index)))
  const own = name(itemAt(places, at))
  const around = heard.filter((_, index) => Math.abs(index - heard.indexOf(own)) <= VAMP)
  return around.length >= VAMP && new Set(around).size === 2
}
