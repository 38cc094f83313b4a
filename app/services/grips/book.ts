import { useCallback, useEffect, useMemo, useState } from 'react'

/** The grip of a chord as the book knows it. */
export const shapeKey = (symbol: string, frets: readonly (number | null)[]): string =>
  `${symbol} ${frets.map((fret) => fret ?? 'x').join(' ')}`

export interface KnownBook {
  /** Null while it is not known. */
  isKept: (symbol: string, frets: readonly (number | null)[]) => boolean | null
  /** Puts a grip in; `trouble` says why it could not be. */
  keep: (symbol: string, frets: readonly (number | null)[]) => Promise<void>
  trouble: string | null
}

/**
 * The grip book as a tune knows it: what is in it, and a grip put in behind the screen, with the
 * answer awaited.
 * @param on the book is asked for only where it is shown
 */
export function useBook(on: boolean, instrument: string): KnownBook {
  const [kept, setKept] = useState<ReadonlySet<string> | null>(null)
  const [trouble, setTrouble] = useState<string | null>(null)
  useEffect(() => {
    if (!on) return
    let here = true
    void ask().then((answer) => {
      if (here && 'kept' in answer) setKept(new Set(answer.kept))
    })
    return () => {
      here = false
    }
  }, [on])
  const keep = useCallback(
    async (symbol: string, frets: readonly (number | null)[]) => {
      const answer = await ask({ symbol, frets, instrument })
      if ('kept' in answer) setKept(new Set(answer.kept))
      setTrouble('kept' in answer ? null : answer.message)
    },
    [instrument],
  )
  return useMemo(
    () => ({ isKept: (symbol, frets) => (kept ? kept.has(shapeKey(symbol, frets)) : null), keep, trouble }),
    [kept, keep, trouble],
  )
}

async function ask(put?: unknown): Promise<{ kept: string[] } | { message: string }> {
  try {
    const response = await fetch(
      '/grips/kept',
      put
        ? { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(put) }
        : {},
    )
    const answer = JSON.parse(await response.text()) as { kept?: string[]; message?: string }
    return answer.kept
      ? { kept: answer.kept }
      : { message: answer.message ?? 'The grip book does not answer.' }
  } catch {
    return {
      message: 'The server does not answer: the grip is not in the book yet. Try again when it is back.',
    }
  }
}
