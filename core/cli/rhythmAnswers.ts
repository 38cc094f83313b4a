import { analyse } from '../analysis/analyse'
import { slotsOf } from '../chart/chart'
import { parseChart } from '../chart/parse'
import { pitchName } from '../pitch/note'
import { bad, good, type Result } from '../result'
import { bassLine } from '../rhythm/bassLine'
import { NO_CHORDS, tidy } from './parts'
import type { requestSchemas } from './requests'
import type { z } from 'zod'

/** Answers of the core's command line about rhythm and the band. */
export const RHYTHM_ANSWERS = {
  bassline({
    text,
    kind,
    seed = 0,
  }: z.output<typeof requestSchemas.bassline>): Result<Record<string, unknown>> {
    const chart = parseChart(text)
    if (!slotsOf(chart).some(({ symbol }) => symbol?.kind === 'chord')) return bad(NO_CHORDS)
    return good({
      notes: bassLine(chart, analyse(chart), kind, seed).map(({ bar, beat, beats, note, degree, why }) => ({
        bar,
        beat: tidy(beat),
        beats: tidy(beats),
        note: pitchName(note),
        degree,
        why,
      })),
      problems: chart.problems,
    })
  },
}
