import { useMemo } from 'react'
import { itemKey } from '../../../core/practice/grade'
import { itemsOf, type Item } from '../../../core/practice/items'
import { planOf, type Planned } from '../../../core/practice/plan'
import { chartOfLine } from '../../../core/tune/accompaniment'
import { lateHand, lateQuestion } from '../../../core/tune/lateHand'
import type { Voicing } from '../../../core/voicing/voicing'
import type { PracticeLog } from '../../services/practice/usePracticeLog'
import { useGrips } from '../../services/grips/GripsContext'
import { useKnownTune } from '../../services/tune/TuneContext'

/** What of the tune can be practised, and what of it is worth the minutes given. */
export function usePlan(
  { records, goals, today }: PracticeLog,
  minutes: number,
): { items: Item[]; plan: Planned[] } {
  const { document, reading, body } = useKnownTune()
  const { voicings } = useGrips()
  const { rhythm, bass, tempo } = document
  const question = useMemo(
    () => lateQuestion(reading, { rhythm, bass }, voicings, body),
    [reading, rhythm, bass, voicings, body],
  )
  // Without what would help it is quick enough for the page itself.
  const hand = useMemo(() => question && lateHand(question, false), [question])
  const items = useMemo(() => {
    const { chart, chordOf } = chartOfLine(reading, 'new')
    const grips = new Map(
      [...chordOf].flatMap(([slot, { key }]): [typeof slot, Voicing][] => {
        const voicing = voicings.get(key)
        return voicing && slot.symbol?.kind === 'chord' ? [[slot, voicing]] : []
      }),
    )
    return hand && grips.size > 0
      ? itemsOf({ chart, analysis: reading.analysis, grips, hand, goal: tempo })
      : NO_ITEMS
  }, [reading, voicings, hand, tempo])
  const plan = useMemo(
    () =>
      records === null
        ? NO_PLAN
        : planOf({
            items,
            records,
            goal: tempo,
            minutes,
            wanted: new Set([...goals.values()].filter(({ wanted }) => wanted).map(itemKey)),
            today,
          }),
    [items, records, goals, tempo, minutes, today],
  )
  return { items, plan }
}
const NO_ITEMS: Item[] = []
const NO_PLAN: Planned[] = []
