import { useState } from 'react'
import { NEAR, type Clock } from '../../../core/melody/clock'
import { pitchNear, pitchOfLetter, withChanged, withNote, withRest } from '../../../core/melody/entry'
import { quantised, type Grid } from '../../../core/melody/melody'
import type { Chart } from '../../../core/chart/chart'
import type { Key } from '../../../core/pitch/key'
import { midiOf, pitchName, type Pitch } from '../../../core/pitch/note'
import type { MelodyNote } from '../../../core/reharm/melodyFit'
import type { TuneEdit } from '../tune/document'
import { keep } from './applyMelody'

/** Lengths a note can have, in quarter notes, the key that picks each, and its name. */
export const LENGTHS = [
  { quarters: 4, key: '1', name: 'Whole' }, { quarters: 2, key: '2', name: 'Half' }, { quarters: 1, key: '3', name: 'Quarter' }, { quarters: 0.5, key: '4', name: 'Eighth' }, { quarters: 0.25, key: '5', name: '16th' },
] as const

export interface Pen {
  on: boolean
  quarters: number
  dotted: boolean
  triplet: boolean
  /** Parts of a beat that a click, a note played in, and "put on the grid" go to. */
  grid: Grid
  /** Where the next note comes, in beats of the first metre from the beginning; null for the end of the melody. */
  caret: number | null
}

interface Asked {
  chart: Chart
  clock: Clock
  notes: readonly MelodyNote[]
  songKey: Key
  onEdit: (edit: TuneEdit) => void
  onHear: (midis: readonly number[]) => void
  onSelect: (key: string | null) => void
}

/** Putting a melody in by keys, on the staff and on the neck: a pen with a length, and a caret that goes on behind each note. */
export function useWriting({ chart, clock, notes, songKey, onEdit, onHear, onSelect }: Asked) {
  const [pen, setPen] = useState<Pen>({ on: false, quarters: 1, dotted: false, triplet: false, grid: 4, caret: null })
  const end = notes.reduce((last, note) => { const at = clock.at(note); return Number.isNaN(at) ? last : Math.max(last, at + clock.lasts(note.bar, note.beats)) }, 0)
  const caret = Math.min(pen.caret ?? end, Math.max(0, clock.end - NEAR))
  const place = clock.place(caret)
  const bar = chart.bars.find(({ number }) => number === place.bar)
  const beats = ((pen.quarters * (bar?.meter.unit ?? 4)) / 4) * (pen.dotted ? 1.5 : 1) * (pen.triplet ? 2 / 3 : 1)
  const lasts = clock.lasts(place.bar, beats)
  const before = notes.findLast((note) => clock.at(note) < caret - NEAR) ?? null
  const change = (set: Partial<Pen>) => setPen((now) => ({ ...now, ...set }))
  const write = (melody: readonly MelodyNote[], did: string) => onEdit({ kind: 'melody', melody: melody.map(keep), did: did.slice(0, 80) })
  const where = (one: { bar: number }) => (one.bar === 0 ? 'the upbeat' : `bar ${one.bar}`)

  /** Puts a pitch at the caret, or at a place of its own, and goes on behind it. */
  const put = (pitch: Pitch, at: { bar: number; beat: number } = place) => {
    if (chart.bars.length === 0) return
    const time = clock.at(at)
    write(withNote(chart, notes, { ...at, beats, note: pitch }), `${pitchName(pitch)} in ${where(at)}`)
    onHear([midiOf(pitch)])
    change({ caret: Math.min(clock.end, time + clock.lasts(at.bar, beats)) })
  }
  const putRest = () => {
    write(withRest(chart, notes, place, beats), `rest in ${where(place)}`)
    change({ caret: Math.min(clock.end, caret + lasts) })
  }
  const changeBefore = (edit: (note: MelodyNote) => MelodyNote | null, did: string) => {
    if (!before) return
    const changed = edit(before)
    write(withChanged(notes, before, () => changed), `${did} in ${where(before)}`)
    if (changed) onHear([midiOf(changed.note)])
    else change({ caret: clock.at(before) })
  }

  /** Keys while notes are put in; true when one was used. */
  const onKey = (event: Pick<KeyboardEvent, 'key' | 'shiftKey'>): boolean => {
    if (!pen.on) return false
    const { key, shiftKey } = event
    const length = LENGTHS.find((one) => one.key === key)
    if (length) { change({ quarters: length.quarters }); return true }
    if (/^[a-g]$/i.test(key)) { put(pitchOfLetter('cdefgab'.indexOf(key.toLowerCase()), songKey, before?.note ?? null)); return true }
    switch (key) {
      case 'ArrowUp': case 'ArrowDown': {
        const up = key === 'ArrowUp'
        changeBefore((note) => ({ ...note, note: shiftKey ? { ...note.note, octave: note.note.octave + (up ? 1 : -1) } : pitchNear(midiOf(note.note) + (up ? 1 : -1), songKey, up) }), `${up ? 'up' : 'down'} ${shiftKey ? 'an octave' : 'a half step'}`)
        return true
      }
      case 'ArrowLeft': change({ caret: Math.max(0, caret - lasts) }); return true
      case 'ArrowRight': change({ caret: Math.min(clock.end, caret + lasts) }); return true
      case '.': change({ dotted: !pen.dotted }); return true
      case 't': case 'T': change({ triplet: !pen.triplet }); return true
      case 'r': case 'R': case '0': putRest(); return true
      case '=': case '+': changeBefore((note) => ({ ...note, beats: note.beats + beats }), 'longer note'); change({ caret: Math.min(clock.end, caret + lasts) }); return true
      case 'Backspace': case 'Delete': changeBefore(() => null, 'note taken out'); return true
      case 'Escape': case 'Enter': change({ on: false }); if (before) onSelect(null); return true
    }
    return false
  }
  const ontoGrid = () => write(quantised(chart, notes, pen.grid), `melody put on ${pen.grid === 1 ? 'beats' : `1/${pen.grid} beats`}`)
  const offGrid = notes.filter((note) => { const at = clock.at(note); return !Number.isNaN(at) && Math.abs(at * pen.grid - Math.round(at * pen.grid)) > 1e-3 }).length
  return { pen, change, caret, place, beats, put, putRest, onKey, write, ontoGrid, offGrid }
}
export type Writing = ReturnType<typeof useWriting>
