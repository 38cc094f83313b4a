import { itemAt } from '../lists'
import type { NumeralSchool } from '../analysis/numeral'
import type { Chart } from '../chart/chart'
import type { BandScore, Score } from '../formats/musicxml'
import { STRAIGHT, swungTime } from '../rhythm/swing'
import { stringNumber } from '../neck/instrument'
import { midi as pitchNumber, pitchAt } from '../pitch/note'
import type { Voicing } from '../voicing/voicing'
import { accompanied, isAccompanied, swingOf, VELOCITIES } from './accompaniment'
import type { WrittenChord } from '../formats/musicxmlHarmony'
import { melodyOf } from './applyMelody'
import { keptNotes } from './keptNotes'
import { keptVoicings } from './keptGrips'
import type { PlayerBody } from '../player/playerLimits'
import { groupedBy } from '../grouped'
import type { TuneDocument } from './document'
import { madeChord, readTuneDocument, type TuneReading } from './tuneReading'

/** A tune as it goes on paper: the new line with its kept grips, and the reading it comes from. */
export function scoreOf(
  document: TuneDocument,
  body: PlayerBody,
  school: NumeralSchool = 'case',
  { swung = false, comping = 'slashes' }: FileAsked = {},
): Score & { reading: TuneReading } {
  const reading = readTuneDocument(document, school, body)
  const voicings = keptVoicings(document, reading.line, reading.chart.capo, body)
  const chords = new Map(
    reading.line.flatMap((chord): [string, WrittenChord][] => {
      const made = madeChord(chord)
      return made ? [[chord.key, { chord: made, voicing: voicings.get(chord.key) ?? null }]] : []
    }),
  )
  return {
    title: document.title,
    chart: newChart(reading),
    key: reading.analysis.key,
    tempo: document.tempo,
    chords,
    melody: melodyOf(document),
    lyrics: document.lyrics,
    tuning: body.instrument.tuning.map(pitchNumber),
    chordMelody: keptNotes(document, reading.chart, body),
    ...(isAccompanied(document.rhythm)
      ? {
          band: bandOf(document, reading, voicings, swung),
          comping: compingOf(document, reading, voicings, comping),
        }
      : {}),
    reading,
  }
}

/**
 * How a tune's accompaniment goes into a file: with the feel that is heard, and as slashes or as
 * the voices that sound.
 */
export interface FileAsked {
  swung?: boolean
  comping?: 'slashes' | 'voices'
}

/** The figure as it is written, with the notes of the grips. */
function compingOf(
  document: TuneDocument,
  reading: TuneReading,
  grips: ReadonlyMap<string, Voicing>,
  as: 'slashes' | 'voices',
): NonNullable<Score['comping']> {
  const { hits } = accompanied({ reading, document, which: 'new', grips, order: 'written' })
  return {
    as,
    swing: swingOf(document.rhythm, document.tempo, reading.chart.meter),
    hits: hits.map(({ bar, beat, beats, accent, midis, key }) => {
      const voicing = grips.get(key)
      return {
        bar,
        beat,
        beats,
        accent: accent === 'accent',
        notes: midis.flatMap((midi) => {
          const sounding = voicing?.strings.find((one) => one.midi === midi)
          if (!voicing || !sounding) return []
          const { string, note } = sounding
          return [
            {
              midi,
              written: {
                pitch: pitchAt(midi, note),
                string: stringNumber(string, voicing.frets.length),
                fret: itemAt(voicing.frets, string)!,
              },
            },
          ]
        }),
      }
    }),
  }
}

/** What the tune's band plays, as notes. */
function bandOf(
  document: TuneDocument,
  reading: TuneReading,
  grips: ReadonlyMap<string, Voicing>,
  swung: boolean,
): BandScore {
  const { bars, hits, bass, beats } = accompanied({ reading, document, which: 'new', grips })
  const ratio = swung ? swingOf(document.rhythm, document.tempo, reading.chart.meter) : STRAIGHT
  const at = (time: number) => swungTime(bars, time, ratio)
  const note = (time: number, lasts: number, midi: number, velocity: number) => ({
    from: at(time),
    lasts: at(time + lasts) - at(time),
    midi,
    velocity,
  })
  return {
    guitar: hits.flatMap(({ time, lasts, midis, accent }) =>
      midis.map((midi) => note(time, lasts, midi, VELOCITIES[accent])),
    ),
    bass: bass.map(({ time, lasts, note: { midi } }) => note(time, lasts, midi, VELOCITIES.plain)),
    time: beats.map(({ time, ...one }) => ({ from: at(time), ...one })),
  }
}

/** The chart with the chords of the new line in its bars. */
function newChart({ chart, line }: TuneReading): Chart {
  const slots = groupedBy(line, ({ slot }) => slot.bar)
  return {
    ...chart,
    bars: chart.bars.map((bar) => ({ ...bar, slots: (slots.get(bar.number) ?? []).map(({ slot }) => slot) })),
  }
}
