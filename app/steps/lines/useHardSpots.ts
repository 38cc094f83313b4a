import { itemAt } from '../../../core/lists'
import { useMemo } from 'react'
import { placeName } from '../../../core/chart/chart'
import { hardestSpots } from '../../../core/leading/lineWords'
import { madeChord } from '../../../core/tune/tuneReading'
import { useGrips } from '../../services/grips/GripsContext'
import { useKnownTune } from '../../services/tune/TuneContext'
import { useAnswer } from '../../services/workers/useAnswer'
import type { Easier } from '../../../core/voicing/ease'

/** A hard place of the line. */
export interface HardSpotShown {
  place: string
  effort: number
  /** Its chord's place in the line. */
  line: number
  easier: Easier | null
}

/** Hard places of a line that are named. */
const HARD_SPOTS = 4

/** The hardest places of the line that is chosen, each with an easier grip where there is one. */
export function useHardSpots(): HardSpotShown[] {
  const { document, reading, body } = useKnownTune()
  const { sounding, search, chosen } = useGrips()
  const line = search.current ? search.lines[chosen] : undefined
  const spots = useMemo(
    () =>
      line
        ? hardestSpots(
            line,
            sounding.map((one) => madeChord(one)!),
            HARD_SPOTS,
          )
        : [],
    [line, sounding],
  )
  const grips = spots.flatMap(({ index, chord }) => {
    const voicing = line?.voicings[index]
    return voicing ? [{ symbol: chord.canonical, frets: [...voicing.frets] }] : []
  })
  const easier = useAnswer(
    'search',
    'easier',
    grips.length > 0 ? { grips, capo: reading.chart.capo, bass: document.bass, body } : null,
    { inBackground: true },
  ).now
  return useMemo(
    () =>
      spots.map(({ index, effort }, at): HardSpotShown => ({
        place: placeName(itemAt(sounding, index).slot),
        effort,
        line: itemAt(sounding, index).index,
        easier: easier?.[at] ?? null,
      })),
    [spots, sounding, easier],
  )
}
