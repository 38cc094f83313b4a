import { NEAR } from '../../../core/chart/beats'
import { looselyStruck } from '../../../core/rhythm/loose'
import { swungTime } from '../../../core/rhythm/swing'
import { VELOCITIES, type Accompaniment } from '../../../core/tune/accompaniment'
import { clicksFor, struck, type HeardLine, type Schedule, type Strike } from './schedule'

/**
 * One time through what is heard: who plays, and from where to where, in beats of the
 * accompaniment.
 */
export interface HeardPass {
  version: HeardLine
  played: Accompaniment
  from: number
  to: number
}

/**
 * How the guitar's hits fall: all of them behind the beat (below 0 ahead of it), and each a little
 * beside its place.
 */
export interface HandTouch {
  behindMs: number
  /** 0 exact to 1, by the seed always alike. */
  loose: number
  seed: number
  msPerBeat: number
}
const EXACT: HandTouch = { behindMs: 0, loose: 0, seed: 0, msPerBeat: 1 }

/**
 * What a band plays, pass after pass. A hit that is pushed over the beginning stands on it; one
 * whose chord comes only after the end is left out, so that a loop begins with its own chord.
 * @param swing long : short, 1 for straight
 * @param touch how the guitar is struck; never before the music begins
 */
export function bandSchedule(
  passes: readonly HeardPass[],
  swing: number,
  countInBeats: number,
  barBeats: number,
  { behindMs, loose, seed, msPerBeat }: HandTouch = EXACT,
): Schedule {
  const strikes: Strike[] = []
  const beats: NonNullable<Schedule['beats']> = []
  let begin = countInBeats
  for (const { version, played, from, to } of passes) {
    const at = (time: number) => begin + swungTime(played.bars, time, swing) - from
    const within = (time: number) => time >= from - NEAR && time < to - NEAR
    const strike = (
      time: number,
      lasts: number,
      rest: Omit<Parameters<typeof struck>[0], 'beat' | 'beats' | 'version'>,
      lateMs = 0,
    ) => {
      const ends = Math.min(time + lasts, to)
      const beat = Math.max(countInBeats, at(time) + lateMs / msPerBeat)
      strikes.push(struck({ ...rest, version, beat, beats: at(ends) - at(time) }))
    }
    for (const [place, hit] of played.hits.entries()) {
      if (hit.midis.length === 0 || hit.chordFrom > to - NEAR) continue
      const early = hit.time < from - NEAR && within(hit.chordFrom)
      if (!early && !within(hit.time)) continue
      // A chord that sounds already where the playing begins is struck there.
      const time = early ? from : hit.time
      const by = looselyStruck(loose, seed, place)
      strike(
        time,
        hit.time + hit.lasts - time,
        {
          midis: hit.midis,
          index: hit.index,
          part: 'guitar',
          velocity: Math.min(1, VELOCITIES[hit.accent] * by.strength),
          stroke: hit.stroke,
        },
        behindMs + by.ms,
      )
    }
    for (const { time, lasts, note } of played.bass)
      if (within(time))
        strike(time, lasts, { midis: [note.midi], index: -1, part: 'bass', velocity: 0.8, stroke: 'thumb' })
    for (const { time, strong, brush } of played.beats)
      if (within(time)) beats.push({ beat: at(time), strong, brush })
    begin += to - from
  }
  return {
    strikes: strikes.filter(({ beats: lasts }) => lasts > NEAR).sort((a, b) => a.beat - b.beat),
    beats,
    clicks: clicksFor(countInBeats, barBeats),
    countIn: countInBeats,
    length: begin,
    pass: passes[0] ? passes[0].to - passes[0].from : 0,
  }
}

/**
 * Where the chord of a line that begins at a place of the tune is first played, in beats of the
 * accompaniment.
 */
export function timeOf({ bars }: Pick<Accompaniment, 'bars'>, place: { bar: number; beat: number }): number {
  const found = bars.find(({ bar }) => bar.number === place.bar)
  return found ? found.from + (place.beat - found.bar.from) * found.scale : 0
}
