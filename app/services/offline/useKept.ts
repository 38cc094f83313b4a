import { useEffect, useRef } from 'react'
import { useLocation, useNavigate } from 'react-router'
import { keepForReading } from './offline'

/**
 * A kept page of a tune that was shown in place of another step goes on to that step, which is in
 * it too.
 */
export function useStepAskedFor(): void {
  const navigate = useNavigate()
  useEffect(() => {
    const step = /^#to-([a-z]+)$/.exec(location.hash)?.[1]
    if (step) void navigate(location.pathname.replace(/[a-z]+$/, step), { replace: true })
  }, [navigate])
}

/** A page that is only passed through is not kept. */
const STAYED_MS = 3_000
/** After an edit the pages of a tune are kept anew when nothing has been edited for so long. */
const RESTED_MS = 20_000

/** Keeps the page that is open, where it was gone to without loading a document. */
export function useKeptPage(): void {
  const { pathname, search } = useLocation()
  useEffect(() => {
    const timer = setTimeout(() => keepForReading([pathname + search]), STAYED_MS)
    return () => clearTimeout(timer)
  }, [pathname, search])
}

/**
 * Keeps what else of a tune is read away from here.
 * @param addresses what is kept, asked for when it is time
 * @param state what is on disk: when it is another one, they are kept anew; null while something is
 *   on its way there
 */
export function useKeptTune(addresses: () => readonly string[], state: unknown): void {
  const once = useRef(false)
  useEffect(() => {
    if (state === null) return
    const timer = setTimeout(
      () => {
        once.current = true
        keepForReading(addresses())
      },
      once.current ? RESTED_MS : STAYED_MS,
    )
    return () => clearTimeout(timer)
    // oxlint-disable-next-line react/exhaustive-deps -- asked for when it is time, as they are then
  }, [state])
}
