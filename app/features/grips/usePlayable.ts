import { useMemo } from 'react'
import { parseChord } from '../../../core/chord/parseChord'
import type { ChordSymbol } from '../../../core/chord/symbol'
import { limitsFor } from '../../../core/player/playerLimits'
import { fretsHere } from '../../../core/tune/sounding'
import { voicingOf, type Voicing } from '../../../core/voicing/voicing'
import type { BookGrip } from '../../../db/grips'
import { usePlayerSettings } from '../../services/player/PlayerContext'

/** A grip of the book as it is played here. */
export interface PlayableGrip {
  kept: BookGrip
  chord: ChordSymbol
  voicing: Voicing
  /** It was kept for other open strings, and lies elsewhere on these. */
  moved: boolean
}

/**
 * Those grips of the book that can be played on these open strings by this hand: one kept for
 * others is shown at the same pitches, where they can be had.
 */
export function usePlayable(grips: readonly BookGrip[]): PlayableGrip[] {
  const { settings } = usePlayerSettings()
  return useMemo(() => {
    const own = limitsFor(settings, 0, 'any')
    const wholeNeck = { ...own, frets: [0, settings.instrument.frets] as const }
    return grips.flatMap((kept): PlayableGrip[] => {
      const chord = parseChord(kept.symbol)
      if (!chord.ok) return []
      const here = fretsHere(kept.frets, kept.instrument ?? undefined, chord.value, wholeNeck)
      const voicing = here && voicingOf(here.frets, chord.value, own)
      return voicing ? [{ kept, chord: chord.value, voicing, moved: here.moved }] : []
    })
  }, [grips, settings])
}
