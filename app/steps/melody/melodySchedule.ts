import { itemAt } from '../../../core/lists'
import type { Chart } from '../../../core/chart/chart'
import { Clock, NEAR, sungIn } from '../../../core/melody/clock'
import { ringingLayers } from '../../../core/melody/ringing'
import type { HarmonisedNote } from '../../../core/melody/melodyLine'
import type { MelodyNote } from '../../../core/reharm/melodyFit'
import {
  clicksFor,
  struck as struckAs,
  type Schedule,
  type Strike,
  type Version,
} from '../../services/sound/schedule'
import type { TuneChord } from '../../../core/tune/tuneReading'

interface ScheduleOf {
  chart: Chart
  /** The chords of the home line in the order in which they are played. */
  home: readonly TuneChord[]
  /** Sounding notes of each plain chord, by its key. */
  plain: ReadonlyMap<string, readonly number[]>
  melody: readonly MelodyNote[]
  made: readonly HarmonisedNote[]
  version: Version
  countIn: number
  /** Which of its clicks are stressed: the first of so many. */
  barBeats?: number
}

/** How loud the plain chords are under the melody, from 0 to 1. */
const UNDER = 0.55

/**
 * What is heard on the Melody step: the melody over the plain chords, the chord melody, or the one
 * and then the other. Grips ring on while the melody moves over them.
 */
export function melodySchedule({
  chart,
  home,
  plain,
  melody,
  made,
  version,
  countIn,
  barBeats = countIn,
}: ScheduleOf): Schedule {
  const clock = new Clock(chart)
  const sung = sungIn(clock, melody)
  const { upper, lower } = ringingLayers(chart, made)
  const strikes: Strike[] = []
  let beat = countIn
  /** Everything in the time of each chord, at its moment of the playing. */
  const pass = (strike: (chord: TuneChord, from: number, to: number, shift: number) => void) => {
    for (const chord of home) {
      const from = clock.at(chord.slot)
      strike(chord, from, from + chord.lasts, beat - from)
      beat += chord.lasts
    }
  }
  if (version !== 'new' && version !== 'turn')
    pass((chord, from, to, shift) => {
      const midis = plain.get(chord.key)
      if (midis)
        strikes.push(
          struckAs({
            beat: from + shift,
            beats: chord.lasts,
            midis,
            velocity: UNDER,
            index: chord.index,
            version: 'plain',
          }),
        )
      for (const one of sung)
        if (one.from >= from - NEAR && one.from < to - NEAR)
          strikes.push(
            struckAs({
              beat: one.from + shift,
              beats: one.to - one.from,
              midis: [one.midi],
              index: chord.index,
              version: 'plain',
              part: 'melody',
            }),
          )
    })
  if (version !== 'plain')
    pass((_, from, to, shift) => {
      for (const { at, voicing, struck, ...one } of [...lower, ...upper])
        if (one.from >= from - NEAR && one.from < to - NEAR)
          strikes.push(
            struckAs({
              beat: one.from + shift,
              beats: one.to - one.from,
              midis: struck.map((index) => itemAt(voicing.strings, index).midi).sort((a, b) => a - b),
              index: at,
              version: 'new',
            }),
          )
    })
  return {
    strikes,
    countIn,
    length: beat,
    clicks: clicksFor(countIn, barBeats),
    pass: home.reduce((sum, { lasts }) => sum + lasts, 0),
  }
}

/** A whole chord melody by itself, as it is written. */
export function lineSchedule(chart: Chart, made: readonly HarmonisedNote[]): Schedule {
  const { upper, lower } = ringingLayers(chart, made)
  const end = new Clock(chart).end
  return {
    strikes: [...lower, ...upper].map(({ from, to, voicing, struck }) =>
      struckAs({
        beat: from,
        beats: to - from,
        midis: struck.map((index) => itemAt(voicing.strings, index).midi).sort((a, b) => a - b),
        index: -1,
        version: 'new',
      }),
    ),
    clicks: [],
    countIn: 0,
    length: end,
    pass: end,
  }
}
