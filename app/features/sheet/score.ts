import type { NumeralSchool } from '../../../core/analysis/numeral'
import type { Score, WrittenChord } from '../../../core/formats/musicxml'
import { keptVoicings } from '../lines/keptGrips'
import type { TuneDocument } from '../tune/document'
import { madeChord, readTuneDocument, type TuneReading } from '../workspace/useTuneReading'

/** A tune as it goes on paper: the new line with its kept grips, and the reading it comes from. */
export function scoreOf(document: TuneDocument, school: NumeralSchool = 'case'): Score & { reading: TuneReading } {
  const reading = readTuneDocument(document, school)
  const voicings = keptVoicings(document, reading.chords, reading.chart.capo)
  const chords = new Map(reading.chords.flatMap((chord): [string, WrittenChord][] => {
    const made = madeChord(chord)
    return made ? [[chord.key, { chord: made, voicing: voicings.get(chord.key) ?? null }]] : []
  }))
  return { title: document.title, chart: reading.chart, key: reading.analysis.key, tempo: document.tempo, chords, reading }
}
