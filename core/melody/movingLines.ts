import { firstOf, itemAt } from '../lists'
import { barName } from '../chart/chart'
import type { ChordSymbol } from '../chord/symbol'
import { fingersAnew, handPlace, handTravelMm, type HandPlace } from '../leading/measures'
import { STOPPED } from '../leading/lead'
import { weightsFrom, type Weights } from '../leading/weights'
import { fretFor } from '../neck/instrument'
import { modulo, pitchName, plainSpelling } from '../pitch/note'
import { bad, good, type Fault, type Result } from '../result'
import { whyNoNote } from './whyNoHarmony'
import type { Limits } from '../voicing/gripLimits'
import { voicingOf, type Voicing } from '../voicing/voicing'
import { Clock, NEAR, sungIn, type Sung } from './clock'
import { highUpPrice } from './highUp'
import {
  placeKey,
  SILENT,
  type HarmonisedLine,
  type HarmonisedNote,
  type HarmoniseProblem,
} from './melodyLine'
import { lowerLine, type LowerNote } from './lowerLine'

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

/**
 * Both lines on the neck: a string for every note, those that sound on staying where they are as
 * far as a hand can.
 */
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
      const { upper } = itemAt(events, stuck)
      const where = barName(clock.place(itemAt(events, stuck).from).bar)
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
        noteOf(event, itemAt(grips, at), clock, fixed.has(placeKey(clock.place(event.from)))),
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
    .filter((time, at, all) => at === 0 || time - itemAt(all, at - 1) > NEAR)
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
  let states = firstOf(layers).map((held): Reached => ({ held, cost: held.own * weights.grip, before: null }))
  for (let at = 1; at < events.length; at += 1) {
    const event = itemAt(events, at)
    states = itemAt(layers, at).map((held): Reached => {
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

/**
 * What is said is what the lower voice does here; a melody note over a tone that goes on is said to
 * move over it.
 */
function saidOf({ upper, lower, lowerGoesOn }: VoiceEvent, alone: boolean): HarmonisedNote['kind'] {
  if (!upper) return 'chord in a rest'
  if (alone) return 'single note'
  return lowerGoesOn && !lower!.kind.startsWith('suspension') ? 'held grip' : lower!.kind
}
