import { useEffect, useRef } from 'react'

/** A place only passed through is none that was left. */
const STAYED_MS = 1_500

/**
 * Keeps on the server where a tune is left: the step and the chord. Where it does not answer the
 * place before stays.
 */
export function usePlaceKept(tune: string, step: string, slot: string | null): void {
  const kept = useRef<string | null>(null)
  useEffect(() => {
    const place = JSON.stringify({ step, slot })
    // Where it was opened is where it was left.
    kept.current ??= place
    const send = () => {
      if (kept.current === place) return
      kept.current = place
      void fetch(`/tunes/${tune}/place`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: place,
        keepalive: true,
      }).catch(() => null)
    }
    const timer = setTimeout(send, STAYED_MS)
    addEventListener('pagehide', send)
    return () => {
      clearTimeout(timer)
      removeEventListener('pagehide', send)
    }
  }, [tune, step, slot])
}
