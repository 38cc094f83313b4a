import { useMemo, useState } from 'react'
import { melodyOf } from '../../../core/tune/applyMelody'
import { phrasesOf } from '../../../core/melody/phrases'
import { walkOf, type Walked } from '../../../core/practice/walk'
import { useKnownTune } from '../../services/tune/TuneContext'

export interface Walking {
  phrases: readonly Walked[]
  at: number
  now: Walked | null
  /** Chords that were met with doubt on this walk, by key. */
  doubts: ReadonlySet<string>
  /** It is at the last phrase. */
  last: boolean
  next: () => void
  back: () => void
  doubt: (key: string) => void
  again: () => void
}

/**
 * Phrase by phrase through the tune, without time: where the walk is, and what was doubtful on it.
 */
export function useWalk(): Walking {
  const { document, reading } = useKnownTune()
  const { line, chart } = reading
  const phrases = useMemo(
    () =>
      walkOf(
        line.map(({ slot }) => slot),
        chart.bars,
        phrasesOf(chart, melodyOf(document), document.phrases),
      ),
    [line, chart, document],
  )
  const [at, setAt] = useState(0)
  const [doubts, setDoubts] = useState<ReadonlySet<string>>(new Set())
  const here = Math.min(at, Math.max(0, phrases.length - 1))
  return {
    phrases,
    at: here,
    now: phrases[here] ?? null,
    doubts,
    last: here >= phrases.length - 1,
    next: () => setAt(Math.min(phrases.length - 1, here + 1)),
    back: () => setAt(Math.max(0, here - 1)),
    doubt: (key) => setDoubts(new Set([...doubts, key])),
    again: () => {
      setAt(0)
      setDoubts(new Set())
    },
  }
}
