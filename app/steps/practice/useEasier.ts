import { useMemo } from 'react'
import type { PlayerBody } from '../../../core/player/playerLimits'
import type { Bass } from '../../../core/tune/document'
import { useAnswer } from '../../services/workers/useAnswer'
import type { EasierHere } from './PracticeDrawer'
import type { Staged } from './stagedGrips'

/** Easier grips for those of a passage that hurt; none while nothing does. */
export function useEasier(hurt: Staged | null, capo: number, bass: Bass, body: PlayerBody): EasierHere[] {
  const question = useMemo(
    () =>
      hurt && {
        grips: hurt.chords.flatMap(({ chord, voicing }) =>
          voicing ? [{ symbol: chord.canonical, frets: voicing.frets }] : [],
        ),
        capo,
        bass,
        body,
      },
    [hurt, capo, bass, body],
  )
  const easing = useAnswer('search', 'easier', question).now
  return (hurt?.chords.filter(({ voicing }) => voicing) ?? []).flatMap(({ key, chord }, at): EasierHere[] => {
    const found = easing?.[at]
    return found ? [{ key, symbol: chord.canonical, easier: found }] : []
  })
}
