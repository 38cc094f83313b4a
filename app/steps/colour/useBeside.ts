import { useMemo, useState } from 'react'
import { newQuestion } from '../../../core/tune/questions'
import { madeChord, readingWith } from '../../../core/tune/tuneReading'
import { useKeptState } from '../../services/selection/SelectionContext'
import { useKnownTune } from '../../services/tune/TuneContext'
import { useLines } from '../../services/workers/useLines'
import type { WayBeside } from './FarControl'

/** A change of what stands beside is waited for so long before its grips are looked for, in ms. */
const PAUSE_MS = 120

/** A kept version, or a way that was found, beside the new line, in grips of its own. */
export function useBeside() {
  const { document, reading, body } = useKnownTune()
  const { chart } = reading
  const [name, setName] = useKeptState<string | null>('colour.beside', null)
  const [way, setWay] = useState<WayBeside | null>(null)
  const kept = useMemo(
    () => (way ? { ...document, ...way } : document.versions.find((version) => version.name === name)),
    [way, document, name],
  )
  const besideReading = useMemo(() => (kept ? readingWith(reading, kept) : null), [kept, reading])
  const sounding = useMemo(
    () => besideReading?.line.filter((chord) => madeChord(chord)) ?? [],
    [besideReading],
  )
  const { lines } = useLines(
    useMemo(() => (kept ? newQuestion(sounding, kept, chart, body) : null), [sounding, kept, chart, body]),
    { pauseMs: PAUSE_MS },
  )
  const [line] = lines
  return {
    name: way?.name ?? name,
    setWay,
    setName: (next: string | null) => {
      setWay(null)
      setName(next)
    },
    shown: useMemo(
      () =>
        kept && besideReading ? { name: kept.name, isKept: way === null, line: besideReading.line } : null,
      [kept, way, besideReading],
    ),
    heard: useMemo(
      () =>
        kept && besideReading
          ? {
              name: kept.name,
              reading: besideReading,
              midis: new Map(line?.voicings.map((voicing, at) => [sounding[at]?.key ?? '', voicing.midis])),
            }
          : null,
      [kept, besideReading, line, sounding],
    ),
  }
}
