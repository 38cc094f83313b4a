import { accompanied, isAccompanied, swingOf } from '../../../core/tune/accompaniment'
import type { TuneDocument } from '../../../core/tune/document'
import { keptVoicings } from '../../../core/tune/keptGrips'
import { readTuneDocument } from '../../../core/tune/reading'
import type { Body } from '../../../core/player/limits'
import { countInBeats } from '../words/places'
import { bandSchedule } from './bandSchedule'
import { scheduleOf, type Schedule } from './schedule'
import { sequenceOf } from './sequence'

/** A whole tune as it is heard away from its workspace: the new line once through with its band, one bar counted in. */
export interface TuneHeard {
  schedule: Schedule
  /** Beats a minute. */
  tempo: number
}

export function tuneHeard(document: TuneDocument, body: Body): TuneHeard {
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
