import { entryOf, itemAt } from '../lists'
import { analyse } from '../analysis/analyse'
import { groupedBy } from '../grouped'
import { type Bar, type Chart, type Meter, type Slot } from '../chart/chart'
import { bassLine, type BassNote } from '../rhythm/bassLine'
import {
  EVERY_CHORD_ONCE,
  figureNamed,
  type Accent,
  type Cycle,
  type Feel,
  type Figure,
} from '../rhythm/figures'
import type { OwnHit, LaidHit } from '../rhythm/hit'
import { layFigure, type Laid } from '../rhythm/lay'
import { playedBars, type PlayedBar } from '../rhythm/playedTime'
import { STRAIGHT, SHUFFLE, swingAt } from '../rhythm/swing'
import { voicesOf } from '../rhythm/voices'
import { walkingStep } from '../rhythm/pulses'
import type { Voicing } from '../voicing/voicing'
import { melodyOf } from './applyMelody'
import type { LineChord } from './decisions'
import type { TuneDocument } from './document'
import { madeChord, plainChord, type TuneChord, type TuneReading } from './tuneReading'
import type { Rhythm } from './rhythmSchema'

/** A figure that is asked for; each chord once where the table has none of that name. */
export function cycleOf(figure: Rhythm['figure']): Cycle | Figure {
  const found = typeof figure === 'string' ? figureNamed(figure) : figure
  return found ?? EVERY_CHORD_ONCE
}

/**
 * The figure of each bar: its own, else the section's, else the tune's; null where the guitar
 * rests.
 */
export function figureOfBar({ figure, sections, bars }: Pick<Rhythm, 'figure' | 'sections' | 'bars'>) {
  const whole = cycleOf(figure)
  const named = new Map(
    Object.entries(sections).map(([name, one]) => [name, one === null ? null : cycleOf(one)]),
  )
  const single = new Map(
    Object.entries(bars).map(([bar, one]) => [Number(bar), one === null ? null : cycleOf(one)]),
  )
  return ({ section, number }: Pick<Bar, 'section' | 'number'>): Cycle | null => {
    if (single.has(number)) return entryOf(single, number)
    return section !== null && named.has(section) ? entryOf(named, section) : whole
  }
}

/**
 * Long : short at a tempo, as set or as the figure is made. @param tempo beats a minute of the
 * metre
 */
export function swingOf(
  { feel, figure }: Pick<Rhythm, 'feel' | 'figure'>,
  tempo: number,
  { unit }: Meter,
): number {
  if (typeof feel === 'number') return feel
  const cycle = cycleOf(figure)
  const made: Feel = 'feel' in cycle ? cycle.feel : 'straight'
  const wanted = feel === 'figure' ? made : feel
  if (wanted === 'swing') return swingAt((tempo * 4) / unit)
  return wanted === 'shuffle' ? SHUFFLE : STRAIGHT
}

/** A line of a tune as a chart of its own, with the chord of each slot. */
export interface LineChart {
  chart: Chart
  chordOf: ReadonlyMap<Slot, LineChord | TuneChord>
}

/** The new line, or the home line, as a chart: what figure and bass are laid on. */
export function chartOfLine({ chart, chords, line }: TuneReading, which: 'plain' | 'new'): LineChart {
  const chordOf = new Map<Slot, LineChord | TuneChord>()
  const all: readonly (LineChord | TuneChord)[] = which === 'new' ? line : chords
  const inBar = groupedBy(all, ({ slot }) => slot.bar)
  const bars = chart.bars.map((bar) => ({
    ...bar,
    slots: (inBar.get(bar.number) ?? []).map((one): Slot => {
      const chord =
        'decision' in one && which === 'new' ? madeChord(one as LineChord) : plainChord(one as TuneChord)
      const slot: Slot = {
        ...one.slot,
        text: chord?.canonical ?? one.slot.text,
        symbol: chord ? { kind: 'chord', chord } : one.slot.symbol,
      }
      chordOf.set(slot, one)
      return slot
    }),
  }))
  return { chart: { ...chart, bars }, chordOf }
}

/** A hit of the guitar with what it sounds. */
export interface GuitarHit extends LaidHit {
  /** The chord it belongs to, by its place in its line. */
  index: number
  key: string
  /** MIDI numbers, lowest first; empty where the chord has no grip. */
  midis: readonly number[]
  gaveWay: string | null
}

/** What a band plays of a tune, in beats of its first metre from the beginning, unswung. */
export interface Accompaniment {
  bars: readonly PlayedBar[]
  hits: GuitarHit[]
  laid: Laid
  bass: { time: number; lasts: number; note: BassNote }[]
  /** What marks the time: strong where a bar begins. */
  beats: { time: number; strong: boolean; brush: 'sweep' | 'tap' | null }[]
}

export interface AccompanimentQuestion {
  reading: TuneReading
  document: Pick<TuneDocument, 'rhythm' | 'melody'>
  /** The line the guitar plays, and the grip of each of its chords by key. */
  which: 'plain' | 'new'
  grips: ReadonlyMap<string, Pick<Voicing, 'midis' | 'strings'>>
  order?: 'played' | 'written'
}

export const handHits = ({ byHand }: Pick<Rhythm, 'byHand'>): ReadonlyMap<string, OwnHit | null> =>
  new Map(Object.entries(byHand))

/** A tune accompanied: the guitar by its figure, the bass and what marks the time. */
export function accompanied({
  reading,
  document,
  which,
  grips,
  order = 'played',
}: AccompanimentQuestion): Accompaniment {
  const { rhythm } = document
  const { chart, chordOf } = chartOfLine(reading, which)
  const bars = playedBars(chart, order)
  const laid = layFigure(chart, figureOfBar(rhythm), {
    restart: rhythm.restart,
    density: rhythm.density,
    seed: rhythm.seed,
    phrase: rhythm.phrase,
    melody: rhythm.listens ? melodyOf(document) : [],
    byHand: handHits(rhythm),
    order,
  })
  const gripOf = (hit: LaidHit) => grips.get(chordOf.get(hit.slot)?.key ?? '') ?? null
  const sounded = voicesOf(laid.hits, gripOf)
  const hits = laid.hits.map((hit, at): GuitarHit => {
    const chord = entryOf(chordOf, hit.slot)
    const { voices, gaveWay } = itemAt(sounded, at)
    const midis = gripOf(hit)?.midis ?? []
    return {
      ...hit,
      index: chord.index,
      key: chord.key,
      midis: voices.map((voice) => itemAt(midis, voice)),
      gaveWay,
    }
  })
  return { bars, hits, laid, bass: bassOf(reading, rhythm, bars), beats: beatsOf(rhythm.time, bars) }
}

function bassOf(
  reading: TuneReading,
  { bass: kind, band }: Rhythm,
  bars: readonly PlayedBar[],
): Accompaniment['bass'] {
  if (kind === 'none') return []
  const notes = bassWritten(reading, band, kind)
  return bars.flatMap(({ bar, from, scale }) =>
    (notes.get(bar.number) ?? []).map((note) => ({
      time: from + (note.beat - bar.from) * scale,
      lasts: note.beats * scale,
      note,
    })),
  )
}

const BASSES = new WeakMap<TuneReading, Map<string, ReadonlyMap<number, BassNote[]>>>()
/**
 * The bass by bar, worked out once for a reading: it stays the same under whatever figure, grips
 * and order are asked for.
 */
function bassWritten(
  reading: TuneReading,
  band: Rhythm['band'],
  kind: Exclude<Rhythm['bass'], 'none'>,
): ReadonlyMap<number, BassNote[]> {
  const known = BASSES.get(reading) ?? new Map<string, ReadonlyMap<number, BassNote[]>>()
  BASSES.set(reading, known)
  const asked = `${band} ${kind}`
  const before = known.get(asked)
  if (before) return before
  const { chart } = chartOfLine(reading, band)
  const notes = groupedBy(bassLine(chart, analyse(chart), kind), ({ bar }) => bar)
  known.set(asked, notes)
  return notes
}

function beatsOf(time: Rhythm['time'], bars: readonly PlayedBar[]): Accompaniment['beats'] {
  if (time === 'none') return []
  return bars.flatMap(({ bar, from, scale }) => {
    const step = walkingStep(bar.meter)
    const steps = Array.from({ length: Math.ceil(bar.meter.beats / step) }, (_, at) => 1 + at * step)
    return steps
      .filter((beat) => beat >= bar.from && beat < bar.from + bar.beats)
      .flatMap((beat): Accompaniment['beats'] => {
        const number = Math.round((beat - 1) / step)
        const isBack = number % 2 === 1
        const at = { time: from + (beat - bar.from) * scale, strong: beat === 1 }
        if (time === 'brushes') return [{ ...at, brush: isBack ? 'tap' : 'sweep' }]
        const sounds = time === 'every beat' || (time === 'one' ? beat === 1 : isBack)
        return sounds ? [{ ...at, brush: null }] : []
      })
  })
}

/** How hard a hit is struck, by its accent: above 0 to 1. */
export const VELOCITIES: Readonly<Record<Accent, number>> = { ghost: 0.4, plain: 0.72, accent: 1 }

/**
 * Something is chosen beside the plain grips: a figure, hits by hand, or somebody else who plays.
 */
export const isAccompanied = ({ figure, byHand, bass, time, sections, bars }: Rhythm): boolean =>
  figure !== null ||
  bass !== 'none' ||
  time !== 'none' ||
  Object.keys(byHand).length > 0 ||
  Object.keys(sections).length > 0 ||
  Object.keys(bars).length > 0
