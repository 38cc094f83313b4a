import { useEffect, useMemo, useRef } from 'react'
import { gripsOfLine } from '../../../core/tune/keptGrips'
import { missingGrips } from '../../../core/tune/searchQuestion'
import type { AskedState } from '../../services/workers/useAnswer'
import { useLines } from '../../services/workers/useLines'
import type { PlayerBody } from '../../../core/player/playerLimits'
import { sendWrite } from '../../services/tune/writeAnswer'
import type { TuneDocument } from '../../../core/tune/document'
import { onInstrument, stringingOf } from '../../../core/tune/sounding'
import { readTuneDocument } from '../../../core/tune/tuneReading'
import { useLatest } from '../../services/words/stable'

/**
 * Looks in a worker for a grip for every chord of the line that has none, and keeps them with the
 * tune. @param onKept told once they are kept
 */
export function useEveryGrip(
  id: string,
  revision: string,
  document: TuneDocument,
  body: PlayerBody,
  wanted: boolean,
  onKept: () => void,
): { state: AskedState; stop: () => void; again: () => void } {
  const reading = useMemo(() => readTuneDocument(document, 'case', body), [document, body])
  const missing = useMemo(
    () => (wanted ? missingGrips(document, reading, body) : null),
    [wanted, document, reading, body],
  )
  const search = useLines(missing?.question ?? null)
  const line = search.current ? search.lines[0] : undefined
  const on = stringingOf(body, reading.chart.capo)
  const filled = useMemo((): TuneDocument => {
    if (!line || !missing) return document
    const grips = gripsOfLine(line, missing.sounding)
    return {
      ...document,
      grips,
      gripsOn: Object.fromEntries(
        Object.keys(grips).map((place) => [
          place,
          place in document.fixed ? (document.gripsOn[place] ?? on) : on,
        ]),
      ),
    }
  }, [document, line, missing, on])
  // Kept once, so that pages and files have them too. Where the tune has changed since, or the
  // server is away, they are found again next time.
  const kept = useRef<TuneDocument | null>(null)
  const onAnswer = useLatest(onKept)
  useEffect(() => {
    if (filled === document || kept.current === filled) return
    kept.current = filled
    void sendWrite(`/tunes/${id}/edits`, {
      id: crypto.randomUUID(),
      base: revision,
      edit: onInstrument({ kind: 'grips', grips: filled.grips }, on),
    }).then(() => onAnswer.current())
  }, [filled, document, id, revision, on, onAnswer])
  return { state: search.state, stop: search.stop, again: search.again }
}
