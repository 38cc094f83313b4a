import { firstOf } from '../../../core/lists'
import { accompanied, isAccompanied, swingOf } from '../../../core/tune/accompaniment'
import { newDocument, type TuneDocument } from '../../../core/tune/document'
import { keptVoicings } from '../../../core/tune/keptGrips'
import { withEveryGrip } from '../../../core/tune/searchQuestion'
import { readTuneDocument } from '../../../core/tune/tuneReading'
import type { PlayerBody } from '../../../core/player/playerLimits'
import { countInBeats } from '../words/placeWords'
import { bandSchedule } from './bandSchedule'
import { scheduleOf, type Schedule } from './schedule'
import { sequenceOf } from './sequence'

/**
 * A whole tune as it is heard away from its workspace: the new line once through with its band, one
 * bar counted in.
 */
export interface TuneHeard {
  schedule: Schedule
  /** Beats a minute. */
  tempo: number
}

/**
 * The beginning of a tune as it is heard by who has never seen the program: its plain chords with
 * their band, then the new ones, one bar counted in.
 * @param bars how many bars of each
 */
export function bothHeard(document: TuneDocument, body: PlayerBody, bars: number): TuneHeard {
  const { title, text, rhythm, tempo, melody } = document
  const passes = [
    { version: 'plain' as const, made: { ...newDocument(title, text), rhythm, tempo, melody } },
    { version: 'new' as const, made: document },
  ].map(({ version, made }) => {
    const reading = readTuneDocument(made, 'case', body)
    const whole = withEveryGrip(made, reading, body)
    const grips = keptVoicings(whole, reading.line, reading.chart.capo, body)
    const played = accompanied({ reading, document: whole, which: 'new', grips, order: 'written' })
    const [from, to] = [played.bars[0]?.from ?? 0, (played.bars[bars - 1] ?? played.bars.at(-1))?.to ?? 0]
    return { reading, pass: { version, played, from, to } }
  })
  const { chart, chords } = firstOf(passes).reading
  const schedule = bandSchedule(
    passes.map(({ pass }) => pass),
    swingOf(rhythm, tempo, chart.meter),
    countInBeats(chart, chords[0], 1),
    chart.meter.beats,
    { behindMs: rhythm.behindMs, loose: rhythm.loose ?? 0, seed: rhythm.seed, msPerBeat: 60_000 / tempo },
  )
  return { schedule, tempo }
}

export function tuneHeard(document: TuneDocument, body: PlayerBody): TuneHeard {
  const reading = readTuneDocument(document, 'case', body)
  const { chart } = reading
  const { rhythm, tempo } = document
  const grips = keptVoicings(document, reading.line, chart.capo, body)
  const sequence = sequenceOf(reading, { anchor: 0, focus: 0 })
  const countIn = countInBeats(chart, sequence.home[0], 1)
  if (!isAccompanied(rhythm)) {
    const played = sequence.line.map(({ key, index, lasts }) => ({
      index,
      lasts,
      midis: grips.get(key)?.midis ?? null,
    }))
    return {
      schedule: scheduleOf({ plain: [], new: played, beside: [] }, 'new', countIn, chart.meter.beats),
      tempo,
    }
  }
  const played = accompanied({ reading, document, which: 'new', grips })
  const schedule = bandSchedule(
    [{ version: 'new', played, from: 0, to: played.bars.at(-1)?.to ?? 0 }],
    swingOf(rhythm, tempo, chart.meter),
    countIn,
    chart.meter.beats,
    { behindMs: rhythm.behindMs, loose: rhythm.loose ?? 0, seed: rhythm.seed, msPerBeat: 60_000 / tempo },
  )
  return { schedule, tempo }
}
