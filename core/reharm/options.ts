import { firstOf, itemAt, lastOf } from '../lists'
import { NEAR } from '../chart/beats'
import { analyse } from '../analysis/analyse'
import { slotsOf, type Chart } from '../chart/chart'
import { parseChart } from '../chart/parseChart'
import { leastClassMotion } from '../pitch/motion'
import { keyName } from '../pitch/key'
import { noteName, pitchClass } from '../pitch/note'
import type { ChordSymbol } from '../chord/symbol'
import { firstAt, isOutOfPlace, saysItTwice, pushesOn } from './atPlace'
import { putsKey, type Change, type Put } from './change'
import { coloursOf } from './colour'
import { distanceFrom, reachOf, type Distance } from './distance'
import { barStarts, fitOf, type MelodyFit, type MelodyNote } from './melodyFit'
import { putsOf, resultsOf } from './rule'
import { rulesIn } from './families'
import { familyOf, isAskedBy, RULES, schoolOf } from './ruleNames'
import { isOnlyNext, resolves, spotsOf, type Spot } from './spot'

/** How far rules may be put on top of one another. */
export const MOST_DEPTH = 3
/** The fewest beats a chord put in gets. */
const LEAST_BEATS = 1

/** A change with what it does to the tune around it. */
export interface ChangeOption extends Change {
  distance: Distance
  /** How much it changes, 0 to 1. */
  reach: number
  /** Pitch classes the plain chords have, kept and lost, and new ones, as note names. */
  kept: string[]
  lost: string[]
  added: string[]
  /**
   * Least motion of pitch classes, in semitones, from the chord before into it, and out of it to
   * the one behind.
   */
  into: number | null
  out: number | null
  melody: MelodyFit[]
  /**
   * The same sound on other basses: the inversions of a diminished seventh or an augmented triad.
   */
  basses: string[]
  /** The same chords by other ways. */
  also: { rule: string; name: string; why: string }[]
}

/** Rules of altered dominants. */
const ALTERED: readonly string[] = ['altered-dominant', 'raised-ninth']

/**
 * Every change of one spot by one application of a rule, colours first. Where the chord is followed
 * by one thing the first time and by another the next, or reached from several, what is offered
 * holds each time.
 */
export function changesAt(spot: Spot): readonly Change[] {
  const known = KNOWN.get(spot) ?? everyChange(spot)
  KNOWN.set(spot, known)
  return known
}
/** Found once for a spot: the search, the measure of how far and the drawer all ask. */
const KNOWN = new WeakMap<Spot, readonly Change[]>()

function everyChange(spot: Spot): Change[] {
  const ways = orNone(spot.nexts).flatMap((next) =>
    orNone(spot.befores).map((previous): Spot => ({ ...spot, next, previous })),
  )
  const [first, ...others] = ways.map(changesOneWay)
  return others.reduce((all, way) => {
    const there = new Set(way.map(sameChange))
    return all.filter((change) => there.has(sameChange(change)))
  }, first!)
}

const orNone = (spots: readonly Spot[]): readonly (Spot | null)[] => (spots.length > 0 ? spots : [null])
/** The same chords, held to the same promise. */
const sameChange = (change: Change): string => `${putsKey(change)} ${change.rule} ${change.landsOn ?? ''}`

function changesOneWay(spot: Spot): Change[] {
  const colours = coloursOf({ slot: spot.slot, role: spot.role })
    .slice(1)
    .map((colour): Change => ({
      rule: colour.rule,
      name: colour.special ? 'special colour' : 'colour',
      intent: 'colour',
      index: spot.index,
      span: 1,
      puts: [{ chord: colour.chord, beats: spot.beats }],
      why: colour.why,
      mood: colour.mood,
      school: schoolOf(colour.rule),
      depth: 1,
      // An altered dominant is only safe where it goes on to resolve.
      landsOn:
        ALTERED.includes(colour.rule) && spot.next && resolves(spot)
          ? pitchClass(spot.next.chord.root)
          : null,
    }))
  const others = RULES.flatMap((rule) =>
    resultsOf(rule.put(spot)).flatMap((result): Change[] => {
      const span = rule.span ?? 1
      const replaced = following(spot, span)
      if (!replaced) return []
      const puts = putsOf(
        result,
        replaced.reduce((sum, one) => sum + one.beats, 0),
        rule.room ?? LEAST_BEATS,
      )
      if (!puts || isPlain(puts, replaced) || !standsOnBeats(puts, replaced)) return []
      const goal = lastOf(replaced).next
      return [
        {
          rule: rule.id,
          name: rule.name,
          intent: rule.intent,
          index: spot.index,
          span,
          puts,
          why: result.why,
          mood: rule.mood,
          school: rule.school,
          depth: 1,
          landsOn:
            goal && (rule.leads || pushesOn(lastOf(puts).chord, lastOf(replaced)))
              ? pitchClass(goal.chord.root)
              : null,
        },
      ]
    }),
  )
  return inOrder(spot, [...colours, ...others])
}

/**
 * What the place asks for first stands first; what is out of place is marked so; what says a chord
 * twice is left out.
 */
function inOrder(spot: Spot, changes: readonly Change[]): Change[] {
  const first = firstAt(spot)
  const byKey = new Map(changes.map((change) => [putsKey(change), change]))
  const usual = first.map((change): Change => {
    const known = byKey.get(putsKey(change))
    return known ? { ...known, usual: change.usual! } : change
  })
  const taken = new Set(usual.map(putsKey))
  const rest = changes
    .filter((change) => !taken.has(putsKey(change)) && !saysItTwice(change.puts))
    .map((change): Change => (isOutOfPlace(spot, change.puts) ? { ...change, outOfPlace: true } : change))
  return [...usual, ...rest]
}

/**
 * The spot and so many behind it, or null where they are not all there, side by side on the page
 * and played as one each time.
 */
function following(spot: Spot, span: number): Spot[] | null {
  const spots = [spot]
  while (spots.length < span) {
    const here = lastOf(spots)
    const { next } = here
    if (!next || !isOnlyNext(here, next) || next.befores.length > 1) return null
    spots.push(next)
  }
  return spots
}

/**
 * Chords that are put in come on beats of the metre, and none of them hangs over a bar line (common
 * practice, no source).
 */
function standsOnBeats(puts: readonly Put[], replaced: readonly Spot[]): boolean {
  if (puts.length <= replaced.length) return true
  const places = replaced.flatMap(({ slot, beats }) => ({ bar: slot.bar, beat: slot.beat, beats }))
  let offset = 0
  return puts.every((put, order) => {
    let [left, at] = [offset, 0]
    while (at < places.length - 1 && left >= itemAt(places, at).beats - NEAR) {
      left -= itemAt(places, at).beats
      at += 1
    }
    offset += put.beats
    const { beat, bar, beats } = itemAt(places, at)
    const starts = beat + left
    const crosses =
      left + put.beats > beats + NEAR &&
      places[at + 1] !== undefined &&
      itemAt(places, at + 1).bar !== bar &&
      left > NEAR
    return (order === 0 || Math.abs(starts - Math.round(starts)) < NEAR) && !crosses
  })
}

const isPlain = (puts: readonly Put[], replaced: readonly Spot[]): boolean =>
  puts.length === replaced.length &&
  puts.every((put, at) => put.chord.canonical === itemAt(replaced, at).chord.canonical)

/**
 * Families whose rules are put on top of others, colours aside: a chord gets its ii, or a
 * substitute.
 */
const DEEPER: readonly string[] = ['c1', 'b1']

/** Chords before and behind that a composed change is read with. */
const AROUND = 3

/**
 * Changes of changes: a substitute gets its own ii, a ii its own colour. Each is read anew where it
 * then stands, so the rules see what it has become. Only rules that swap, insert or colour are put
 * on top.
 */
function deepened(change: Change, spots: readonly (Spot | null)[], depth: number): Change[] {
  if (depth < 2) return []
  const here = itemAt(spots, change.index)!
  const last = itemAt(spots, change.index + change.span - 1)!
  const [first, ...others] = orNone(last.nexts).map((next) =>
    deepenedOnce(
      change,
      chainOf(here.previous, ({ previous }) => previous).reverse(),
      chainOf(next, (spot) => spot.next),
      here,
    ),
  )
  return others.reduce((all, way) => {
    const there = new Set(way.map(sameChange))
    return all.filter((deeper) => there.has(sameChange(deeper)))
  }, first!)
}

/** So many chords as a change is read with, one after the other as they are played. */
function chainOf(from: Spot | null, on: (spot: Spot) => Spot | null): Spot[] {
  const chain: Spot[] = []
  for (let spot = from; spot && chain.length < AROUND; spot = on(spot)) chain.push(spot)
  return chain
}

function deepenedOnce(
  change: Change,
  before: readonly Spot[],
  behind: readonly Spot[],
  here: Spot,
): Change[] {
  const cell = (symbol: string, beats: number) => ({ symbol, beats })
  const excerpt = [
    ...before.map((spot) => cell(spot.chord.canonical, spot.beats)),
    ...change.puts.map((put) => cell(put.chord.canonical, put.beats)),
    ...behind.map((spot) => cell(spot.chord.canonical, spot.beats)),
  ]
  // A bar of its own for every chord: lengths are put right below, only the neighbours matter for
  // the reading.
  const chart = parseChart(
    `key: ${keyName(here.key)}\n| ${excerpt.map(({ symbol }) => symbol).join(' | ')} |`,
  )
  const read = spotsOf(chart, analyse(chart))
  return change.puts.flatMap((put, at) => {
    const spot = read[before.length + at]
    if (!spot) return []
    return changesAt({ ...spot, beats: put.beats, stands: put.beats })
      .filter(
        (next) => next.span === 1 && (next.intent === 'colour' || DEEPER.includes(familyOf(next.rule) ?? '')),
      )
      .map((next): Change => ({
        ...change,
        depth: change.depth + 1,
        rule: `${change.rule}+${next.rule}`,
        name: `${change.name}, then ${next.name}`,
        puts: [...change.puts.slice(0, at), ...next.puts, ...change.puts.slice(at + 1)],
        why: `${change.why} ${next.why}`,
        mood: `${change.mood}; ${next.mood}`,
        school: change.school,
        landsOn: at === change.puts.length - 1 ? (next.landsOn ?? change.landsOn) : change.landsOn,
      }))
  })
}

export interface OptionsAsked {
  /**
   * Rules to use, all where none are named: by name, by family, or by the letter of a whole kind.
   */
  rules?: readonly string[] | undefined
  /** 1 for single applications. */
  depth?: number
  melody?: readonly MelodyNote[]
}

/**
 * Everything one chord can become, each way once, with what it does to the tune. In the order of
 * the catalogue.
 */
export function optionsAt(text: string, index: number, asked: OptionsAsked = {}): ChangeOption[] {
  const chart = parseChart(text)
  return optionsOf(chart, spotsOf(chart, analyse(chart)), index, asked)
}

export function optionsOf(
  chart: Chart,
  spots: readonly (Spot | null)[],
  index: number,
  { rules, depth = 1, melody = [] }: OptionsAsked = {},
): ChangeOption[] {
  const spot = spots[index]
  if (!spot) return []
  const wanted = (change: Change) =>
    !rules || rulesIn(change.rule).every((rule) => rules.some((one) => isAskedBy(rule, one)))
  let layer = changesAt(spot)
  const all = [...layer]
  for (let at = 2; at <= depth; at += 1) {
    layer = layer.flatMap((change) => deepened(change, spots, depth))
    all.push(...layer)
  }
  const byResult = new Map<string, ChangeOption>()
  for (const change of all.filter(wanted)) {
    const key = soundKey(change)
    const known = byResult.get(key)
    const bass = firstOf(change.puts).chord.canonical
    if (!known) byResult.set(key, described(change, chart, spots, melody))
    else if (putsKey(known) !== putsKey(change)) {
      if (!known.basses.includes(bass)) known.basses.push(bass)
    } else if (!known.also.some((other) => other.name === change.name) && known.name !== change.name)
      known.also.push({ rule: change.rule, name: change.name, why: change.why })
  }
  // What the place asks for comes first. Special colours come late: they are for those who look for
  // them; what is out of place comes last.
  return [...byResult.values()].sort((a, b) => standing(a) - standing(b))
}

const SPECIAL = 'special colour'
/**
 * Where a change stands in the list: by the table of places, then as found, special colours, and
 * what is out of place.
 */
function standing({ usual, outOfPlace, name }: Change): number {
  if (usual !== undefined) return usual - MOST_USUAL
  if (outOfPlace) return 2
  return name === SPECIAL ? 1 : 0
}
const MOST_USUAL = 1000

/**
 * Equal where the same sounds stand in one place: a diminished seventh or an augmented triad is one
 * sound by several names.
 */
const soundKey = (change: Change): string => {
  const [{ chord, beats }] = change.puts as [Put]
  return change.puts.length === 1 && !chord.bass && SYMMETRIC.includes(chord.suffix)
    ? `${change.index}+${change.span}:${chord.suffix} ${chord.tones
        .map(({ note }) => pitchClass(note))
        .sort((a, b) => a - b)
        .join(' ')}*${beats}`
    : putsKey(change)
}
const SYMMETRIC: readonly string[] = ['dim7', 'aug']

function described(
  change: Change,
  chart: Chart,
  spots: readonly (Spot | null)[],
  melody: readonly MelodyNote[],
): ChangeOption {
  const replaced = spots.slice(change.index, change.index + change.span) as Spot[]
  const plain = replaced.map((spot): Put => ({ chord: spot.chord, beats: spot.beats }))
  const [first, last] = [firstOf(replaced), lastOf(replaced)]
  const tonesOf = (puts: readonly Put[]) =>
    new Map(
      puts.flatMap(({ chord }) => chord.tones.map((tone) => [pitchClass(tone.note), tone.note] as const)),
    )
  const [old, now] = [tonesOf(plain), tonesOf(change.puts)]
  const names = (sounds: Map<number, ChordSymbol['root']>, keep: (sound: number) => boolean) =>
    [...sounds].filter(([sound]) => keep(sound)).map(([, note]) => noteName(note))
  return {
    ...change,
    distance: distanceFrom(change.puts, first.key),
    reach: reachOf(plain, change.puts, first.key),
    kept: names(old, (sound) => now.has(sound)),
    lost: names(old, (sound) => !now.has(sound)),
    added: names(now, (sound) => !old.has(sound)),
    into: first.previous ? motionBetween(first.previous.chord, firstOf(change.puts).chord) : null,
    out: last.next ? motionBetween(lastOf(change.puts).chord, last.next.chord) : null,
    melody: fitOf(
      change.puts,
      slotsOf(chart).slice(change.index, change.index + change.span),
      melody,
      barStarts(chart),
      last.next ? pitchClass(last.next.chord.root) : null,
    ),
    basses: [],
    also: [],
  }
}

const motionBetween = (a: ChordSymbol, b: ChordSymbol): number => {
  const sounds = (chord: ChordSymbol) => [...new Set(chord.tones.map((tone) => pitchClass(tone.note)))]
  return leastClassMotion(sounds(a), sounds(b)).reduce((sum, step) => sum + Math.abs(step.semitones), 0)
}
