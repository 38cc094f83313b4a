import type { NumeralSchool } from '../analysis/numeral'
import type { Chart } from '../chart/chart'
import type { Score } from '../formats/musicxml'
import type { WrittenChord } from '../formats/musicxmlHarmony'
import { melodyOf } from './applyMelody'
import { keptNotes } from './keptNotes'
import { keptVoicings } from './keptGrips'
import type { Body } from '../player/limits'
import { groupedBy } from './grouped'
import type { TuneDocument } from './document'
import { madeChord, readTuneDocument, type TuneReading } from './reading'

/** A tune as it goes on paper: the new line with its kept grips, and the reading it comes from. */
export function scoreOf(
  document: TuneDocument,
  body: Body,
  school: NumeralSchool = 'case',
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
    chordMelody: keptNotes(document, reading.chart, body),
    reading,
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
