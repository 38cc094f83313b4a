import { entryOf, firstOf } from '../lists'
import { NEAR } from '../chart/beats'
import { meterName, slotsOf, type Bar, type Chart, type Slot } from '../chart/chart'
import { TEMPO_RANGE } from '../chart/parseChart'
import type { ChordSymbol } from '../chord/symbol'
import { needsMs } from '../leading/handTime'
import { writtenFrets, type Frets } from '../neck/instrument'
import { easierThan } from '../voicing/ease'
import type { Limits } from '../voicing/gripLimits'
import type { Voicing } from '../voicing/voicing'
import { EVERY_CHORD_ONCE, figuresFor, type Cycle } from './figures'
import type { OwnHit, LaidHit, Restart } from './hit'
import { layFigure, type Laid } from './lay'

/** What the last sound of a grip gives up to make room for the hand. Common practice, no source. */
const CUT = {
  /** It may be cut short by this share of its length … */
  share: 0.5,
  /** … and by no more beats than this, or it sounds chopped. */
  beats: 0.5,
} as const

/**
 * How fast the hand is at ease, in words that follow a name or "is"; a tempo that cannot be set is
 * none.
 * @param comfortable in beats a minute
 */
export const atEase = (comfortable: number): string =>
  comfortable >= TEMPO_RANGE[1] ? 'at ease at any tempo' : `at ease to ${Math.floor(comfortable)}`

export interface GripChange {
  /** Which grip the hand leaves, by its index among the grips; it goes to the one at `to`. */
  index: number
  to: number
  /** Where the hand travels along the neck, in mm. */
  mm: number
  /** Fingers set down anew; one that slides counts half. */
  fingers: number
  /** What it takes, in ms. */
  needsMs: number
  /** What time it has, in beats of the first metre. */
  beats: number
  /** The fastest tempo at which there is time for it, in beats a minute of the first metre. */
  comfortable: number
  /** What would help, the most first. */
  help: Help[]
}

/** Something that gives the hand time for a change. */
export interface Help {
  kind: 'grip' | 'push' | 'later' | 'shorter' | 'figure'
  /** The fastest comfortable tempo of this change with it. */
  tempo: number
  text: string
  /** The easier grip; the other figure; the place of the hit that is moved, as written. */
  frets?: Frets
  figure?: string
  at?: { bar: number; beat: number }
}

export interface HandTempo {
  /**
   * Of the whole tune, in beats a minute of its first metre; the fastest there is where the hand
   * has nothing to change.
   */
  comfortable: number
  /** The most limiting first. */
  changes: GripChange[]
}

const perMinute = (beats: number, ms: number): number => (60_000 * beats) / ms

/** A place where the hand goes from one slot's grip to another's: the time there is, in beats. */
interface Passage {
  from: Slot
  to: Slot
  beats: number
  /** The first hit of the new grip. */
  hit: LaidHit
  /** Beats by which that hit comes before its chord. */
  early: number
  /** The last hit of the old grip. */
  last: LaidHit
  /** Beats that the last sound of the old grip keeps when it has given up what it may. */
  rest: number
}

/**
 * The time from the end of one grip's last sound to the first of the next one's, with what the last
 * sound may give up.
 */
function passagesOf({ hits }: Laid): Passage[] {
  const found: Passage[] = []
  let ends = 0
  let longest = 0
  let lastHit = firstOf(hits)
  hits.forEach((hit, at) => {
    const before = hits[at - 1]
    if (before && before.slot !== hit.slot) {
      const cut = Math.min(CUT.share * longest, CUT.beats)
      const early = hit.pushed ? hit.chordFrom - hit.time : 0
      found.push({
        from: before.slot,
        to: hit.slot,
        beats: Math.max(0, hit.time - ends) + cut,
        hit,
        early,
        last: lastHit,
        rest: longest - cut,
      })
      ends = 0
    }
    if (hit.time + hit.lasts > ends) {
      ends = hit.time + hit.lasts
      longest = hit.lasts
      lastHit = hit
    }
  })
  return found
}

/**
 * The time the hand has to get to each chord of a chart, in ms: from the end of the last sound
 * before it to its own first, at a tempo, in the tightest place. Null for the first chord, and for
 * one that is not struck.
 * @param tempo in beats a minute of the first metre
 */
export function timesInto(
  chart: Chart,
  figure: HandTempoQuestion['figure'],
  tempo: number,
  restart: Restart = 'section',
): (number | null)[] {
  const slots = slotsOf(chart).filter(({ symbol }) => symbol?.kind === 'chord')
  const least = new Map<Slot, number>()
  for (const { to, beats } of passagesOf(layFigure(chart, figure ?? EVERY_CHORD_ONCE, { restart })))
    least.set(to, Math.min(least.get(to) ?? Infinity, beats))
  return slots.map((slot) => {
    const beats = least.get(slot)
    return beats === undefined ? null : (beats * 60_000) / tempo
  })
}

export interface HandTempoQuestion {
  chart: Chart
  /** The grip of each slot that has one. */
  grips: ReadonlyMap<Slot, Voicing>
  /** Without one each chord is struck once and held. */
  figure: Cycle | ((bar: Bar) => Cycle | null) | null
  restart?: Restart | undefined
  byHand?: ReadonlyMap<string, OwnHit | null> | undefined
  limits: Limits
  /** What would help is worked out too, which takes most of the time; true where it is not said. */
  help?: boolean
}

/**
 * Whether the hand gets there: for each change between differing grips the time it has and what it
 * needs, the fastest tempo at which that is comfortable, and what would help. A faster tempo is
 * never easier, a longer way never quicker.
 */
export function handTempo({
  chart,
  grips,
  figure,
  restart = 'section',
  byHand,
  limits,
  help = true,
}: HandTempoQuestion): HandTempo {
  const order = [...grips.keys()]
  const indexOf = new Map(order.map((slot, at) => [slot, at]))
  const laid = layFigure(chart, figure ?? EVERY_CHORD_ONCE, { restart, byHand })
  const tightest = new Map<string, Passage>()
  for (const passage of passagesOf(laid)) {
    const key = `${indexOf.get(passage.from)}>${indexOf.get(passage.to)}`
    if (!tightest.has(key) || entryOf(tightest, key).beats > passage.beats + NEAR) tightest.set(key, passage)
  }
  const others = figure && help ? otherFigures(chart, figure, restart) : []
  const changes = [...tightest.values()].flatMap((passage): GripChange[] => {
    const [from, to] = [grips.get(passage.from), grips.get(passage.to)]
    if (!from || !to || from.frets.join() === to.frets.join()) return []
    const { mm, fingers, ms } = needsMs(from, to, limits)
    const { beats } = passage
    const change = { mm, fingers, needsMs: ms, beats, comfortable: perMinute(beats, ms) }
    const after = order[entryOf(indexOf, passage.to) + 1]
    return [
      {
        index: entryOf(indexOf, passage.from),
        to: entryOf(indexOf, passage.to),
        ...change,
        help: help
          ? helpFor(change, passage, {
              from,
              to,
              next: after ? grips.get(after) : undefined,
              limits,
              others,
            })
          : [],
      },
    ]
  })
  changes.sort((a, b) => a.comfortable - b.comfortable || a.index - b.index)
  return { comfortable: changes[0]?.comfortable ?? TEMPO_RANGE[1], changes }
}

/** Strokes a beat. */
const strokesIn = ({ hits, cycle }: Cycle): number => hits.length / cycle

/** Other figures of the tune's metre, with the time each gives the changes. */
function otherFigures(chart: Chart, figure: NonNullable<HandTempoQuestion['figure']>, restart: Restart) {
  const now = chart.bars.flatMap((bar) => (typeof figure === 'function' ? figure(bar) : figure) ?? [])
  // More strokes leave less time and are no remedy, whatever lies between them.
  const most = Math.max(0, ...now.map(strokesIn))
  return figuresFor(meterName(chart.meter))
    .filter((one) => one !== figure && strokesIn(one) <= most)
    .map((one) => {
      const beats = new Map<string, number>()
      for (const { from, to, beats: here } of passagesOf(layFigure(chart, one, { restart }))) {
        const key = placeOf(from, to)
        beats.set(key, Math.min(beats.get(key) ?? Infinity, here))
      }
      return { name: one.name, beats }
    })
}
const placeOf = (from: Slot, to: Slot) => `${from.bar}:${from.beat}>${to.bar}:${to.beat}`

interface HelpKnown {
  from: Voicing
  to: Voicing
  /** The grip behind the one that is reached. */
  next: Voicing | undefined
  limits: Limits
  others: ReturnType<typeof otherFigures>
}

/** Help is worth naming from this much on, as a share of the tempo. */
const WORTH = 1.05
/**
 * The last sound before a change is let go by so much sooner than it would be anyhow, in beats,
 * where it lasts.
 */
const SHORTER_BEATS = 0.5
/** A later hit comes half a beat later. */
const LATER_BEATS = 0.5

function helpFor(
  { needsMs: ms, beats, comfortable }: Pick<GripChange, 'needsMs' | 'beats' | 'comfortable'>,
  { from: before, to: after, hit, early, last, rest }: Passage,
  { from, to, next, limits, others }: HelpKnown,
): Help[] {
  const becomes = (tempo: number) => `${Math.floor(comfortable)} becomes ${Math.floor(tempo)}`
  const help: Help[] = []
  const at = { bar: hit.bar, beat: hit.beat }
  const offer = (kind: Help['kind'], tempo: number, text: string, more: Partial<Help> = {}) => {
    if (tempo >= comfortable * WORTH) help.push({ kind, tempo, text: `${text}: ${becomes(tempo)}.`, ...more })
  }
  const easier = easierGrip(from, to, next, hit.chord, limits, comfortable, beats)
  if (easier)
    offer(
      'grip',
      perMinute(beats, easier.ms),
      `An easier grip for ${after.text}, ${writtenFrets(easier.voicing.frets)}${easier.lost ? ` (it loses ${easier.lost})` : ''}`,
      { frets: easier.voicing.frets },
    )
  if (early > NEAR)
    offer(
      'push',
      perMinute(beats + early, ms),
      `Hold ${before.text} through the push and take ${after.text} on its beat`,
      { at },
    )
  const shorter = Math.min(SHORTER_BEATS, rest - NEAR)
  if (shorter > NEAR)
    offer(
      'shorter',
      perMinute(beats + shorter, ms),
      `Let the last ${before.text} go ${shorter >= 1 ? 'a beat' : 'half a beat'} sooner`,
      { at: { bar: last.bar, beat: last.beat } },
    )
  if (hit.lasts > LATER_BEATS + NEAR)
    offer('later', perMinute(beats + LATER_BEATS, ms), `Strike ${after.text} half a beat later`, { at })
  const key = placeOf(before, after)
  const figure = others.find((one) => perMinute(one.beats.get(key) ?? 0, ms) >= comfortable * 1.25)
  if (figure)
    offer('figure', perMinute(entryOf(figure.beats, key), ms), `Another figure, ${figure.name}`, {
      figure: figure.name,
    })
  return help.sort((a, b) => b.tempo - a.tempo)
}

/** Up to this fret open strings belong to the hand's place. Common practice. */
const OPEN_POSITION = 5
/** No open string rings far from the hand. */
const isOfOnePlace = ({ frets }: Voicing): boolean =>
  !frets.includes(0) || Math.max(...frets.map((fret) => fret ?? 0)) <= OPEN_POSITION

/**
 * The easier grip of the same chord that is reached soonest, where the way on from it is no worse
 * than the change is now.
 */
function easierGrip(
  from: Voicing,
  to: Voicing,
  next: Voicing | undefined,
  chord: ChordSymbol,
  limits: Limits,
  comfortable: number,
  beats: number,
) {
  return easierThan(to, chord, limits)
    .filter(({ voicing }) => isOfOnePlace(to) === isOfOnePlace(voicing))
    .map((one) => ({ ...one, ms: needsMs(from, one.voicing, limits).ms }))
    .filter(({ voicing }) => !next || perMinute(beats, needsMs(voicing, next, limits).ms) >= comfortable)
    .sort((a, b) => a.ms - b.ms)[0]
}
