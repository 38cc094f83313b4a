import { itemAt, theOne } from '../lists'
import { homeKey } from '../analysis/analyse'
import type { ChordSymbol } from '../chord/symbol'
import { scaleNotes } from '../pitch/key'
import { modulo, pitchClass, type Note } from '../pitch/note'
import { Clock, NEAR, sungIn, type Sung } from './clock'
import { chordPlacesInTime, type HarmoniseProblem, type LowerKind } from './melodyLine'

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

/**
 * The lower voice keeps at least a minor third and at most two octaves and a third below the
 * melody, and above the lowest string; it moves no further than a sixth at once.
 */
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
 * Two lines: the melody, and under it one voice in a rhythm of its own. It takes a tone of each
 * chord, thirds, sixths and tenths below the melody before others; holds the tone before as a
 * suspension (4-3, 7-6, 9-8 over the bass of the chord) where it can resolve down by step; and
 * passes by step where the next tone lies a third away. After the second and fourth species of
 * counterpoint (Fux, Gradus ad Parnassum, from memory): a suspension is prepared by a consonance,
 * struck by none, and falls by step; a passing note is weak, reached and left by step in one
 * direction.
 */
export function lowerLine(
  { chart, melody, places = chordPlacesInTime(chart), limits }: HarmoniseProblem,
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
        const step = moveTo(before, midi, itemAt(spans, at - 1), span, scale)
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
  const tone = theOne(chord.tones, ({ note }) => pitchClass(note) === midi % 12)
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

/**
 * The cheapest way to a tone: held over as a suspension, through a passing note, or at once; null
 * where it would leap too far.
 */
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

/**
 * A tone that was consonant, is none of the new chord's, and falls by step to one of them: by its
 * step over the bass a 4-3, a 7-6 or a 9-8.
 */
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

/**
 * The note of the scale between two tones a third apart, where the chord left has room for it on a
 * weak beat; null where there is none.
 */
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
    const span = itemAt(spans, state.at!)
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
