import { useEffect } from 'react'
import { useSelection } from '../../services/selection/SelectionContext'
import type { Staged } from './stagedGrips'

/** The stretch on the stage is the one selected in the music, and its system is in sight. */
export function useInSight(stage: Staged | null): void {
  const { selectLineRange } = useSelection()
  const span = stage?.chords.filter(({ index }) => index >= 0)
  const [from, to] = [span?.[0]?.index ?? -1, span?.at(-1)?.index ?? -1]
  useEffect(() => {
    if (from < 0) return
    selectLineRange(from, to)
    // Once the selection is drawn, its system comes under the stage; where the stage does not stay
    // in sight, it is the stage that matters.
    if (!matchMedia('(min-width: 901px)').matches) return
    const drawn = requestAnimationFrame(() =>
      window.document
        .querySelector(`.bank-new [data-slot='${from}']`)
        ?.closest('.system')
        ?.scrollIntoView({ block: 'start' }),
    )
    return () => cancelAnimationFrame(drawn)
  }, [from, to, selectLineRange])
}
