import { entryOf, itemAt } from '../lists'
import { NEAR } from '../chart/beats'
import { barName, meterName, type Bar, type Chart, type Meter } from '../chart/chart'
import type { MelodyNote } from '../reharm/melodyFit'
import { withSpace } from './space'
import { figuresFor, sameVoices, SHORT_BEATS, type Cycle, type Part, soundsAChord } from './figures'
import { barAt, writtenPlaceAt, playedBars, spansOf, type PlayedBar, type Span } from './playedTime'
import { overHand } from './byHand'
import type { ChordedHit, OwnHit, LaidHit, LeftOut, RawHit, Restart } from './hit'
import { cyclesOf } from './cycles'
import { varied } from './figurePhrases'

export interface Laid {
  /** In the order in which they sound; of those that sound together the low ones first. */
  hits: LaidHit[]
  leftOut: LeftOut[]
  /** Chords that are not heard, and why. */
  silent: { bar: number; beat: number; text: string; why: string }[]
  /** Where another figure stands in. */
  notes: string[]
  /** All that is played, in beats of the first metre. */
  length: number
}

export interface LayOptions {
  restart?: Restart | undefined
  /** 1 every hit, 0 none: ghosts go first, accents and the first hit of each chord last. */
  density?: number | undefined
  melody?: readonly MelodyNote[] | undefined
  /**
   * 0 for the figure as it is; any other whole number varies one thing in each phrase and fills its
   * end, always the same.
   */
  seed?: number | undefined
  /** Bars of a phrase that is varied. */
  phrase?: 2 | 4 | undefined
  /**
   * Hits by hand, by `bar:beat` as written: in place of what the figure has there, or (null)
   * nothing.
   */
  byHand?: ReadonlyMap<string, OwnHit | null> | undefined
  /** The bars as they are played, or each once as written. */
  order?: 'played' | 'written'
}

/**
 * A figure laid on a tune, in the order in which the tune is played: repeats, endings and jumps
 * followed. The cycle runs on over bar lines until it begins again; a push takes the chord that
 * begins within a beat after it; `N.C.` is silent; a chord that no hit of the figure would sound is
 * struck where it comes. Common practice, no source.
 * @param figure the figure, or the figure of each bar
 */
export function layFigure(
  chart: Chart,
  figure: Cycle | ((bar: Bar) => Cycle | null),
  {
    restart = 'section',
    density = 1,
    melody = [],
    seed = 0,
    phrase = 4,
    byHand = new Map(),
    order,
  }: LayOptions = {},
): Laid {
  const bars = playedBars(chart, order)
  const spans = spansOf(bars)
  const figureOf = typeof figure === 'function' ? figure : () => figure
  const standIn = (meter: Meter) => figuresFor(meterName(meter))[0] ?? null
  const { hits: plain, notes } = cyclesOf(bars, chart.meter, figureOf, restart, standIn)
  const sections = bars.filter(({ bar, turn }) => turn > 0 && bar.opensSection).map(({ from }) => from)
  const phrased = seed === 0 ? plain : varied(plain, bars, sections, { seed, phrase })
  const { hits: raw, leftOutAt } = overHand(phrased, bars, byHand)
  /** Why a chord may stay unheard. */
  const rests = ({ from, to }: Span): string | null => {
    const next = leftOutAt[firstFrom(leftOutAt, from)]
    if (next !== undefined && next < to - NEAR) return 'left out by hand'
    return figureOf(barAt(bars, from).bar) === null ? 'the guitar rests here' : null
  }
  const known = chorded(raw, spans, bars)
  const ahead = raw.some(({ push }) => push) ? pushedInto(known, spans, rests) : known
  const sounded = lengthened(rooted(heard(ahead, spans, bars, rests), spans), spans)
  const accented = lastAccented(sounded, [...sections, bars.at(-1)?.to ?? 0])
  const { hits, leftOut } = withSpace(accented, chart, bars, { density, melody, seed })
  return {
    hits: hits.map(({ chordAt: _, ...hit }) => hit),
    leftOut,
    silent: silences(spans, hits, leftOut, bars, rests),
    notes,
    length: bars.at(-1)?.to ?? 0,
  }
}

/** Where in a row of times the first one stands that is not before a time. */
function firstFrom(times: readonly number[], time: number): number {
  let [low, high] = [0, times.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if (itemAt(times, middle) < time - NEAR) low = middle + 1
    else high = middle
  }
  return low
}

/** The span that sounds at a time, by binary search; -1 where there is none. */
function spanAt(spans: readonly Span[], time: number): number {
  let [low, high] = [0, spans.length - 1]
  while (low < high) {
    const middle = (low + high + 1) >> 1
    if (itemAt(spans, middle).from <= time + NEAR) low = middle
    else high = middle - 1
  }
  const found = spans[low]
  return found && found.from <= time + NEAR && time < found.to - NEAR ? low : -1
}

type Pending = ChordedHit & { length: RawHit['length']; scale: number }

function pending(hit: RawHit, at: number, span: Span, pushed: boolean, bars: readonly PlayedBar[]): Pending {
  const { bar, beat } = writtenPlaceAt(bars, hit.time)
  // Written out, not spread: thousands are made for a long tune.
  const made: Pending = {
    bar,
    beat,
    beats: 0,
    time: hit.time,
    lasts: 0,
    slot: span.slot,
    chord: span.chord!,
    part: hit.part,
    accent: hit.accent,
    stroke: hit.stroke,
    chordFrom: span.from,
    pushed,
    chordAt: at,
    length: hit.length,
    scale: hit.scale,
  }
  if (hit.why !== undefined) made.why = hit.why
  return made
}

/**
 * Each hit with its chord: the one that sounds, or for a push the one that begins within a beat
 * after it. Hits in silences fall away.
 */
function chorded(raw: readonly RawHit[], spans: readonly Span[], bars: readonly PlayedBar[]): Pending[] {
  return raw.flatMap((hit) => {
    const at = spanAt(spans, hit.time)
    const next = at >= 0 ? at + 1 : spans.findIndex(({ from }) => from > hit.time)
    const coming = spans[next]
    const pushes =
      hit.push && coming?.chord && coming.from > hit.time + NEAR && coming.from - hit.time <= hit.scale + NEAR
    if (pushes) return [pending(hit, next, coming, true, bars)]
    const span = spans[at]
    return span?.chord ? [pending(hit, at, span, false, bars)] : []
  })
}

/** A hit comes ahead of a chord that has none by at most so much, in beats of its bar. */
const AHEAD = 0.5

/**
 * Where a figure pushes, a chord it would leave unheard is heard in the off-beat just before it, if
 * the chord there has another hit: so players lay it on two chords a bar.
 */
function pushedInto(
  hits: readonly Pending[],
  spans: readonly Span[],
  rests: (span: Span) => string | null,
): Pending[] {
  const made = [...hits]
  const count = new Map<number, number>()
  for (const hit of hits) if (soundsAChord(hit)) count.set(hit.chordAt, (count.get(hit.chordAt) ?? 0) + 1)
  made.forEach((hit, at) => {
    const next = hit.chordAt + 1
    const span = spans[next]
    if (!soundsAChord(hit) || hit.pushed || !span?.chord || rests(span) || count.has(next)) return
    const early = span.from - hit.time
    if (early < NEAR || early > AHEAD * hit.scale + NEAR || (count.get(hit.chordAt) ?? 0) < 2) return
    count.set(hit.chordAt, entryOf(count, hit.chordAt) - 1)
    count.set(next, 1)
    made[at] = {
      ...hit,
      slot: span.slot,
      chord: span.chord,
      chordAt: next,
      chordFrom: span.from,
      pushed: true,
      length: hit.length === 'short' ? hit.length : 'held',
      why: `ahead of ${span.slot.text}, which has no hit of its own`,
    }
  })
  return made
}

/**
 * Every chord is heard: one that has only low notes sounds whole at its first hit, one without a
 * hit is struck where it comes.
 */
function heard(
  hits: readonly Pending[],
  spans: readonly Span[],
  bars: readonly PlayedBar[],
  rests: (span: Span) => string | null,
): Pending[] {
  const of = new Map<number, Pending[]>()
  for (const hit of hits) {
    const own = of.get(hit.chordAt)
    if (own) own.push(hit)
    else of.set(hit.chordAt, [hit])
  }
  const whole = new Set<Pending>()
  const more: Pending[] = []
  const usual = hits.find(soundsAChord)?.stroke ?? 'down'
  const pushes = hits.some(({ pushed }) => pushed)
  spans.forEach((span, at) => {
    if (!span.chord || rests(span)) return
    const own = of.get(at) ?? []
    const putIn = (why: string) => {
      const hit = {
        time: span.from,
        scale: barAt(bars, span.from).scale,
        length: 'held',
        part: 'all',
        accent: 'plain',
        push: false,
      } as const
      more.push(pending({ ...hit, stroke: usual, why }, at, span, false, bars))
    }
    // Where every chord comes early, the first one, and the first behind a silence, has nothing to
    // come early from.
    if (pushes && !spans[at - 1]?.chord && !own.some(({ time }) => time < span.from + NEAR))
      putIn(`put in: nothing is played before ${span.slot.text} that it could be pushed into`)
    if (own.some(soundsAChord)) return
    const low = own.find(({ stroke }) => stroke !== 'dead')
    if (low) whole.add(low)
    else if (!more.some(({ chordAt }) => chordAt === at))
      putIn(`put in, so that ${span.slot.text} is heard: the figure has nothing there`)
  })
  const all = hits.map((hit) =>
    whole.has(hit)
      ? { ...hit, part: 'all' as const, why: `the whole chord: ${hit.slot.text} would have only low notes` }
      : hit,
  )
  return more.length === 0 ? all : [...all, ...more].sort((a, b) => a.time - b.time)
}

/**
 * The first low note of a chord that comes anew is its bass: where the thumb would be at its second
 * note it changes round, and where a figure of the thumb has only upper voices for a chord, its
 * first hit takes the bass with them.
 */
function rooted(hits: readonly Pending[], spans: readonly Span[]): Pending[] {
  if (!hits.some(isLow)) return [...hits]
  const first = new Map<number, Pending>()
  const withoutBass = new Map<number, Pending>()
  for (const hit of hits) {
    if (hit.stroke === 'dead') continue
    if (isLow(hit) || hit.part === 'all' || hit.part === 'single') {
      if (!first.has(hit.chordAt)) first.set(hit.chordAt, hit)
    } else if (hit.part === 'upper' && !withoutBass.has(hit.chordAt)) withoutBass.set(hit.chordAt, hit)
  }
  const comes = (at: number) => spans[at - 1]?.chord?.canonical !== itemAt(spans, at).chord?.canonical
  return hits.map((hit) => {
    if (!comes(hit.chordAt)) return hit
    const low = first.get(hit.chordAt)
    if (low?.part === 'fifth' && isLow(hit))
      return { ...hit, part: hit.part === 'fifth' ? ('bass' as const) : ('fifth' as const) }
    return !low && withoutBass.get(hit.chordAt) === hit
      ? { ...hit, part: 'all' as const, why: `with its bass, so that ${hit.slot.text} is heard to come` }
      : hit
  })
}
const isLow = ({ part }: { part: Part }): boolean => part === 'bass' || part === 'fifth'

/**
 * Lengths, filled in, the last chord of all rings: at most to the end of the chord, to the next hit
 * of another chord, and to the next of the same voices.
 */
function lengthened(hits: readonly Pending[], spans: readonly Span[]): ChordedHit[] {
  const inOrder = [...hits].sort((a, b) => a.time - b.time || lowFirst(a) - lowFirst(b))
  const last = inOrder.findLast(({ stroke }) => stroke !== 'dead')?.time
  return inOrder.map((hit, at) => {
    let until = itemAt(spans, hit.chordAt).to
    for (let next = at + 1; next < inOrder.length && itemAt(inOrder, next).time < until; next += 1) {
      const other = itemAt(inOrder, next)
      if (
        other.time > hit.time + NEAR &&
        (other.chordAt !== hit.chordAt || sameVoices(other.part, hit.part))
      ) {
        until = other.time
        break
      }
    }
    const { length, scale } = hit
    const room = until - hit.time
    const rings = last !== undefined && hit.stroke !== 'dead' && hit.time > last - NEAR
    const wanted = length === 'held' || rings ? room : (length === 'short' ? SHORT_BEATS : length) * scale
    hit.lasts = Math.min(wanted, room)
    hit.beats = hit.lasts / scale
    return hit
  })
}

const ORDER: Readonly<Record<Part, number>> = {
  bass: 0,
  fifth: 0,
  all: 1,
  single: 1,
  inner: 2,
  upper: 2,
  top: 3,
}
const lowFirst = ({ part }: { part: Part }) => ORDER[part]

/**
 * The last hit of each section, and of the tune, is accented, or the figure sounds as if it had
 * been forgotten.
 */
function lastAccented(hits: readonly ChordedHit[], ends: readonly number[]): ChordedHit[] {
  const struck = hits.filter(({ stroke }) => stroke !== 'dead')
  const times = struck.map(({ time }) => time)
  const last = new Set(ends.flatMap((end) => times[firstFrom(times, end) - 1] ?? []))
  return hits.map((hit) =>
    hit.stroke !== 'dead' && last.has(hit.time) ? { ...hit, accent: 'accent' as const } : hit,
  )
}

/** Chords that no hit sounds in the end, and why. */
function silences(
  spans: readonly Span[],
  hits: readonly ChordedHit[],
  leftOut: readonly (LeftOut & { chordAt?: number })[],
  bars: readonly PlayedBar[],
  rests: (span: Span) => string | null,
): Laid['silent'] {
  const sounding = new Set(hits.map(({ chordAt }) => chordAt))
  return spans.flatMap((span, at) => {
    if (sounding.has(at)) return []
    const { bar, beat } = writtenPlaceAt(bars, span.from)
    const noChord = span.slot.symbol
      ? 'N.C.: nobody plays a chord here'
      : `${span.slot.text} in ${barName(bar)} could not be read`
    const unstruck = leftOut.find(({ chordAt }) => chordAt === at)?.why ?? rests(span)
    const why = span.chord ? (unstruck ?? 'nothing is struck here') : noChord
    return [{ bar, beat, text: span.slot.text, why }]
  })
}
