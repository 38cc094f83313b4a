import { NEAR_WRITTEN } from '../../../core/chart/beats'
import { useEffect, useRef, useState } from 'react'
import type { Clock } from '../../../core/melody/clock'
import { quantised } from '../../../core/melody/melody'
import type { Chart } from '../../../core/chart/chart'
import type { Key } from '../../../core/pitch/key'
import { midiOf, type Pitch } from '../../../core/pitch/note'
import type { MelodyNote } from '../../../core/reharm/melodyFit'
import { keep } from '../../../core/tune/applyMelody'
import {
  firstDifference,
  keyStroke,
  NEW_PEN,
  putNote,
  penPlace,
  takenUp,
  type Pen,
  type PenStroke,
} from './pen'
import type { TuneEdit } from '../../../core/tune/tuneEdit'

interface WritingOf {
  chart: Chart
  clock: Clock
  notes: readonly MelodyNote[]
  songKey: Key
  onEdit: (edit: TuneEdit) => void
  onHear: (midis: readonly number[]) => void
  onSelect: (key: string | null) => void
}

/**
 * Putting a melody in by keys, on the staff and on the neck: a pen with a length, and a caret that
 * goes on behind each note.
 */
export function useWriting({ chart, clock, notes, songKey, onEdit, onHear, onSelect }: WritingOf) {
  const [pen, setPen] = useState<Pen>(NEW_PEN)
  const [says, setSays] = useState<string | null>(null)
  const paper = { chart, clock, notes, songKey }
  const { caret, atEnd, place, beats, before } = penPlace(pen, paper)
  const change = (set: Partial<Pen>) => setPen((now) => ({ ...now, ...set }))
  const mine = useRef(0)
  const write = (melody: readonly MelodyNote[], did: string) => {
    mine.current += 1
    onEdit({ kind: 'melody', melody: melody.map(keep), did: did.slice(0, 80) })
  }
  const draw = (stroke: PenStroke) => {
    setSays(stroke.says)
    if (stroke.written) write(stroke.written.notes, stroke.written.did)
    if (stroke.heard) onHear([midiOf(stroke.heard)])
    change(stroke.pen)
  }

  // What the pen did not do itself (undo, redo, another tab) takes the caret to where it happened.
  const known = useRef(notes)
  useEffect(() => {
    const was = known.current
    known.current = notes
    if (was === notes) return
    if (mine.current > 0) {
      mine.current = 0
      return
    }
    const there = firstDifference(clock, was, notes)
    if (there !== null) setPen((now) => ({ ...now, caret: there }))
  }, [notes, clock])

  /** Keys while notes are put in; true when one was used. */
  const onKey = (event: Pick<KeyboardEvent, 'key' | 'shiftKey'>): boolean => {
    if (!pen.on) return false
    const stroke = keyStroke(pen, paper, event)
    if (!stroke) return false
    draw(stroke)
    if (stroke.pen.on === false && before) onSelect(null)
    return true
  }
  const ontoGrid = () =>
    write(
      quantised(chart, notes, pen.grid),
      `melody put on ${pen.grid === 1 ? 'beats' : `1/${pen.grid} beats`}`,
    )
  const offGrid = notes.filter((note) => {
    const at = clock.at(note)
    return !Number.isNaN(at) && Math.abs(at * pen.grid - Math.round(at * pen.grid)) > NEAR_WRITTEN
  }).length
  return {
    pen,
    change,
    caret,
    place,
    beats,
    onKey,
    write,
    ontoGrid,
    offGrid,
    says,
    atEnd,
    /** Where playing in begins: at the caret, and at the beginning once the tune is full. */
    begin: atEnd ? clock.place(0) : place,
    takeUp: (selected: { bar: number; beat: number } | null) => {
      setSays(null)
      change(takenUp(pen, paper, selected))
    },
    put: (pitch: Pitch, at?: { bar: number; beat: number }) => draw(putNote(pen, paper, pitch, at)),
    putRest: () => {
      const stroke = keyStroke(pen, paper, { key: 'r', shiftKey: false })
      if (stroke) draw(stroke)
    },
  }
}
export type Writing = ReturnType<typeof useWriting>
