import { itemAt } from '../../../core/lists'
import { useRef } from 'react'
import { beatInWords } from '../../../core/chart/beats'
import { barName } from '../../../core/chart/chart'
import type { Accompaniment, GuitarHit } from '../../../core/tune/accompaniment'
import { noteName } from '../../../core/pitch/note'
import { engraved } from '../../../core/chord/engraved'
import { FigureLine, shareOf } from '../../services/notation/FigureLine'
import type { RowProps } from '../../services/room/room'
import { rowsTold } from '../../services/room/rowsContext'

/** What the rows under the chords show; bars as they are written. */
export interface RhythmShown {
  played: Accompaniment
  /** Onsets of the melody: bar, beat and length in beats. */
  melody: readonly { bar: number; beat: number; beats: number }[]
  /** Place of the hit taken hold of. */
  selected: string | null
  onSelect: (place: string) => void
  /** A hit pulled along the time by so many beats. */
  onMove: (place: string, beats: number) => void
}
export const rhythmRows = rowsTold<RhythmShown>()

/** A pointer that has moved less than this, in px, only touches. */
const DRAG_PX = 8

/** Where a hit stands, as written. */
export const placeOfHit = ({ bar, beat }: { bar: number; beat: number }): string =>
  `${bar}:${Math.round(beat * 1000) / 1000}`

/**
 * The figure under one system, on the time that the chords above stand on: what is struck, how
 * long, how hard; the melody's rhythm above it, the bass below.
 */
export function RhythmRow({ system }: RowProps) {
  const shown = rhythmRows.useTold()
  const dragged = useRef<{ x: number; place: string } | null>(null)
  if (!shown) return null
  const { played, melody, selected, onSelect, onMove } = shown
  const x = (place: { bar: number; beat: number }) => shareOf(system, place)
  const hits = played.hits.filter((hit) => x(hit) !== null)
  const bass = played.bass.filter(({ note }) => x(note) !== null)
  return (
    <div className="rhythm-row">
      <FigureLine system={system} hits={played.hits} melody={melody} />
      {hits.map((hit, at) => {
        const place = placeOfHit(hit)
        // What sounds together is one thing to take hold of.
        if (hits[at - 1] && placeOfHit(itemAt(hits, at - 1)) === place) return null
        return (
          <button
            key={place}
            type="button"
            className="rhythm-hit"
            data-hit={place}
            style={{ left: `${x(hit)! * 100}%` }}
            tabIndex={place === selected ? 0 : -1}
            aria-pressed={place === selected}
            aria-label={hitInWords(hit)}
            title={hit.why ?? hitInWords(hit)}
            onClick={() => onSelect(place)}
            onPointerDown={(event) => {
              onSelect(place)
              event.currentTarget.setPointerCapture(event.pointerId)
              dragged.current = { x: event.clientX, place }
            }}
            onPointerUp={(event) => {
              const begun = dragged.current
              dragged.current = null
              const row = event.currentTarget.parentElement!.getBoundingClientRect()
              if (!begun || Math.abs(event.clientX - begun.x) < DRAG_PX) return
              const at = system.bars.findIndex(({ number }) => number === hit.bar)
              const beat =
                ((itemAt(system.edges, at + 1) - itemAt(system.edges, at)) /
                  (itemAt(system.bars, at).beats || 1)) *
                row.width
              onMove(begun.place, (event.clientX - begun.x) / beat)
            }}
          />
        )
      })}
      {bass.map(({ note, time }) => (
        <span key={time} className="rhythm-bass" title={note.why} style={{ left: `${x(note)! * 100}%` }}>
          {engraved(noteName(note.note))}
        </span>
      ))}
    </div>
  )
}

const PARTS_IN_WORDS: Readonly<Record<GuitarHit['part'], string>> = {
  all: 'the whole grip',
  upper: 'the upper voices',
  bass: 'the bass',
  fifth: 'the other low note',
  top: 'the top voice',
  inner: 'an inner voice',
  single: 'the next voice',
}

export function hitInWords({ bar, beat, beats, slot, part, accent, stroke, pushed, why }: GuitarHit): string {
  return [
    `${barName(bar)}, ${beatInWords(beat)}`,
    `${slot.text}${pushed ? ', pushed' : ''}`,
    stroke === 'dead' ? 'damped stroke' : PARTS_IN_WORDS[part],
    `${Math.round(beats * 100) / 100} ${beats === 1 ? 'beat' : 'beats'}`,
    accent === 'plain' ? '' : accent,
    why ?? '',
  ]
    .filter(Boolean)
    .join(', ')
}
