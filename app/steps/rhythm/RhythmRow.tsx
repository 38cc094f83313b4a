import { createContext, useContext } from 'react'
import { barName } from '../../../core/chart/chart'
import { soundsAChord } from '../../../core/rhythm/figures'
import type { Accompaniment, GuitarHit } from '../../../core/tune/accompaniment'
import { noteName } from '../../../core/pitch/note'
import { engraved } from '../../services/notation/ChordName'
import { across, type System } from '../../services/notation/layout'
import type { RowProps } from '../../services/room/room'

/** What the rows under the chords show; bars as they are written. */
export interface RhythmShown {
  played: Accompaniment
  /** Onsets of the melody: bar, beat and length in beats. */
  melody: readonly { bar: number; beat: number; beats: number }[]
  /** Place of the hit taken hold of. */
  selected: string | null
  onSelect: (place: string) => void
}
export const RhythmContext = createContext<RhythmShown | null>(null)

/** Where a hit stands, as written. */
export const placeOfHit = ({ bar, beat }: { bar: number; beat: number }): string =>
  `${bar}:${Math.round(beat * 1000) / 1000}`

/** Widths in units of the drawing: a system is a thousand wide. */
const WIDE = 1000
/** Heights: the melody's rhythm, the voices above, the low voice, and the bass below. */
const LANE = { melody: 8, upper: 24, low: 44, bass: 66 } as const
const TALL = 78

/** The figure under one system, on the time that the chords above stand on: what is struck, how long, how hard; the melody's rhythm above it, the bass below. */
export function RhythmRow({ system }: RowProps) {
  const shown = useContext(RhythmContext)
  if (!shown) return null
  const { played, melody, selected, onSelect } = shown
  const x = (bar: number, beat: number): number | null => {
    const at = system.bars.findIndex(({ number }) => number === bar)
    return at < 0 ? null : across(system, at, beat) * WIDE
  }
  const hits = played.hits.filter(({ bar }) => x(bar, 1) !== null)
  const bass = played.bass.filter(({ note }) => x(note.bar, 1) !== null)
  const sung = melody.filter(({ bar }) => x(bar, 1) !== null)
  return (
    <div className="rhythm-row">
      <svg viewBox={`0 0 ${WIDE} ${TALL}`} preserveAspectRatio="none" aria-hidden>
        <line x1={0} x2={WIDE} y1={LANE.low} y2={LANE.low} className="rhythm-axis" />
        {beatsOf(system).map(({ at, strong }) => (
          <line
            key={at}
            x1={at * WIDE}
            x2={at * WIDE}
            y1={strong ? LANE.upper - 10 : LANE.low - 3}
            y2={LANE.low + 3}
            className={strong ? 'rhythm-bar' : 'rhythm-beat'}
          />
        ))}
        {sung.map(({ bar, beat, beats }, at) => (
          <line
            key={at}
            x1={x(bar, beat)!}
            x2={Math.max(x(bar, beat)! + 3, x(bar, beat + beats)! - 3)}
            y1={LANE.melody}
            y2={LANE.melody}
            className="rhythm-melody"
          />
        ))}
        {hits.map((hit) => (
          <HitSign
            key={`${hit.time} ${hit.part}`}
            hit={hit}
            from={x(hit.bar, hit.beat)!}
            width={widthOf(hit, system)}
          />
        ))}
      </svg>
      {hits.map((hit, at) => {
        const place = placeOfHit(hit)
        // What sounds together is one thing to take hold of.
        if (hits[at - 1] && placeOfHit(hits[at - 1]!) === place) return null
        return (
          <button
            key={place}
            type="button"
            className="rhythm-hit"
            data-hit={place}
            style={{ left: `${(x(hit.bar, hit.beat)! / WIDE) * 100}%` }}
            tabIndex={place === selected ? 0 : -1}
            aria-pressed={place === selected}
            aria-label={hitInWords(hit)}
            title={hit.why ?? hitInWords(hit)}
            onClick={() => onSelect(place)}
          />
        )
      })}
      {bass.map(({ note, time }) => (
        <span
          key={time}
          className="rhythm-bass"
          title={note.why}
          style={{ left: `${(x(note.bar, note.beat)! / WIDE) * 100}%` }}
        >
          {engraved(noteName(note.note))}
        </span>
      ))}
    </div>
  )
}

/** How wide a hit sounds in its system: no further than its end. */
function widthOf(hit: GuitarHit, system: System): number {
  const at = system.bars.findIndex(({ number }) => number === hit.bar)
  const bar = system.bars[at]!
  const beat = (system.edges[at + 1]! - system.edges[at]!) / (bar.beats || 1)
  const from = across(system, at, hit.beat)
  return Math.min(system.edges.at(-1)! - from, beat * hit.beats) * WIDE
}

function beatsOf({ bars, edges }: System): { at: number; strong: boolean }[] {
  return bars.flatMap((bar, index) =>
    Array.from({ length: Math.ceil(bar.beats) }, (_, at) => ({
      at: edges[index]! + ((edges[index + 1]! - edges[index]!) * at) / (bar.beats || 1),
      strong: at === 0,
    })),
  )
}

/**
 * One hit in our own signs: a stem as tall as what sounds (low voice under the line, voices above it, both), a bar along the time as long as it rings; thick
 * where accented, open where it is a ghost, crossed where it is damped, with a hook over the bar line where it is pushed.
 */
function HitSign({ hit, from, width }: { hit: GuitarHit; from: number; width: number }) {
  const low = !soundsAChord(hit) && hit.stroke !== 'dead'
  const [top, foot] = low
    ? [LANE.low, LANE.low + 13]
    : hit.part === 'all'
      ? [LANE.upper, LANE.low + 13]
      : [LANE.upper, LANE.low]
  const rings = low ? foot : top
  const className = ['rhythm-sign', hit.accent, hit.pushed && 'pushed', hit.why && 'other']
    .filter(Boolean)
    .join(' ')
  if (hit.stroke === 'dead')
    return (
      <g className={className}>
        <line x1={from - 4} x2={from + 4} y1={LANE.low - 7} y2={LANE.low + 7} />
        <line x1={from - 4} x2={from + 4} y1={LANE.low + 7} y2={LANE.low - 7} />
      </g>
    )
  return (
    <g className={className}>
      <line x1={from} x2={from} y1={top} y2={foot} />
      <line x1={from} x2={from + Math.max(4, width - 4)} y1={rings} y2={rings} className="rhythm-rings" />
      {hit.pushed && <path d={`M ${from} ${top - 3} q 9 -9 18 0`} className="rhythm-push" />}
    </g>
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
    `${barName(bar)}, beat ${Math.round(beat * 100) / 100}`,
    `${slot.text}${pushed ? ', pushed' : ''}`,
    stroke === 'dead' ? 'damped stroke' : PARTS_IN_WORDS[part],
    `${Math.round(beats * 100) / 100} ${beats === 1 ? 'beat' : 'beats'}`,
    accent === 'plain' ? '' : accent,
    why ?? '',
  ]
    .filter(Boolean)
    .join(', ')
}
