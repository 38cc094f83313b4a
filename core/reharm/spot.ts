import { itemAt } from '../lists'
import { kindOf, type Kind } from '../analysis/kind'
import type { Analysis, HarmonicFunction, Reading } from '../analysis/chordReading'
import type { FormPlaceName } from '../analysis/formPlaces'
import { slotsOf, type Chart, type Idiom, type Slot } from '../chart/chart'
import { playOrder } from '../chart/form'
import { parseChord } from '../chord/parseChord'
import { hasDegree, type ChordSymbol } from '../chord/symbol'
import { spellDegree, type Degree } from '../pitch/degree'
import type { Key } from '../pitch/key'
import { modulo, noteName, pitchClass, plainSpelling, type Note } from '../pitch/note'
import { must } from '../result'
import type { Role } from '../analysis/role'

/**
 * A chord of the plain chart as the rules of change see it: what it is, what it does, what stands
 * around it, how long it has.
 */
export interface Spot {
  /** Place in the order of the chart's slots, silences and unread symbols counted. */
  index: number
  slot: Slot
  chord: ChordSymbol
  kind: Kind
  role: Role
  function: HarmonicFunction
  /** The key the tune is in here. */
  key: Key
  /** Semitones of the root above that key's tonic. */
  rel: number
  /** Its place in the form, and the style of the tune. */
  place: FormPlaceName
  idiom: Idiom
  beats: number
  /** Beats of the bar it stands in. */
  barBeats: number
  /** Beats that the same chord stands in all, from here on, over bar lines. */
  stands: number
  /**
   * The chords right before and behind as the form is played the first time that there are any;
   * null where nobody plays there.
   */
  previous: Spot | null
  next: Spot | null
  /**
   * Those of all times through: behind the last bar of a repeat comes its beginning, and once what
   * follows it. Without the end of the tune.
   */
  befores: readonly Spot[]
  nexts: readonly Spot[]
  /** Half steps its root goes up to the next different root, 0 to 11; null where none comes. */
  rootRise: number | null
  /** It is part of a line that the chart writes inside a standing chord. */
  inLine: boolean
  /** It is a dominant that goes down a fifth, now or after standing. */
  resolving: boolean
}

/** Every readable chord of a chart as a spot, by its slot's place. */
export function spotsOf(
  chart: Chart,
  { readings, regions, groups, key: home, idiom }: Analysis,
): (Spot | null)[] {
  const byPlace = new Map(readings.map((reading): [Slot, Reading] => [reading.slot, reading]))
  const keyAt = (bar: number) => regions.filter((region) => region.from.bar <= bar).at(-1)?.key ?? home
  const lines = groups.filter(({ kind }) => kind === 'line cliché')
  const barBeats = new Map(chart.bars.map(({ number, beats }) => [number, beats]))
  const spots = slotsOf(chart).map((slot, index): Spot | null => {
    const reading = byPlace.get(slot)
    if (!reading || slot.symbol?.kind !== 'chord') return null
    const { chord } = slot.symbol
    const key = keyAt(slot.bar)
    return {
      index,
      slot,
      chord,
      kind: kindOf(chord),
      role: reading.role,
      function: reading.function,
      key,
      rel: modulo(pitchClass(chord.root) - pitchClass(key.tonic), 12),
      place: reading.place,
      idiom: idiom.idiom,
      rootRise: null,
      inLine: lines.some(({ from, to }) => !isBefore(slot, from) && !isBefore(to, slot)),
      resolving: false,
      beats: slot.beats,
      barBeats: barBeats.get(slot.bar) ?? slot.beats,
      stands: slot.beats,
      previous: null,
      next: null,
      befores: [],
      nexts: [],
    }
  })
  const { behind, before } = neighboursPlayed(chart)
  const those = (indexes: ReadonlySet<number> | undefined) =>
    [...(indexes ?? [])].flatMap((index) => spots[index] ?? [])
  for (const [at, here] of spots.entries()) {
    if (!here) continue
    here.nexts = those(behind.get(at))
    here.befores = those(before.get(at))
    here.next = here.nexts[0] ?? null
    here.previous = here.befores[0] ?? null
  }
  for (let at = spots.length - 1; at >= 0; at -= 1) {
    const [here, after] = [spots[at], spots[at + 1]]
    if (!here) continue
    if (after && isOnlyNext(here, after) && after.chord.canonical === here.chord.canonical) {
      here.stands += after.stands
      here.rootRise = after.rootRise
      here.resolving = after.resolving
    } else if (here.next) {
      here.rootRise = modulo(pitchClass(here.next.chord.root) - pitchClass(here.chord.root), 12)
      here.resolving = here.rootRise === 5
    }
  }
  return spots
}

interface PlaceInChart {
  bar: number
  beat: number
}
const isBefore = (a: PlaceInChart, b: PlaceInChart): boolean =>
  a.bar < b.bar || (a.bar === b.bar && a.beat < b.beat)

/**
 * For each slot, by its place on the page, those that are played right behind and right before it,
 * on all times through. Bars that are never reached go on as they are written.
 */
function neighboursPlayed(chart: Chart): {
  behind: Map<number, Set<number>>
  before: Map<number, Set<number>>
} {
  const first: number[] = []
  let count = 0
  for (const bar of chart.bars) {
    first.push(count)
    count += bar.slots.length
  }
  const slotsIn = (bar: number) => itemAt(chart.bars, bar).slots.map((_, at) => itemAt(first, bar) + at)
  const [behind, before] = [new Map<number, Set<number>>(), new Map<number, Set<number>>()]
  const follow = (order: readonly number[]) => {
    const played = order.flatMap(slotsIn)
    for (let at = 1; at < played.length; at += 1) {
      const [from, to] = [itemAt(played, at - 1), itemAt(played, at)]
      behind.set(from, (behind.get(from) ?? new Set()).add(to))
      before.set(to, (before.get(to) ?? new Set()).add(from))
    }
  }
  const order = playOrder(chart)
  follow(order)
  // Behind the last chord the form begins again.
  const all = order.flatMap(slotsIn)
  const [top, end] = [all[0], all.at(-1)]
  if (top !== undefined && end !== undefined && end !== top && !behind.has(end))
    behind.set(end, new Set([top]))
  const reached = new Set(order)
  chart.bars.forEach((_, bar) => {
    if (!reached.has(bar)) follow(bar > 0 && !reached.has(bar - 1) ? [bar - 1, bar] : [bar])
  })
  return { behind, before }
}

/** The one chord is played right behind the other, and nothing else is. */
export const isOnlyNext = (here: Spot, after: Spot): boolean =>
  after.index === here.index + 1 && here.nexts.length === 1 && here.nexts[0] === after

/** Behind it the form begins again, or nothing comes. */
export const endsForm = ({ index, next }: Spot): boolean => next === null || next.index <= index

/** Roots nobody wants to read where the same sound has a plain name. */
const AWKWARD: readonly string[] = ['E#', 'B#', 'Fb', 'Cb']

/** A note some degree above another, without double accidentals and awkward names. */
export function noteAt(from: Note, degree: Degree): Note {
  const note = spellDegree(from, degree)
  return Math.abs(note.alter) <= 1 && !AWKWARD.includes(noteName(note))
    ? note
    : plainSpelling(pitchClass(note))
}

/** A chord of some suffix on a note; over a bass where one is given. */
export const chordOn = (root: Note, suffix: string, bass?: Note): ChordSymbol =>
  must(parseChord(noteName(root) + suffix + (bass ? `/${noteName(bass)}` : '')))

/** Semitones the root falls to the next chord, 0 to 11, or -1 where none follows. */
export const fallsBy = (spot: Spot): number =>
  spot.next ? modulo(pitchClass(spot.chord.root) - pitchClass(spot.next.chord.root), 12) : -1

/** Semitones the root rises to the next chord, 0 to 11, or -1 where none follows. */
export const risesBy = (spot: Spot): number =>
  spot.next ? modulo(pitchClass(spot.next.chord.root) - pitchClass(spot.chord.root), 12) : -1

/** A dominant seventh, or a plain major V, that goes down a fifth to what follows. */
export const resolves = (spot: Spot): boolean =>
  fallsBy(spot) === 7 &&
  (spot.kind === 'dominant' ||
    (spot.kind === 'major' && (spot.role === 'dominant to major' || spot.role === 'dominant to minor')))

export const isMinorish = (kind: Kind): boolean =>
  kind === 'minor' || kind === 'half-diminished' || kind === 'diminished'

/** Quality words of a chord without its extensions, for a shape that is moved. */
export const shapeOf = ({ chord }: Spot): string => chord.suffix

export const hasSeventh = (chord: ChordSymbol): boolean => hasDegree(chord, 'b7', '7', 'bb7')
