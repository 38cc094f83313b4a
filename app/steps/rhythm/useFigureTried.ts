import { useMemo, useState } from 'react'
import { meterName } from '../../../core/chart/chart'
import { figuresFor } from '../../../core/rhythm/figures'
import type { Rhythm } from '../../../core/tune/rhythmSchema'
import { usePlaying, useSound } from '../../services/sound/SoundContext'
import { useKnownTune } from '../../services/tune/TuneContext'

/** Figures that fit the tune's metre, and the one that is heard on it without being kept. */
export function useFigureTried() {
  const { document, reading } = useKnownTune()
  const { playWhenChanged } = useSound()
  const { playing } = usePlaying()
  const { meter } = reading.chart
  const { rhythm } = document
  const [tried, setTried] = useState<number | null>(null)
  const figures = useMemo(() => figuresFor(meterName(meter)), [meter])
  const asTried = useMemo(
    (): Rhythm => (tried !== null && figures[tried] ? { ...rhythm, figure: figures[tried].name } : rhythm),
    [tried, figures, rhythm],
  )
  return {
    figures,
    tried,
    /** The accompaniment with the figure that is tried, else as it is kept. */
    rhythm: asTried,
    leave: () => setTried(null),
    hear: (at: number | null) => {
      setTried(at)
      if (!playing && at !== null) playWhenChanged()
    },
  }
}
export type FigureTried = ReturnType<typeof useFigureTried>
