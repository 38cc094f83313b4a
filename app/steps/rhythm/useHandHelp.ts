import { useMemo } from 'react'
import { slotKey } from '../../../core/chart/chart'
import type { Help } from '../../../core/rhythm/handTempo'
import type { LineChord } from '../../../core/tune/decisions'
import { lateQuestion } from '../../../core/tune/lateHand'
import { madeChord } from '../../../core/tune/tuneReading'
import type { Rhythm } from '../../../core/tune/rhythmSchema'
import { useGrips } from '../../services/grips/GripsContext'
import { useKnownTune } from '../../services/tune/TuneContext'
import { useAnswer } from '../../services/workers/useAnswer'
import { asOne, changeHit, moveHit } from './handHits'
import { placeOfHit } from './RhythmRow'
import type { Hits } from './useHits'

/** A change of a setting is waited for so long before the hand is asked again, in ms. */
const PAUSE_MS = 250

/** Changes for which the hand has too little time, and what would help. */
export function useHandHelp(
  rhythm: Rhythm,
  { played }: Pick<Hits, 'played'>,
  onFigure: (figure: Rhythm['figure']) => void,
) {
  const { document, reading, body, edit } = useKnownTune()
  const { chart, line } = reading
  const { voicings } = useGrips()
  const { bass } = document
  const question = useMemo(
    () => lateQuestion(reading, { rhythm, bass }, voicings, body),
    [reading, rhythm, bass, voicings, body],
  )
  const late = useAnswer('search', 'late', question, { inBackground: true, pauseMs: PAUSE_MS }).answer
  const grips = useMemo(() => line.filter((one) => madeChord(one) && voicings.has(one.key)), [line, voicings])
  const help = ({ kind, frets, figure, at }: Help, into: LineChord) => {
    if (kind === 'grip' && frets) return edit({ kind: 'fix', slot: into.key, frets: [...frets] })
    if (kind === 'figure' && figure) return onFigure(figure)
    const struck = at && played.hits.filter((one) => placeOfHit(one) === placeOfHit(at))
    if (!struck?.[0]) return
    if (kind === 'shorter') return edit(changeHit(struck, 'shorter'))
    if (kind === 'later') {
      const later = moveHit(chart, struck, 0.5)
      if (later) edit(later.edit)
      return
    }
    edit({
      kind: 'rhythm-hits',
      hits: { [placeOfHit(at!)]: null, [slotKey(into.slot)]: { ...asOne(struck), push: false } },
      free: [],
      did: 'struck on the beat',
    })
  }
  return {
    late,
    grips,
    help,
    /** Does what gains most for the change that is latest; false where nothing helps. */
    helpMost: (): boolean => {
      const [worst] = late?.changes ?? []
      const into = worst && grips[worst.to]
      const [best] = worst?.help ?? []
      if (into && best) help(best, into)
      return into !== undefined && best !== undefined
    },
  }
}
