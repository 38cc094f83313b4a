import { lastOf } from '../../../core/lists'
import { barName, type Chart } from '../../../core/chart/chart'
import { Clock, NEAR } from '../../../core/melody/clock'
import {
  canBeWritten,
  pitchNear,
  pitchOfLetter,
  withChanged,
  withLonger,
  withNote,
  withRest,
} from '../../../core/melody/entry'
import type { Grid } from '../../../core/melody/melody'
import type { Key } from '../../../core/pitch/key'
import { midiOf, pitchName, type Pitch } from '../../../core/pitch/note'
import type { MelodyNote } from '../../../core/reharm/melodyFit'

/** Lengths a note can have, in quarter notes, the key that picks each, and its name. */
export const LENGTHS = [
  { quarters: 4, key: '1', name: 'Whole' },
  { quarters: 2, key: '2', name: 'Half' },
  { quarters: 1, key: '4', name: 'Quarter' },
  { quarters: 0.5, key: '8', name: 'Eighth' },
  { quarters: 0.25, key: '6', name: '16th' },
] as const

export interface Pen {
  on: boolean
  quarters: number
  dotted: boolean
  triplet: boolean
  /** Parts of a beat that a click, a note played in, and "put on the grid" go to. */
  grid: Grid
  /**
   * Where the next note comes, in beats of the first metre from the beginning; null for the end of
   * the melody.
   */
  caret: number | null
}
export const NEW_PEN: Pen = { on: false, quarters: 1, dotted: false, triplet: false, grid: 4, caret: null }

/** The sheet that is written on. */
export interface Paper {
  chart: Chart
  clock: Clock
  notes: readonly MelodyNote[]
  songKey: Key
}

/** What a stroke of the pen does. */
export interface PenStroke {
  pen: Partial<Pen>
  /** The melody it makes, and what was done in a few words; null where the melody stays. */
  written: { notes: MelodyNote[]; did: string } | null
  heard: Pitch | null
  /** Why nothing was written, if so. */
  says: string | null
}
const NOTHING: PenStroke = { pen: {}, written: null, heard: null, says: null }

/** Where the melody ends, in beats of the first metre. */
export const melodyEndOf = ({ clock, notes }: Pick<Paper, 'clock' | 'notes'>): number =>
  Math.min(
    clock.end,
    notes.reduce((last, note) => {
      const at = clock.at(note)
      return Number.isNaN(at) ? last : Math.max(last, at + clock.lasts(note.bar, note.beats))
    }, 0),
  )

/** Where the pen stands, from 0 to the end of the last bar, where nothing more can be put. */
export function penPlace(pen: Pen, { chart, clock, notes }: Paper) {
  const caret = Math.max(0, Math.min(pen.caret ?? melodyEndOf({ clock, notes }), clock.end))
  const atEnd = clock.end > 0 && caret > clock.end - NEAR
  const place = clock.place(atEnd ? Math.max(0, clock.end - NEAR * 10) : caret)
  const meter = chart.bars.find(({ number }) => number === place.bar)?.meter
  const beats = ((pen.quarters * (meter?.unit ?? 4)) / 4) * (pen.dotted ? 1.5 : 1) * (pen.triplet ? 2 / 3 : 1)
  return {
    caret,
    atEnd,
    place,
    beats,
    lasts: clock.lasts(place.bar, beats),
    before: notes.findLast((note) => clock.at(note) < caret - NEAR) ?? null,
  }
}

const inBar = ({ bar }: { bar: number }): string => (bar === 0 ? 'the upbeat' : `bar ${bar}`)
/**
 * Where the pen is taken up: behind the melody, or, where that fills the tune, at a note that is
 * selected, else at the beginning.
 */
export function takenUp(
  pen: Pen,
  paper: Paper,
  selected: { bar: number; beat: number } | null,
): Partial<Pen> {
  if (!penPlace(pen, paper).atEnd) return { on: true }
  const at = selected ? paper.clock.at(selected) : 0
  return { on: true, caret: Number.isNaN(at) ? 0 : at }
}

/** A pitch put at the caret, or at a place of its own; the caret goes on behind it. */
export function putNote(pen: Pen, paper: Paper, pitch: Pitch, at?: { bar: number; beat: number }): PenStroke {
  const { clock, chart, notes } = paper
  const { place, beats, atEnd } = penPlace(pen, paper)
  const here = at ?? place
  if (chart.bars.length === 0)
    return { ...NOTHING, says: 'There are no bars to write in yet: type chords on the Chart step.' }
  if (at ? !(clock.at(at) < clock.end - NEAR) : atEnd) return { ...NOTHING, says: atTheEnd(chart) }
  if (!canBeWritten(pitch)) return { ...NOTHING, says: 'That is as far as pitches go.' }
  return {
    pen: { caret: Math.min(clock.end, clock.at(here) + clock.lasts(here.bar, beats)) },
    written: {
      notes: withNote(chart, notes, { ...here, beats, note: pitch }),
      did: `${pitchName(pitch)} in ${inBar(here)}`,
    },
    heard: pitch,
    says: null,
  }
}

const atTheEnd = (chart: Chart): string =>
  `The tune ends here, after ${barName(lastOf(chart.bars).number)}: go back with ← or Home to write over what is there, or add bars on the Chart step.`

function changeBefore(
  pen: Pen,
  paper: Paper,
  edit: (note: MelodyNote) => MelodyNote | null,
  did: string,
): PenStroke {
  const { before } = penPlace(pen, paper)
  if (!before) return { ...NOTHING, says: 'There is no note before this place.' }
  const changed = edit(before)
  if (changed && !canBeWritten(changed.note)) return { ...NOTHING, says: 'That is as far as pitches go.' }
  return {
    pen: changed ? {} : { caret: paper.clock.at(before) },
    written: { notes: withChanged(paper.notes, before, () => changed), did: `${did} in ${inBar(before)}` },
    heard: changed?.note ?? null,
    says: null,
  }
}

/** What a key does while notes are put in; null where it does nothing. */
export function keyStroke(
  pen: Pen,
  paper: Paper,
  { key, shiftKey }: { key: string; shiftKey: boolean },
): PenStroke | null {
  const { clock, chart, notes, songKey } = paper
  const { caret, lasts, beats, before, place, atEnd } = penPlace(pen, paper)
  const length = LENGTHS.find((one) => one.key === key)
  if (length) return { ...NOTHING, pen: { quarters: length.quarters } }
  if (/^[a-g]$/i.test(key))
    return putNote(
      pen,
      paper,
      pitchOfLetter('cdefgab'.indexOf(key.toLowerCase()), songKey, before?.note ?? null),
    )
  switch (key) {
    case 'ArrowUp':
    case 'ArrowDown': {
      const up = key === 'ArrowUp'
      return changeBefore(
        pen,
        paper,
        (note) => ({
          ...note,
          note: shiftKey
            ? { ...note.note, octave: note.note.octave + (up ? 1 : -1) }
            : pitchNear(midiOf(note.note) + (up ? 1 : -1), songKey, up),
        }),
        `${up ? 'up' : 'down'} ${shiftKey ? 'an octave' : 'a half step'}`,
      )
    }
    case 'ArrowLeft':
      return { ...NOTHING, pen: { caret: Math.max(0, caret - lasts) } }
    case 'ArrowRight':
      return { ...NOTHING, pen: { caret: Math.min(clock.end, caret + lasts) } }
    case 'PageUp':
    case 'PageDown':
      return { ...NOTHING, pen: { caret: clock.barAway(caret, key === 'PageDown' ? 1 : -1) } }
    case 'Home':
      return { ...NOTHING, pen: { caret: 0 } }
    case 'End':
      return { ...NOTHING, pen: { caret: melodyEndOf(paper) } }
    case '.':
      return { ...NOTHING, pen: { dotted: !pen.dotted } }
    case 't':
    case 'T':
      return { ...NOTHING, pen: { triplet: !pen.triplet } }
    case 'r':
    case 'R':
    case '0':
      if (chart.bars.length === 0 || atEnd)
        return {
          ...NOTHING,
          says:
            chart.bars.length === 0
              ? 'There are no bars to write in yet: type chords on the Chart step.'
              : atTheEnd(chart),
        }
      return {
        pen: { caret: Math.min(clock.end, caret + lasts) },
        written: { notes: withRest(chart, notes, place, beats), did: `rest in ${inBar(place)}` },
        heard: null,
        says: null,
      }
    case '=':
    case '+': {
      if (!before) return { ...NOTHING, says: 'There is no note before this place.' }
      const longer = withLonger(chart, notes, before, clock.beatsIn(before.bar, lasts))
      if (!longer)
        return {
          ...NOTHING,
          says: 'The note cannot be longer: another one, or the end of the tune, comes there.',
        }
      return {
        pen: { caret: clock.at(before) + clock.lasts(before.bar, longer.beats) },
        written: { notes: longer.melody, did: `longer note in ${inBar(before)}` },
        heard: null,
        says: null,
      }
    }
    case 'Backspace':
    case 'Delete':
      return changeBefore(pen, paper, () => null, 'note taken out')
    case 'Escape':
    case 'Enter':
      return { ...NOTHING, pen: { on: false } }
  }
  return null
}

/** Where two melodies first differ, in beats of the first metre; null where they do not. */
export function firstDifference(
  clock: Clock,
  before: readonly MelodyNote[],
  after: readonly MelodyNote[],
): number | null {
  const at = Array.from({ length: Math.max(before.length, after.length) }).findIndex(
    (_, index) => !same(before[index], after[index]),
  )
  if (at < 0) return null
  const times = [before[at], after[at]]
    .flatMap((note) => (note ? [clock.at(note)] : []))
    .filter((time) => !Number.isNaN(time))
  return times.length > 0 ? Math.min(...times) : null
}
const same = (a: MelodyNote | undefined, b: MelodyNote | undefined): boolean =>
  a !== undefined &&
  b !== undefined &&
  a.bar === b.bar &&
  a.beat === b.beat &&
  a.beats === b.beats &&
  pitchName(a.note) === pitchName(b.note)
