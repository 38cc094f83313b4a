import { useCallback, useInsertionEffect, useRef, useState, type RefObject } from 'react'

/** What was given last, for callbacks and effects: not to be read while drawing. */
export function useLatest<T>(value: T): Readonly<RefObject<T>> {
  const latest = useRef(value)
  useInsertionEffect(() => {
    latest.current = value
  })
  return latest
}

/**
 * A function that is the same at every drawing and does what the latest one would: parts that only
 * take it need not be drawn again.
 */
export function useStableCallback<Arguments extends unknown[], Result>(
  act: (...args: Arguments) => Result,
): (...args: Arguments) => Result {
  const latest = useLatest(act)
  return useCallback((...args: Arguments) => latest.current(...args), [latest])
}

/** The value of the drawing before as long as it is equal to the new one. */
export function useStableValue<T>(value: T, equal: (a: T, b: T) => boolean): T {
  const [kept, setKept] = useState(value)
  if (kept === value || equal(kept, value)) return kept
  setKept(value)
  return value
}

/**
 * Sets state that follows from a value, in the drawing in which the value has become another: an
 * effect would draw once with the old state.
 */
export function useOnChange<T>(value: T, follow: (value: T) => void): void {
  const [before, setBefore] = useState(value)
  if (Object.is(before, value)) return
  setBefore(value)
  follow(value)
}

/** Whether something is so, or ever was. */
export function useEver(so: boolean): boolean {
  const [ever, setEver] = useState(so)
  if (so && !ever) setEver(true)
  return ever || so
}
