import { lastOf } from '../lists'
import type { ChordSymbol } from '../chord/symbol'
import type { MelodyNote } from '../reharm/melodyFit'
import { Clock, NEAR, sungIn } from './clock'
import { placeKey, chordPlacesInTime, type HarmonisedNote, type HarmoniseProblem } from './melodyLine'

/**
 * The hand travels at no extra price in so many seconds, and at no more than so many times the
 * price where it has less (common practice, no source).
 */
const TIME_TO_TRAVEL_S = 0.5
const MOST_HASTE = 4
/** Beats a minute where nothing else is said. */
const USUAL_TEMPO = 100

/**
 * Something that is struck or sung: a melody note, a chord under a note that goes on, or a chord in
 * a rest.
 */
export interface Happening {
  note: MelodyNote | null
  midi: number | null
  again: boolean
  from: number
  to: number
  place: { bar: number; beat: number }
  chord: ChordSymbol | null
  anchor: boolean
}

export interface CandidateGroup {
  anchor: Happening
  rest: Happening[]
  haste: number
  seconds: number
  next: Happening | null
  /**
   * The chord of the place is struck under another note too, so that one that leads on may stand
   * here.
   */
  heardToo: boolean
}
export const happeningHead = ({
  note,
  again,
  place,
  from,
  to,
}: Happening): Pick<HarmonisedNote, 'note' | 'again' | 'bar' | 'beat' | 'beats'> => ({
  note,
  again,
  ...place,
  beats: to - from,
})

/** Everything that happens, in groups that begin with what the density gives a chord of its own. */
export function happeningGroups({
  chart,
  melody,
  places = chordPlacesInTime(chart),
  density = 'chord',
  fills = false,
  fixed = new Map(),
  tempo = chart.tempo ?? USUAL_TEMPO,
}: HarmoniseProblem): CandidateGroup[] {
  const clock = new Clock(chart)
  const sung = sungIn(clock, melody)
  if (sung.length === 0) return []
  const spans = places.map((place) => {
    const from = clock.at(place)
    return { ...place, from, to: from + clock.lasts(place.bar, place.beats) }
  })
  const happenings = happeningsIn(sung, spans, clock.end, fills)
  const spanOf = (one: Happening) => spans.findLastIndex(({ from }) => from <= one.from + NEAR)
  happenings.forEach((one, at) => {
    const before = happenings[at - 1]
    const first = !before || spanOf(before) !== spanOf(one)
    one.anchor =
      fixed.has(placeKey(one.place)) ||
      one.chord === null ||
      {
        bar: !before || before.place.bar !== one.place.bar,
        chord: first,
        beat: first || Math.abs(one.place.beat - Math.round(one.place.beat)) < NEAR,
        note: true,
      }[density]
  })
  // A chord that density passes over is not struck under a note that goes on, or in a rest.
  const kept = happenings.filter(({ anchor, again, note }) => anchor || (!again && note !== null))
  return grouped(kept, tempo)
}

interface ChordSpan {
  chord: ChordSymbol | null
  from: number
  to: number
  bar: number
  beat: number
}

/**
 * Every note, and every chord that comes under a note that goes on, or in a rest where that is
 * asked for; each until the next.
 */
function happeningsIn(
  sung: ReturnType<typeof sungIn>,
  spans: readonly ChordSpan[],
  end: number,
  fills: boolean,
): Happening[] {
  const chordAt = (time: number) =>
    spans.findLast(({ from, to }) => from <= time + NEAR && time < to - NEAR)?.chord ?? null
  const happenings = sung.map(({ note, midi, from, to }): Happening => ({
    note,
    midi,
    again: false,
    from,
    to,
    place: { bar: note.bar, beat: note.beat },
    chord: chordAt(from),
    anchor: false,
  }))
  // A chord is heard when it comes: under a note that goes on it is struck too; in a rest only
  // where that is asked for.
  for (const { from, chord, bar, beat } of spans) {
    if (!chord || happenings.some((one) => Math.abs(one.from - from) < NEAR)) continue
    const over = sung.find((one) => one.from < from && one.to > from + NEAR)
    if (!over && !fills) continue
    happenings.push({
      note: over?.note ?? null,
      midi: over?.midi ?? null,
      again: over !== undefined,
      from,
      to: over?.to ?? end,
      place: { bar, beat },
      chord,
      anchor: false,
    })
  }
  happenings.sort((a, b) => a.from - b.from)
  happenings.forEach((one, at) => {
    one.to = Math.min(one.to, happenings[at + 1]?.from ?? Infinity)
  })
  return happenings
}

/** Groups that begin with what has a chord of its own. */
function grouped(kept: readonly Happening[], tempo: number): CandidateGroup[] {
  const seconds = (beats: number) => (beats * 60) / tempo
  const groups: CandidateGroup[] = []
  kept.forEach((one, at) => {
    if (!one.anchor && groups.length > 0) return void lastOf(groups).rest.push(one)
    const before = kept[at - 1]
    groups.push({
      anchor: one,
      rest: [],
      next: null,
      heardToo: false,
      seconds: seconds(one.to - one.from),
      haste: before
        ? Math.min(
            MOST_HASTE,
            Math.max(1, TIME_TO_TRAVEL_S / Math.max(0.05, seconds(one.from - before.from))),
          )
        : 1,
    })
  })
  groups.forEach((group, at) => {
    group.next = kept[kept.indexOf(group.anchor) + 1] ?? groups[at + 1]?.anchor ?? null
    const { anchor, rest } = group
    group.heardToo =
      [groups[at - 1], groups[at + 1]].some((other) => other?.anchor.chord === anchor.chord) &&
      rest.every(({ chord }) => chord !== anchor.chord)
  })
  return groups
}
