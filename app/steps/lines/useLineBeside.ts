import { useMemo } from 'react'
import { useGrips } from '../../services/grips/GripsContext'
import { useKnownTune } from '../../services/tune/TuneContext'

/**
 * Another of the lines found, heard beside the one that is chosen; null where there is none, or it
 * is the same.
 */
export function useLineBeside(at: number | null) {
  const { reading } = useKnownTune()
  const { sounding, search, chosen } = useGrips()
  const line = at !== null && at !== chosen && search.current ? search.lines[at] : undefined
  return useMemo(
    () =>
      line
        ? {
            name: `line ${at! + 1}`,
            reading,
            midis: new Map(
              line.voicings.map((voicing, index) => [sounding[index]?.key ?? '', voicing.midis]),
            ),
          }
        : null,
    [line, at, reading, sounding],
  )
}
