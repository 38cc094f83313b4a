import { barName } from '../chart/chart'
import { homeKey } from '../analysis/analyse'
import type { ChordSymbol } from '../chord/symbol'
import { fingersAnew, handPlace, handTravelMm, type HandPlace } from '../leading/measures'
import { STOPPED } from '../leading/lead'
import { weightsFrom, type Weights } from '../leading/weights'
import { fretFor } from '../neck/instrument'
import { scaleNotes } from '../pitch/key'
import { modulo, pitchClass, pitchName, plainSpelling, type Note } from '../pitch/note'
import { bad, good, type Fault, type Result } from '../result'
import { whyNoNote } from './whyNone'
import type { Limits } from '../voicing/limits'
import { voicingOf, type Voicing } from '../voicing/voicing'
import { Clock, NEAR, sungIn, type Sung } from './clock'
import { highUpPrice } from './highUp'
import {
  placeKey,
  placesOf,
  SILENT,
  type HarmonisedLine,
  type HarmonisedNote,
  type HarmoniseProblem,
  type LowerKind,
} from './line'

/** A note of the lower line in its time, in beats of the metre the tune begins with. */
export interface LowerNote {
  from: number
  to: number
  midi: number
  kind: LowerKind
  chord: ChordSymbol
}

interface VoiceSpan {
  from: number
  to: number
  chord: ChordSymbol
  /** Melody notes that sound in it. */ over: readonly Sung[]
}

/** The lower voice keeps at least a minor third and at most two octaves and a third below the melody, and above the lowest string; it moves no further than a sixth at once. */
const NEAREST = 3
const FURTHEST = 28
const LARGEST_STEP = 9
/** A note that resolves or passes needs so many beats of its chord. */
const ROOM = 2

/** What things cost, in semitones of motion (common practice, no source). */
const PRICE = {
  /** For each semitone further than a tenth below the melody. */
  far: 0.15,
  perfect: 1.5,
  rough: 2.5,
  root: 0.6,
  fifth: 0.9,
  similar: 0.6,
  parallelPerfect: 6,
  leap: 0.5,
  suspension: -1.5,
  passing: -1.2,
  repeatedTone: 0.8,
  usedBefore: 1.2,
} as const

/**
 * Two lines: the melody, and under it one voice in a rhythm of its own. It takes a tone of each chord, thirds, sixths and tenths below the melody before others; holds
 * the tone before as a suspension (4-3, 7-6, 9-8 over the bass of the chord) where it can resolve down by step; and passes by step where the next tone lies a third away. After
 * the second and fourth species of counterpoint (Fux, Gradus ad Parnassum, from memory): a suspension is prepared by a consonance, struck by none, and falls by step;
 * a passing note is weak, reached and left by step in one direction.
 */
export function lowerLine(
  { chart, melody, places = placesOf(chart), limits }: HarmoniseProblem,
  used: ReadonlySet<string> = new Set(),
): LowerNote[] {
  const clock = new Clock(chart)
  const sung = sungIn(clock, melody)
  const spans = places.flatMap((place): VoiceSpan[] => {
    if (!place.chord) return []
    const from = clock.at(place)
    const to = from + clock.lasts(place.bar, place.beats)
    return [
      {
        from,
        to,
        chord: place.chord,
        over: sung.filter((one) => one.from < to - NEAR && one.to > from + NEAR),
      },
    ]
  })
  const scale = scaleNotes(homeKey(chart))
  const lowest = Math.min(...limits.instrument.tuning) + limits.instrument.capo
  let states: VoiceState[] = []
  for (const [at, span] of spans.entries()) {
    const tones = tonesFor(span, lowest)
    const next = tones.map((midi): VoiceState => {
      const own = priceOf(midi, span) + (used.has(`${at}:${midi}`) ? PRICE.usedBefore : 0)
      let best: VoiceState = { cost: own, midi, before: null, move: null }
      let least = Infinity
      for (const before of states) {
        const step = moveTo(before, midi, spans[at - 1]!, span, scale)
        if (step && before.cost + step.cost < least) {
          least = before.cost + step.cost
          best = { cost: least + own, midi, before, move: step.move }
        }
      }
      return states.length === 0 || least < Infinity
        ? best
        : {
            ...best,
            cost: (Math.min(...states.map(({ cost }) => cost)) || 0) + own + LARGEST_STEP * 2,
            before: states.reduce((one, other) => (other.cost < one.cost ? other : one)),
          }
    })
    if (next.length > 0) states = next.map((state) => ({ ...state, at }))
  }
  const way: VoiceState[] = []
  for (
    let state: VoiceState | null =
      states.length > 0 ? states.reduce((best, one) => (one.cost < best.cost ? one : best)) : null;
    state;
    state = state.before
  )
    way.unshift(state)
  return written(way, spans)
}

interface VoiceState {
  cost: number
  midi: number
  before: VoiceState | null
  move: Move | null
  at?: number
}
/** How a tone is reached from the one before. */
type Move =
  { kind: 'direct' } | { kind: 'suspension'; name: LowerKind } | { kind: 'passing'; through: number }

/** Tones of a chord that lie well below every melody note over it. */
function tonesFor({ chord, over }: VoiceSpan, lowest: number): number[] {
  const top = over.length > 0 ? Math.min(...over.map(({ midi }) => midi)) : 67
  const high = over.length > 0 ? Math.max(...over.map(({ midi }) => midi)) : 67
  const sounds = new Set(chord.tones.map(({ note }) => pitchClass(note)))
  return Array.from({ length: Math.max(0, top - NEAREST - lowest + 1) }, (_, at) => lowest + at).filter(
    (midi) => sounds.has(midi % 12) && high - midi <= FURTHEST,
  )
}

const GUIDES: readonly string[] = ['3', 'b3', '4', '7', 'b7', 'bb7', '6']

function priceOf(midi: number, { chord, over }: VoiceSpan): number {
  const tone = chord.tones.find(({ note }) => pitchClass(note) === midi % 12)!
  const first = over[0]
  const apart = first ? first.midi - midi : 15
  const interval = modulo(apart, 12)
  const harsh = [0, 7].includes(interval) ? PRICE.perfect : PRICE.rough
  const consonance = [3, 4, 8, 9].includes(interval) ? 0 : harsh
  const plain = tone.degree === '1' ? PRICE.root : PRICE.fifth
  return (
    (first ? consonance : 0) +
    Math.max(0, apart - 16) * PRICE.far +
    (GUIDES.includes(tone.degree) ? 0 : plain)
  )
}

/** The cheapest way to a tone: held over as a suspension, through a passing note, or at once; null where it would leap too far. */
function moveTo(
  from: VoiceState,
  to: number,
  before: VoiceSpan,
  span: VoiceSpan,
  scale: readonly Note[],
): { cost: number; move: Move } | null {
  const step = to - from.midi
  if (Math.abs(step) > LARGEST_STEP) return null
  const sung = (one: VoiceSpan) => one.over[0]?.midi
  const [a, b] = [sung(before), sung(span)]
  let cost =
    Math.abs(step) * 0.5 + (Math.abs(step) > 4 ? PRICE.leap : 0) + (step === 0 ? PRICE.repeatedTone : 0)
  if (a !== undefined && b !== undefined && step !== 0) {
    if ((b - a) * step > 0) cost += PRICE.similar
    if (
      (b - a) * step > 0 &&
      [0, 7].includes(modulo(b - to, 12)) &&
      modulo(b - to, 12) === modulo(a - from.midi, 12)
    )
      cost += PRICE.parallelPerfect
  }
  const suspension = suspensionIn(from.midi, to, span)
  if (suspension && from.move?.kind !== 'suspension')
    return { cost: cost + PRICE.suspension, move: { kind: 'suspension', name: suspension } }
  const through = passingIn(from.midi, to, before, scale)
  if (through !== null && (before.to - before.from >= 2 * ROOM - NEAR || from.move?.kind !== 'suspension'))
    return { cost: cost + PRICE.passing, move: { kind: 'passing', through } }
  return { cost, move: { kind: 'direct' } }
}

/** A tone that was consonant, is none of the new chord's, and falls by step to one of them: by its step over the bass a 4-3, a 7-6 or a 9-8. */
function suspensionIn(
  from: number,
  to: number,
  { chord, from: begins, to: ends, over }: Pick<VoiceSpan, 'chord' | 'from' | 'to' | 'over'>,
): LowerKind | null {
  if (ends - begins < ROOM - NEAR || from - to < 1 || from - to > 2) return null
  if (chord.tones.some(({ note }) => pitchClass(note) === from % 12)) return null
  if (over.some(({ midi, from: starts }) => midi - from < NEAREST && starts < (begins + ends) / 2))
    return null
  const above = modulo(to - pitchClass(chord.bass ?? chord.root), 12)
  if ((above === 3 && from - to === 2) || (above === 4 && from - to === 1)) return 'suspension 4-3'
  if (above === 8 || above === 9) return 'suspension 7-6'
  if (above === 0) return 'suspension 9-8'
  return null
}

/** The note of the scale between two tones a third apart, where the chord left has room for it on a weak beat; null where there is none. */
function passingIn(
  from: number,
  to: number,
  { from: begins, to: ends, chord, over }: VoiceSpan,
  scale: readonly Note[],
): number | null {
  if (ends - begins < ROOM - NEAR || Math.abs(to - from) < 3 || Math.abs(to - from) > 4) return null
  const direction = Math.sign(to - from)
  const sounds = new Set(scale.map(pitchClass))
  const between = [from + direction, from + 2 * direction, from + 3 * direction].filter(
    (midi) => (to - midi) * direction > 0 && Math.abs(to - midi) <= 2 && Math.abs(midi - from) <= 2,
  )
  const one = between.find((midi) => sounds.has(modulo(midi, 12)))
  if (one === undefined || chord.tones.some(({ note }) => pitchClass(note) === modulo(one, 12))) return null
  return over.some(({ midi, to: until }) => midi - one < 1 && until > ends - passingLength(begins, ends))
    ? null
    : one
}

/** A passing note takes the last beat of its chord, half of it where that is shorter. */
const passingLength = (from: number, to: number): number => Math.min(1, (to - from) / 2)
/** A suspension lasts half its chord, two beats at most. */
const suspensionLength = (from: number, to: number): number => Math.min(2, (to - from) / 2)

function written(way: readonly VoiceState[], spans: readonly VoiceSpan[]): LowerNote[] {
  const notes: LowerNote[] = []
  way.forEach((state, order) => {
    const span = spans[state.at!]!
    const next = way[order + 1]
    const { chord } = span
    let { from } = span
    const last = notes.at(-1)
    if (state.move?.kind === 'suspension' && last) {
      const until = from + suspensionLength(from, span.to)
      notes.push({ from, to: until, midi: last.midi, kind: state.move.name, chord })
      from = until
    }
    const passes = next?.move?.kind === 'passing' && next.at === state.at! + 1 ? next.move.through : null
    const until = passes === null ? span.to : span.to - passingLength(span.from, span.to)
    notes.push({
      from,
      to: until,
      midi: state.midi,
      kind: state.move?.kind === 'suspension' ? 'resolution' : 'chord tone',
      chord,
    })
    if (passes !== null) notes.push({ from: until, to: span.to, midi: passes, kind: 'passing note', chord })
  })
  return notes
}

/** Something that begins: a melody note, a note of the line below, or both. */
interface VoiceEvent {
  from: number
  to: number
  upper: Sung | null
  lower: LowerNote | null
  upperGoesOn: boolean
  lowerGoesOn: boolean
}

/** A grip of an event with its effort, and what led to it. */
interface Held {
  voicing: Voicing
  hand: HandPlace
  own: number
}
interface Reached {
  held: Held
  cost: number
  before: Reached | null
}

/** What it costs to find a sounding note on another string: it has to be struck again. */
const RESTRUCK = 4

/** Both lines on the neck: a string for every note, those that sound on staying where they are as far as a hand can. */
export function movingLines(problem: HarmoniseProblem): Result<HarmonisedLine[]> {
  const { chart, melody, limits, count = 1, fixed = new Map(), onProgress = () => true } = problem
  const clock = new Clock(chart)
  const sung = sungIn(clock, melody)
  if (sung.length === 0)
    return bad({
      code: 'no-melody',
      message: 'No melody note lies within the bars of the chart.',
      accepted: 'notes such as {"bar":1,"beat":1,"beats":1,"note":"E4"}',
      text: 'melody',
    })
  const weights = weightsFrom(problem.style ?? 'smooth', problem.weights)
  const used = new Set<string>()
  const found: HarmonisedLine[] = []
  for (let round = 0; round < count; round += 1) {
    if (!onProgress(round, count))
      return found.length > 0 ? good(found) : bad({ code: STOPPED, message: 'The search was stopped.' })
    const lower = lowerLine(problem, used)
    const key = lower.map(({ from, midi }) => `${from}:${midi}`).join()
    if (used.has(key)) break
    used.add(key)
    let span = -1
    let chord: ChordSymbol | null = null
    for (const one of lower) {
      if (one.chord !== chord || one.kind.startsWith('suspension')) {
        span += 1
        chord = one.chord
      }
      if (one.kind !== 'passing note') used.add(`${span}:${one.midi}`)
    }
    const events = eventsOf(sung, lower)
    const layers = events.map((event) =>
      gripsOf(event, limits, fixed.get(placeKey(clock.place(event.from)))?.frets ?? null),
    )
    const stuck = layers.findIndex((layer) => layer.length === 0)
    if (stuck >= 0) {
      const { upper } = events[stuck]!
      const where = barName(clock.place(events[stuck]!.from).bar)
      const nowhere = upper
        ? whyNoNote(upper.midi, pitchName(upper.note.note), where, limits, problem.limitNames)
        : null
      return bad({
        code: 'no-grip',
        text: 'melody',
        at: stuck,
        ...(nowhere ?? {
          message: `${upper ? pitchName(upper.note.note) : 'The lower line'} in ${where} cannot be held together with the other voice.`,
          accepted: 'the melody in another octave, or another texture',
        }),
      } as Fault)
    }
    const end = cheapestWay(events, layers, weights)
    const grips: Voicing[] = []
    for (let at: Reached | null = end; at; at = at.before) grips.unshift(at.held.voicing)
    found.push({
      cost: end.cost,
      notes: events.map((event, at) =>
        noteOf(event, grips[at]!, clock, fixed.has(placeKey(clock.place(event.from)))),
      ),
    })
  }
  return good(found.sort((a, b) => a.cost - b.cost))
}

function eventsOf(sung: readonly Sung[], lower: readonly LowerNote[]): VoiceEvent[] {
  // A suspension is the tone before held on: it does not begin.
  const begins = lower.filter(({ kind }, at) => at === 0 || !kind.startsWith('suspension'))
  const times = [...new Set([...sung.map(({ from }) => from), ...lower.map(({ from }) => from)])]
    .sort((a, b) => a - b)
    .filter((time, at, all) => at === 0 || time - all[at - 1]! > NEAR)
  return times
    .map((from, at): VoiceEvent => {
      const upper = sung.findLast((one) => one.from <= from + NEAR && one.to > from + NEAR) ?? null
      const below = lower.findLast((one) => one.from <= from + NEAR && one.to > from + NEAR) ?? null
      const to = Math.min(times[at + 1] ?? Infinity, Math.max(upper?.to ?? 0, below?.to ?? 0))
      return {
        from,
        to,
        upper,
        lower: below,
        upperGoesOn: upper !== null && upper.from < from - NEAR,
        lowerGoesOn: below !== null && !begins.some((one) => Math.abs(one.from - from) < NEAR),
      }
    })
    .filter(({ upper, lower: below }) => upper || below)
}

/** Every way to hold the one or two notes of an event. */
function gripsOf(
  { upper, lower }: VoiceEvent,
  limits: Limits,
  fixed: readonly (number | null)[] | null,
): Held[] {
  const {
    instrument,
    frets: [low, high],
    open,
  } = limits
  const chord = lower?.chord ?? SILENT
  const named =
    chord.tones.length > 0 ? chord : { ...SILENT, root: plainSpelling(modulo(upper?.midi ?? 0, 12)) }
  const held = (frets: readonly (number | null)[]): Held[] => {
    const voicing = voicingOf(frets, named, limits)
    return voicing
      ? [
          {
            voicing,
            hand: handPlace(voicing, instrument),
            own: voicing.fingering.difficulty + highUpPrice(voicing),
          },
        ]
      : []
  }
  if (fixed) return held(fixed)
  const on = (midi: number) =>
    instrument.tuning.flatMap((_, string) => {
      const fret = fretFor(instrument, string, midi)
      return fret === null || (fret === 0 ? !open : fret < low || fret > high) ? [] : [{ string, fret }]
    })
  const grip = (...places: { string: number; fret: number }[]) =>
    instrument.tuning.map((_, string) => places.find((one) => one.string === string)?.fret ?? null)
  const tops = upper ? on(upper.midi) : []
  const below = lower ? on(lower.midi) : []
  const both = tops.flatMap((top) =>
    below.filter(({ string }) => string < top.string).flatMap((under) => held(grip(top, under))),
  )
  // Where no hand has both, the melody goes on alone.
  return both.length > 0 ? both : (upper ? tops : below).flatMap((one) => held(grip(one)))
}

function cheapestWay(
  events: readonly VoiceEvent[],
  layers: readonly (readonly Held[])[],
  weights: Weights,
): Reached {
  let states = layers[0]!.map((held): Reached => ({ held, cost: held.own * weights.grip, before: null }))
  for (let at = 1; at < events.length; at += 1) {
    const event = events[at]!
    states = layers[at]!.map((held): Reached => {
      let best: Reached | null = null
      let least = Infinity
      for (const state of states) {
        const kept = (goesOn: boolean, midi: number | undefined) =>
          !goesOn || midi === undefined || placeOn(state.held.voicing, midi) === placeOn(held.voicing, midi)
        const cost =
          state.cost +
          weights.hand * handTravelMm(state.held.hand, held.hand) +
          weights.fingers * fingersAnew(state.held.hand, held.hand) +
          (kept(event.upperGoesOn, event.upper?.midi) ? 0 : RESTRUCK) +
          (kept(event.lowerGoesOn, event.lower?.midi) ? 0 : RESTRUCK)
        if (cost < least) {
          least = cost
          best = state
        }
      }
      return { held, cost: least + held.own * weights.grip, before: best }
    })
  }
  return states.reduce((best, one) => (one.cost < best.cost ? one : best))
}

const placeOn = (voicing: Voicing, midi: number): string | null => {
  const one = voicing.strings.find((string) => string.midi === midi)
  return one ? `${one.string}` : null
}

function noteOf(event: VoiceEvent, voicing: Voicing, clock: Clock, byHand: boolean): HarmonisedNote {
  const { from, to, upper, lower, upperGoesOn } = event
  const alone = voicing.midis.length === 1
  return {
    note: upper?.note ?? null,
    again: upperGoesOn,
    ...clock.place(from),
    beats: to - from,
    chord: lower?.chord ?? null,
    under: whatIsUnder(event, alone),
    kind: byHand ? 'by hand' : saidOf(event, alone),
    voicing,
  }
}

function whatIsUnder(
  { upper, lower, upperGoesOn, lowerGoesOn }: VoiceEvent,
  alone: boolean,
): HarmonisedNote['under'] {
  if (alone && upper) return upperGoesOn ? 'line' : 'single'
  if (!upper || !lower || upperGoesOn === lowerGoesOn) return 'chord'
  return upperGoesOn ? 'line' : 'held'
}

/** What is said is what the lower voice does here; a melody note over a tone that goes on is said to move over it. */
function saidOf({ upper, lower, lowerGoesOn }: VoiceEvent, alone: boolean): HarmonisedNote['kind'] {
  if (!upper) return 'chord in a rest'
  if (alone) return 'single note'
  return lowerGoesOn && !lower!.kind.startsWith('suspension') ? 'held grip' : lower!.kind
}
