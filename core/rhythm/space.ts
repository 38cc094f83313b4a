import { entryOf, itemAt } from '../lists'
import { NEAR } from '../chart/beats'
import type { Chart } from '../chart/chart'
import { Clock, sungIn, type Sung } from '../melody/clock'
import type { MelodyNote } from '../reharm/melodyFit'
import { soundsAChord } from './figures'
import type { ChordedHit, LeftOut } from './hit'
import type { PlayedBar } from './playedTime'
import { halfOf } from './pulses'
import { scattered } from './scattered'

/**
 * A melody is busy from a little before a note begins until it has stood for a beat: what is left
 * is a gap. In beats.
 */
const BEFORE_A_NOTE = 0.25
const A_NOTE_STANDS = 1
/**
 * Below this a melody lies where the low voices of a grip are; above, where its highest are. Middle
 * C and the G above it, as MIDI numbers.
 */
const LOW_MELODY = 60
const HIGH_MELODY = 67

/**
 * Hits in the order in which they go when it gets thinner: what is said of those that are left out.
 */
const RANKS = [
  'a ghost, the first to go',
  'off the beat',
  'on a weak beat',
  'on a strong beat',
  'an accent',
  'the first hit of its chord, the last to go',
] as const

interface Space {
  density: number
  melody: readonly MelodyNote[]
  seed: number
}

type Left = LeftOut & { chordAt: number }

/**
 * What is played of a figure: the melody answered in its gaps, and hits thinned in a stated order.
 * Common practice, no source.
 */
export function withSpace(
  hits: readonly ChordedHit[],
  chart: Chart,
  bars: readonly PlayedBar[],
  { density, melody, seed }: Space,
): { hits: ChordedHit[]; leftOut: Left[] } {
  const first = new Map<number, number>()
  for (const hit of hits) if (soundsAChord(hit) && !first.has(hit.chordAt)) first.set(hit.chordAt, hit.time)
  const isFirst = (hit: ChordedHit) => soundsAChord(hit) && hit.time < entryOf(first, hit.chordAt) + NEAR
  const { kept, left } = underMelody(hits, chart, melody, isFirst)
  const wanted = Math.round(density * kept.length)
  if (wanted >= kept.length) return { hits: kept, leftOut: left }
  const barOf = new Map(bars.map(({ bar }) => [bar.number, bar]))
  const rank = (hit: ChordedHit): number => {
    if (isFirst(hit)) return 5
    if (hit.accent !== 'plain') return hit.accent === 'accent' ? 4 : 0
    if (hit.stroke === 'dead') return 0
    if (Math.abs(hit.beat - Math.round(hit.beat)) > NEAR) return 1
    const { meter } = entryOf(barOf, hit.bar)
    return Math.abs(hit.beat - 1) < NEAR || Math.abs(hit.beat - halfOf(meter)) < NEAR ? 3 : 2
  }
  const ranked = kept
    .map((hit, at) => ({ at, rank: rank(hit), chance: scattered(seed, Math.round(hit.time * 24), 0) }))
    .sort((a, b) => b.rank - a.rank || a.chance - b.chance || a.at - b.at)
  const goes = new Map(ranked.slice(wanted).map(({ at, rank: one }) => [at, one]))
  return {
    hits: kept.filter((_, at) => !goes.has(at)),
    leftOut: [
      ...left,
      ...kept.flatMap((hit, at): Left[] =>
        goes.has(at) ? [leaving(hit, `thinned out: ${itemAt(RANKS, entryOf(goes, at))}`)] : [],
      ),
    ],
  }
}

const leaving = ({ bar, beat, part, chordAt }: ChordedHit, why: string): Left => ({
  bar,
  beat,
  part,
  chordAt,
  why,
})

function underMelody(
  hits: readonly ChordedHit[],
  chart: Chart,
  melody: readonly MelodyNote[],
  isFirst: (hit: ChordedHit) => boolean,
): { kept: ChordedHit[]; left: Left[] } {
  if (melody.length === 0) return { kept: [...hits], left: [] }
  const clock = new Clock(chart)
  const sung = sungIn(clock, melody)
  const kept: ChordedHit[] = []
  const left: Left[] = []
  for (const hit of hits) {
    const time = clock.at(hit)
    if (isBusy(sung, time) && !isFirst(hit)) {
      left.push(leaving(hit, 'left to the melody, which moves here: the guitar answers in its gaps'))
      continue
    }
    kept.push(offItsRegister(hit, sungAt(sung, time)))
  }
  return { kept, left }
}

/** The note that sounds at a time, or the last one before it. */
function lastBegun(sung: readonly Sung[], time: number): number {
  let [low, high] = [0, sung.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if (itemAt(sung, middle).from <= time + NEAR) low = middle + 1
    else high = middle
  }
  return low - 1
}

const sungAt = (sung: readonly Sung[], time: number): Sung | undefined => {
  const one = sung[lastBegun(sung, time)]
  return one && time < one.to - NEAR ? one : undefined
}

function isBusy(sung: readonly Sung[], time: number): boolean {
  const at = lastBegun(sung, time)
  const [now, next] = [sung[at], sung[at + 1]]
  if (next && next.from - time < BEFORE_A_NOTE - NEAR) return true
  return now !== undefined && time < Math.min(now.to, now.from + A_NOTE_STANDS) - NEAR
}

/** Low when the melody is high, and high when it is low. */
function offItsRegister(hit: ChordedHit, note: Sung | undefined): ChordedHit {
  if (!note) return hit
  if (note.midi < LOW_MELODY && hit.part === 'all')
    return { ...hit, part: 'upper', why: 'only the upper voices: the melody lies low here' }
  if (note.midi >= HIGH_MELODY && hit.part === 'top')
    return { ...hit, part: 'inner', why: 'an inner voice: the melody lies above' }
  return hit
}
