import type { TuneDocument } from '../../../core/tune/document'
import type { TuneReading } from '../../../core/tune/tuneReading'
import type { TuneSession } from '../../services/tune/session'
import { useStableCallback } from '../../services/words/stable'
import { ChartEditor } from './ChartEditor'

/**
 * What stands over the systems of the chart: its text. Redrawn at every key press, so it is handed
 * only what concerns it.
 */
export function ChartHead({
  document,
  session,
  reading,
}: {
  document: TuneDocument
  session: TuneSession
  reading: TuneReading
}) {
  const onText = useStableCallback((text: string) => session.edit({ kind: 'text', text }))
  const onStep = useStableCallback((direction: 'undo' | 'redo') => void session.step(direction))
  const onLeave = useStableCallback(() => void session.flush())
  return (
    <ChartEditor text={document.text} reading={reading} onText={onText} onLeave={onLeave} onStep={onStep} />
  )
}
