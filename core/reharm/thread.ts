import { firstOf, theOne } from '../lists'
import { analyse } from '../analysis/analyse'
import { parseChart } from '../chart/parseChart'
import type { ChordSymbol } from '../chord/symbol'
import { degreeBetween, type Degree } from '../pitch/degree'
import { modulo, pitchClass, type Note } from '../pitch/note'
import type { Change } from './change'
import { reachOf } from './distance'
import { changesAt } from './options'
import { spotsOf, type Spot } from './spot'

/** One chord of a tune with what was found for it. */
export interface Threaded {
  index: number
  /** The plain chord, or what takes its place. */
  chord: ChordSymbol
  /** Null where the plain chord stays. */
  change: Change | null
}

/** One chord put in place of one, with how much it changes; the plain chord first. */
function ways(spot: Spot): (Threaded & { reach: number })[] {
  const plain = [{ chord: spot.chord, beats: spot.beats }]
  const changes = changesAt(spot).filter(
    (change) => change.span === 1 && change.puts.length === 1 && change.intent !== 'simplify',
  )
  return [
    { index: spot.index, chord: spot.chord, change: null, reach: 0 },
    ...changes.map((change) => ({
      index: spot.index,
      chord: firstOf(change.puts).chord,
      change,
      reach: reachOf(plain, change.puts, spot.key),
    })),
  ]
}

const has = (chord: ChordSymbol, held: Note): boolean =>
  chord.tones.some(({ note }) => pitchClass(note) === pitchClass(held)) ||
  (chord.bass !== null && pitchClass(chord.bass) === pitchClass(held))

/** Those of some ways that keep a sound; all of them where none does. */
function holding<Way extends { chord: ChordSymbol }>(all: Way[], held: Note | null): Way[] {
  const keeping = held ? all.filter(({ chord }) => has(chord, held)) : all
  return keeping.length > 0 ? keeping : all
}

/**
 * Sounds that every one of some chords has, and so can be held through all of them; of fewer than
 * two chords none are named.
 */
export function heldThrough(chords: readonly ChordSymbol[]): Note[] {
  if (chords.length < 2) return []
  const [{ tones, bass }] = chords as [ChordSymbol]
  const sounds = [
    ...tones.map(({ note }) => note),
    ...(bass && !tones.some(({ note }) => pitchClass(note) === pitchClass(bass)) ? [bass] : []),
  ]
  return sounds.filter((note) => chords.every((chord) => has(chord, note)))
}

/**
 * For every chord of a tune the nearest chord that contains one sound (common practice: drone, held
 * top note), with the name the sound has in it. Null where nothing holds it.
 */
export function commonThread(text: string, held: Note): ((Threaded & { degree: Degree }) | null)[] {
  const chart = parseChart(text)
  const sound = pitchClass(held)
  return spotsOf(chart, analyse(chart)).map((spot) => {
    if (!spot) return null
    const [nearest] = ways(spot)
      .filter(({ chord }) => chord.tones.some((tone) => pitchClass(tone.note) === sound))
      .sort((a, b) => a.reach - b.reach)
    if (!nearest) return null
    const tone = theOne(nearest.chord.tones, (one) => pitchClass(one.note) === sound)
    return { index: nearest.index, chord: nearest.chord, change: nearest.change, degree: tone.degree }
  })
}

/** How a wanted bass goes from chord to chord. */
export type BassDirection = 'down' | 'up'

const bassOf = (chord: ChordSymbol): number => pitchClass(chord.bass ?? chord.root)
/**
 * A bass that stays is worth less than one that steps; a leap spoils the line. In steps of the
 * search.
 */
const STAYS = 1
const LEAPS = 4
const AGAINST = 3
/** How much reach weighs against a better step. */
const REACH_WEIGHT = 2

/**
 * Inversions and substitutes that make the bass walk by steps in one direction, the whole tune
 * weighed together, changing as little as it takes.
 * @param held a sound that every chord keeps where it can: a drone over the walking bass
 */
export function bassWalk(
  text: string,
  direction: BassDirection,
  held: Note | null = null,
): (Threaded | null)[] {
  const chart = parseChart(text)
  const spots = spotsOf(chart, analyse(chart))
  const layers = spots.map((spot) => (spot ? holding(ways(spot), held) : []))
  const wanted = direction === 'down' ? -1 : 1
  const price = (from: ChordSymbol, to: ChordSymbol) => {
    const up = modulo(bassOf(to) - bassOf(from), 12)
    const move = up > 6 ? up - 12 : up
    if (move === 0) return STAYS
    if (Math.abs(move) > 2) return LEAPS
    if (Math.sign(move) === wanted) return 0
    return AGAINST
  }
  /** The bass goes on where the page does; over the end of a first time through it does not. */
  const goesOn = (index: number) => {
    const spot = spots[index]
    return !spot || spot.nexts.length === 0 || spot.nexts.some((next) => next.index === index + 1)
  }
  let before: { cost: number; path: (Threaded | null)[]; chord: ChordSymbol | null }[] = [
    { cost: 0, path: [], chord: null },
  ]
  for (const [at, layer] of layers.entries()) {
    if (layer.length === 0) {
      before = before.map((one) => ({ ...one, path: [...one.path, null], chord: null }))
      continue
    }
    before = layer.map((way) => {
      const best = before
        .map((one) => ({ one, cost: one.cost + (one.chord ? price(one.chord, way.chord) : 0) }))
        .reduce((a, b) => (b.cost < a.cost ? b : a))
      return {
        cost: best.cost + way.reach * REACH_WEIGHT,
        chord: goesOn(at) ? way.chord : null,
        path: [...best.one.path, { index: way.index, chord: way.chord, change: way.change }],
      }
    })
  }
  return before.reduce((a, b) => (b.cost < a.cost ? b : a)).path
}

/**
 * Inversions and substitutes that put wanted notes into the bass, each chord for itself, changing
 * as little as it takes.
 * @param wanted one for each slot of the chart; null leaves the chord as it is
 * @param held a sound that every chord keeps where it can
 * @returns for each slot what was found; null where nothing is wanted, nobody plays, or no change
 *   has that bass
 */
export function wantedBass(
  text: string,
  wanted: readonly (Note | null)[],
  held: Note | null = null,
): (Threaded | null)[] {
  const chart = parseChart(text)
  return spotsOf(chart, analyse(chart)).map((spot, index) => {
    const note = wanted[index]
    if (!spot || !note) return null
    const [nearest] = holding(
      ways(spot).filter(({ chord }) => bassOf(chord) === pitchClass(note)),
      held,
    ).sort((a, b) => a.reach - b.reach)
    return nearest ? { index: nearest.index, chord: nearest.chord, change: nearest.change } : null
  })
}

/**
 * What a sound is to a chord, whether the chord has it or not: a drone says what it is to each
 * chord it goes through.
 */
export const nameOver = (held: Note, chord: ChordSymbol): Degree =>
  chord.tones.find((tone) => pitchClass(tone.note) === pitchClass(held))?.degree ??
  degreeBetween(chord.root, held)
