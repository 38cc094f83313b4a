import { useCallback, useRef } from 'react'

/**
 * A function that is the same at every drawing and does what the latest one would: parts that only
 * take it need not be drawn again.
 */
export function useStableCallback<Arguments extends unknown[], Result>(
  act: (...args: Arguments) => Result,
): (...args: Arguments) => Result {
  const latest = useRef(act)
  latest.current = act
  return useCallback((...args: Arguments) => latest.current(...args), [])
}

/** The value of the drawing before as long as it is equal to the new one. */
export function useStableValue<T>(value: T, equal: (a: T, b: T) => boolean): T {
  const kept = useRef(value)
  if (kept.current !== value && !equal(kept.current, value)) kept.current = value
  return kept.current
}
