import { constraintsOf } from './conditions'
import type { LeadingAsked, LinesQuestion } from './linesQuestion'
import { figureOfBar } from './accompaniment'
import type { Chart, Slot } from '../chart/chart'
import { groupedBy } from '../grouped'
import { timesInto } from '../rhythm/handTempo'
import type { Constraint } from '../leading/constraints'
import type { Cycle } from '../rhythm/figures'
import { STAYS, type TuneDocument } from './document'
import { gripHere } from './keptGrips'
import type { LineChord } from './decisions'
import { madeChord, plainChord, type TuneChord } from './tuneReading'
import { limitsFor, type PlayerBody } from '../player/playerLimits'
import type { Voicing } from '../voicing/voicing'

/** How many lines are looked for. */
export const LINES_WANTED = 5

const AS_NAMED: LeadingAsked = {
  weights: null,
  loop: false,
  window: null,
  drone: null,
  contour: null,
  texture: null,
}

type MadeForLines = Pick<TuneDocument, 'fixed' | 'bass' | 'style' | 'conditions' | 'leading'> &
  Partial<Pick<TuneDocument, 'grips' | 'gripsOn' | 'line' | 'rhythm'>>

/** A figure that parts a thumb from the voices above, and has it go to a second low note. */
const wantsThumb = (cycle: Cycle | null): boolean => cycle?.hits.some(({ part }) => part === 'fifth') ?? false

/**
 * What the figures of tune, sections and bars ask of the grips, for each run of chords that is
 * asked alike.
 */
function askedByFigures(
  rhythm: TuneDocument['rhythm'],
  sounding: readonly LineChord[],
  bars: Chart['bars'],
): Constraint[] {
  const figureOf = figureOfBar(rhythm)
  const parted = new Set(bars.filter((bar) => wantsThumb(figureOf(bar))).map(({ number }) => number))
  const asked: Constraint[] = []
  sounding.forEach(({ slot }, at) => {
    if (!parted.has(slot.bar)) return
    const last = asked.at(-1)
    if (last?.to === at - 1) last.to = at
    else asked.push({ kind: 'thumb', from: at, to: at })
  })
  return asked
}

/**
 * At the tempo that is written, with the figures that are set: the time the hand has to get to each
 * chord.
 */
function inTime(
  chart: Chart,
  sounding: readonly LineChord[],
  rhythm: TuneDocument['rhythm'] | undefined,
): Pick<LinesQuestion, 'times'> {
  if (chart.tempo === null) return {}
  const inBar = groupedBy(sounding, ({ slot }) => slot.bar)
  const bars = chart.bars.map((bar) => ({
    ...bar,
    slots: (inBar.get(bar.number) ?? []).map((one): Slot => ({
      ...one.slot,
      symbol: { kind: 'chord', chord: madeChord(one)! },
    })),
  }))
  const times = timesInto(
    { ...chart, bars },
    rhythm ? figureOfBar(rhythm) : null,
    chart.tempo,
    rhythm?.restart,
  )
  return times.length === sounding.length ? { times } : {}
}

/** The chords of the home line. */
const homeOf = (bars: Chart['bars']): string[] =>
  bars.flatMap(({ slots }) =>
    slots.flatMap(({ symbol }) => (symbol?.kind === 'chord' ? [symbol.chord.canonical] : [])),
  )

/**
 * The lines of what is made: led around the grips by hand, or, where the line stays, around every
 * grip it has.
 */
export function newQuestion(
  sounding: readonly LineChord[],
  made: MadeForLines,
  chart: Chart,
  body: PlayerBody,
): LinesQuestion | null {
  if (sounding.length === 0) return null
  const { capo, bars } = chart
  const strings = body.instrument.tuning.length
  const limits = limitsFor(body, capo, made.bass)
  const around = {
    fixed: made.fixed,
    style: made.style,
    leading: made.leading,
    grips: made.line === STAYS ? (made.grips ?? {}) : {},
    ...(made.gripsOn ? { gripsOn: made.gripsOn } : {}),
  }
  const fixed = sounding.flatMap((chord, at): LinesQuestion['fixed'] => {
    const frets = gripHere(around, chord, madeChord(chord)!, limits)
    return frets ? [[at, [...frets]]] : []
  })
  const { own, loop, window, drone, contour, texture } = made.leading
  return {
    symbols: sounding.map((chord) => madeChord(chord)!.canonical),
    home: homeOf(bars),
    ...inTime(chart, sounding, made.rhythm),
    fixed,
    bass: made.bass,
    capo,
    style: made.style,
    count: LINES_WANTED,
    body,
    constraints: [
      ...constraintsOf(made.conditions, sounding, strings),
      ...(made.rhythm ? askedByFigures(made.rhythm, sounding, bars) : []),
    ],
    leading: {
      weights: own?.weights ?? null,
      loop,
      window,
      drone: drone && 'string' in drone && drone.string >= strings ? null : drone,
      contour: made.style === 'top' || own ? contour : null,
      texture,
    },
  }
}

/** The plain version is heard in its own smooth grips, with the roots below. */
export function plainQuestion(
  sounding: readonly TuneChord[],
  capo: number,
  body: PlayerBody,
): LinesQuestion | null {
  if (sounding.length === 0) return null
  return {
    symbols: sounding.map((chord) => plainChord(chord)!.canonical),
    fixed: [],
    bass: 'chord',
    capo,
    style: 'smooth',
    leading: AS_NAMED,
    count: 1,
    body,
    constraints: [],
  }
}

/** A few chords heard by themselves. */
export const excerptQuestion = (
  symbols: string[],
  fixed: LinesQuestion['fixed'],
  made: Pick<TuneDocument, 'bass' | 'style'>,
  capo: number,
  body: PlayerBody,
): LinesQuestion => ({
  symbols,
  fixed,
  bass: made.bass,
  capo,
  style: made.style,
  leading: AS_NAMED,
  count: 1,
  body,
  constraints: [],
})

/** Grips of one chord by how they lie between their neighbours. */
export function nearQuestion(
  focus: LineChord,
  sounding: readonly LineChord[],
  voicings: ReadonlyMap<string, Voicing>,
  bass: 'chord' | 'any',
  capo: number,
  body: PlayerBody,
) {
  const at = sounding.indexOf(focus)
  const midisOf = (chord: LineChord | undefined) => {
    const voicing = chord && voicings.get(chord.key)
    return voicing ? [...voicing.midis] : null
  }
  return {
    symbol: madeChord(focus)!.canonical,
    bass,
    capo,
    before: midisOf(sounding[at - 1]),
    after: midisOf(sounding[at + 1]),
    body,
  }
}
