import { itemAt, lastOf } from '../../../core/lists'
import { soundsAChord } from '../../../core/rhythm/figures'
import type { GuitarHit } from '../../../core/tune/accompaniment'
import { across, unitsOf, type System } from './systemLayout'

/** Heights: the melody's rhythm, the voices above, the low voice, and the bass below. */
const LANE = { melody: 8, upper: 24, low: 44, bass: 66 } as const
const TALL = 78

interface Props {
  system: System
  hits: readonly GuitarHit[]
  /** Onsets of the melody: bar, beat and length in beats. */
  melody: readonly { bar: number; beat: number; beats: number }[]
}

/** How far across a system a place lies, 0 to 1; null where it is in another one. */
export function shareOf(system: System, { bar, beat }: { bar: number; beat: number }): number | null {
  const at = system.bars.findIndex(({ number }) => number === bar)
  return at < 0 ? null : across(system, at, beat)
}

/**
 * What is struck in one system, on the time that its chords stand on, with the melody's rhythm
 * above it.
 */
export function FigureLine({ system, hits: all, melody }: Props) {
  const wide = unitsOf(system)
  const x = (bar: number, beat: number): number | null => {
    const share = shareOf(system, { bar, beat })
    return share === null ? null : share * wide
  }
  const hits = all.filter(({ bar }) => x(bar, 1) !== null)
  const sung = melody.filter(({ bar }) => x(bar, 1) !== null)
  return (
    <svg className="figure-line" viewBox={`0 0 ${wide} ${TALL}`} preserveAspectRatio="none" aria-hidden>
      <line x1={0} x2={wide} y1={LANE.low} y2={LANE.low} className="rhythm-axis" />
      {beatsOf(system).map(({ at, strong }) => (
        <line
          key={at}
          x1={at * wide}
          x2={at * wide}
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
  )
}

/** How wide a hit sounds in its system: no further than its end. */
function widthOf(hit: GuitarHit, system: System): number {
  const at = system.bars.findIndex(({ number }) => number === hit.bar)
  const bar = itemAt(system.bars, at)
  const beat = (itemAt(system.edges, at + 1) - itemAt(system.edges, at)) / (bar.beats || 1)
  const from = across(system, at, hit.beat)
  return Math.min(lastOf(system.edges) - from, beat * hit.beats) * unitsOf(system)
}

function beatsOf({ bars, edges }: System): { at: number; strong: boolean }[] {
  return bars.flatMap((bar, index) =>
    Array.from({ length: Math.ceil(bar.beats) }, (_, at) => ({
      at: itemAt(edges, index) + ((itemAt(edges, index + 1) - itemAt(edges, index)) * at) / (bar.beats || 1),
      strong: at === 0,
    })),
  )
}

/**
 * One hit in our own signs: a stem as tall as what sounds (low voice under the line, voices above
 * it, both), a bar along the time as long as it rings; thick where accented, open where it is a
 * ghost, crossed where it is damped, with a hook over the bar line where it is pushed.
 */
function HitSign({ hit, from, width }: { hit: GuitarHit; from: number; width: number }) {
  const low = !soundsAChord(hit) && hit.stroke !== 'dead'
  const top = low ? LANE.low : LANE.upper
  const foot = low || hit.part === 'all' ? LANE.low + 13 : LANE.low
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
