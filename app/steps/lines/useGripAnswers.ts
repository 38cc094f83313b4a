import { keyName } from '../../../core/pitch/key'
import type { LineChord } from '../../../core/tune/decisions'
import { nearQuestion } from '../../../core/tune/questions'
import { madeChord } from '../../../core/tune/tuneReading'
import { useGrips } from '../../services/grips/GripsContext'
import { useKnownTune } from '../../services/tune/TuneContext'
import { useAnswer } from '../../services/workers/useAnswer'

/**
 * What is asked about the grip of a chord: others near it, those related to it, and what can stand
 * between it and the next.
 */
export function useGripAnswers(focus: LineChord | undefined, next: LineChord | undefined) {
  const { document, reading, body } = useKnownTune()
  const { sounding, voicings } = useGrips()
  const { bass } = document
  const { capo } = reading.chart
  const symbol = focus && madeChord(focus)?.canonical
  const grip = focus && voicings.get(focus.key)
  const frets = grip && [...grip.frets]
  const near = useAnswer(
    'search',
    'grips',
    focus && symbol ? nearQuestion(focus, sounding, voicings, bass, capo, body) : null,
    { inBackground: true },
  )
  const related = useAnswer(
    'search',
    'related',
    frets && symbol ? { symbol, frets, capo, bass, key: keyName(reading.analysis.key), body } : null,
    { inBackground: true },
  )
  const between = useAnswer(
    'search',
    'between',
    frets && symbol && next
      ? {
          symbol,
          frets,
          next: { symbol: madeChord(next)!.canonical, frets: voicings.get(next.key)?.frets ?? null },
          capo,
          bass,
          body,
        }
      : null,
    { inBackground: true },
  )
  return { near: near.now, related: related.now, between: between.now }
}
