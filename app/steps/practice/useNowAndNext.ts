import { firstOf } from '../../../core/lists'
import { limitsFor } from '../../../core/player/playerLimits'
import { topNoteOf } from '../../../core/practice/walk'
import type { Voicing } from '../../../core/voicing/voicing'
import { useGrips } from '../../services/grips/GripsContext'
import { useSoundingIn } from '../../services/sound/SoundContext'
import { useKnownTune } from '../../services/tune/TuneContext'
import type { Staged } from './stagedGrips'
import type { useWalk } from './useWalk'
import { nextOfWalk } from './walkInWords'

/**
 * The chord that is played now on the stage, and the one after it. @param walk the walk that is
 * under way, if any: there the last one that came is now
 */
export function useNowAndNext(stage: Staged | null, walk: ReturnType<typeof useWalk> | null) {
  const { reading } = useKnownTune()
  const { voicings } = useGrips()
  const sounding = useSoundingIn('new')
  const chords = stage?.chords ?? []
  const playedNow = chords.findIndex(({ index }) => index >= 0 && index === sounding)
  const at = walk ? chords.length - 1 : Math.max(0, playedNow)
  return {
    now: chords[at] ?? null,
    next: walk
      ? nextOfWalk(walk, reading.line, voicings)
      : (chords[at + 1] ?? (chords.length > 1 ? firstOf(chords) : null)),
  }
}

/** The note on top of a grip on the player's instrument, in the tune's key. */
export function useTopNote() {
  const { reading, body } = useKnownTune()
  const { instrument } = limitsFor(body, reading.chart.capo, 'any')
  return (held: Voicing) => topNoteOf(held, reading.analysis.key, instrument, body.instrument.cutaway)
}
