import type { TuneDocument } from '../../../core/tune/document'
import { accompanied, isAccompanied, swingOf } from '../../../core/tune/accompaniment'
import type { TuneReading } from '../../../core/tune/tuneReading'
import type { Rhythm } from '../../../core/tune/rhythmSchema'
import type { Voicing } from '../../../core/voicing/voicing'
import { bandSchedule, timeOf } from '../../services/sound/bandSchedule'
import { clicksFor, struck, type Schedule } from '../../services/sound/schedule'
import type { Staged } from './stagedGrips'

/** How much of the guitar is heard under the player's own. */
export const GUITARS = ['silent', 'soft', 'heard'] as const
export type Guitar = (typeof GUITARS)[number]
const LEVEL: Readonly<Record<Guitar, number>> = { silent: 0, soft: 0.3, heard: 1 }

interface ScheduleAsked {
  staged: Staged
  reading: TuneReading
  document: Pick<TuneDocument, 'rhythm' | 'melody'>
  voicings: ReadonlyMap<string, Voicing>
  guitar: Guitar
  /** Beats a minute. */
  tempo: number
}

/** Somebody keeps time, whatever the tune has. */
const withBand = (rhythm: Rhythm): Rhythm =>
  isAccompanied(rhythm) && (rhythm.bass !== 'none' || rhythm.time !== 'none')
    ? rhythm
    : { ...rhythm, bass: 'roots', time: 'two and four' }

/**
 * What is heard of one pass: a bar counted in, then the passage with its band, or grips by
 * themselves with a click.
 */
export function passSchedule({
  staged,
  reading,
  document,
  voicings,
  guitar,
  tempo,
}: ScheduleAsked): Schedule {
  const { meter } = reading.chart
  const heard = (schedule: Schedule): Schedule => ({
    ...schedule,
    strikes: schedule.strikes.map((strike) =>
      strike.part === 'guitar' ? { ...strike, levels: strike.midis.map(() => LEVEL[guitar]) } : strike,
    ),
  })
  if (staged.alone) return heard(clicked(staged, meter.beats))
  const rhythm = withBand(document.rhythm)
  const played = accompanied({
    reading,
    document: { ...document, rhythm },
    which: 'new',
    grips: voicings,
    order: 'written',
  })
  const first = played.bars.find(({ bar }) => bar.number === staged.from)
  const last = played.bars.findLast(({ bar }) => bar.number === staged.to)
  const from = first ? timeOf(played, { bar: staged.from, beat: first.bar.from }) : 0
  return heard(
    bandSchedule(
      [{ version: 'new', played, from, to: last?.to ?? played.bars.at(-1)?.to ?? 0 }],
      swingOf(rhythm, tempo, meter),
      meter.beats,
      meter.beats,
    ),
  )
}

/**
 * Grips one after the other, each for as long as it stands on the stage, with a click on every
 * beat.
 */
function clicked({ chords }: Pick<Staged, 'chords'>, barBeats: number): Schedule {
  let beat = barBeats
  const strikes = chords.map(({ voicing, beats, index }) => {
    beat += beats
    return struck({ beat: beat - beats, beats, midis: voicing?.midis ?? [], index, version: 'new' })
  })
  const length = beat - barBeats
  return {
    strikes,
    clicks: clicksFor(barBeats, barBeats),
    beats: Array.from({ length: Math.floor(length) }, (_, at) => ({
      beat: barBeats + at,
      strong: at % barBeats === 0,
      brush: null,
    })),
    countIn: barBeats,
    length: beat,
    pass: length,
  }
}
