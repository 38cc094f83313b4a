import { itemAt } from '../lists'
import { NEAR } from '../chart/beats'
import type { Bar } from '../chart/chart'
import type { Phrase } from '../melody/phrases'
import { fretFor, stringNumber, type Instrument } from '../neck/instrument'
import { scaleNotes, type Key } from '../pitch/key'
import { noteName, pitchClass } from '../pitch/note'
import type { Voicing } from '../voicing/voicing'

/** A place of the tune. */
interface WalkPlace {
  bar: number
  beat: number
}

/**
 * Chords that are walked through together, by their place in the line; on the last one the player
 * stays.
 */
export interface Walked {
  from: number
  to: number
}

/** Bars of a phrase where there is no melody to say. */
const PHRASE_BARS = 4

const before = (a: WalkPlace, b: WalkPlace): boolean =>
  a.bar < b.bar || (a.bar === b.bar && a.beat < b.beat - NEAR)

/**
 * A line phrase by phrase: by the melody's phrases, or four bars at a time from each section. What
 * lies between two phrases belongs to the first.
 */
export function walkOf(
  line: readonly WalkPlace[],
  bars: readonly Bar[],
  phrases: readonly Phrase[],
): Walked[] {
  if (line.length === 0) return []
  const begins = phrases.length > 0 ? phrases.map(({ from }) => from) : fours(bars)
  /** The chord that sounds where a phrase begins. */
  const first = begins.map((place) => {
    const after = line.findIndex((chord) => before(place, chord))
    return after < 0 ? line.length - 1 : Math.max(0, after - 1)
  })
  const cuts = [...new Set([0, ...first])].sort((a, b) => a - b)
  return cuts.map((from, at) => ({ from, to: (cuts[at + 1] ?? line.length) - 1 }))
}

function fours(bars: readonly Bar[]): WalkPlace[] {
  let count = 0
  return bars.flatMap((bar): WalkPlace[] => {
    if (bar.opensSection) count = 0
    const begins = count % PHRASE_BARS === 0
    if (bar.number > 0) count += 1
    return begins ? [{ bar: bar.number, beat: bar.from }] : []
  })
}

/** The note on top of a grip, and what lies a step above and below it on its string. */
export interface TopNote {
  name: string
  degree: string
  /** String by number, and fret. */
  string: number
  fret: number
  /** A step of the key up and down on that string; null past its ends. */
  above: { name: string; fret: number } | null
  below: { name: string; fret: number } | null
}

/** @param highest the highest fret of the neck */
export function topNoteOf(voicing: Voicing, key: Key, instrument: Instrument, highest: number): TopNote {
  const top = voicing.strings.reduce((most, one) => (one.midi > most.midi ? one : most))
  const scale = new Map(scaleNotes(key).map((note) => [pitchClass(note), note]))
  const step = (way: 1 | -1): TopNote['above'] => {
    for (const by of [1, 2, 3]) {
      const note = scale.get((top.midi + way * by + 12) % 12)
      const fret = note ? fretFor(instrument, top.string, top.midi + way * by) : null
      if (note) return fret === null || fret > highest ? null : { name: noteName(note), fret }
    }
    return null
  }
  return {
    name: noteName(top.note),
    degree: top.degree,
    string: stringNumber(top.string, voicing.frets.length),
    fret: itemAt(voicing.frets, top.string)!,
    above: step(1),
    below: step(-1),
  }
}
