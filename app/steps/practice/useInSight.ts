import { useEffect } from 'react'
import { useSelection } from '../../services/selection/SelectionContext'
import type { Staged } from './stagedGrips'

/** What comes late above the stretch moves it away: it is followed for so long, in ms. */
const FOLLOWED_MS = 5_000
/** Whoever looks elsewhere is not pulled back. */
const LOOKS_AWAY = ['wheel', 'pointerdown', 'touchstart', 'keydown'] as const

/** The stretch on the stage is the one selected in the music, and its system is in sight. */
export function useInSight(stage: Staged | null): void {
  const { selectLineRange } = useSelection()
  const span = stage?.chords.filter(({ index }) => index >= 0)
  const [from, to] = [span?.[0]?.index ?? -1, span?.at(-1)?.index ?? -1]
  useEffect(() => {
    if (from < 0) return
    selectLineRange(from, to)
    // Where the stage does not stay in sight, it is the stage that matters.
    if (!matchMedia('(min-width: 901px)').matches) return
    return keepInSight(from)
  }, [from, to, selectLineRange])
}

/**
 * Puts the system of a chord of the new line under the stage once it is drawn, and again while the
 * systems above it get their rows. @returns what ends it
 */
function keepInSight(index: number): () => void {
  const ended = new AbortController()
  const end = () => ended.abort()
  let frame = 0
  const begin = () => {
    const system = document.querySelector(`.bank-new [data-slot='${index}']`)?.closest('.system')
    if (!system?.parentElement) {
      frame = requestAnimationFrame(begin)
      return
    }
    const watch = new ResizeObserver(() => system.scrollIntoView({ block: 'start' }))
    watch.observe(system.parentElement)
    const timer = setTimeout(end, FOLLOWED_MS)
    ended.signal.addEventListener('abort', () => {
      watch.disconnect()
      clearTimeout(timer)
    })
  }
  frame = requestAnimationFrame(begin)
  ended.signal.addEventListener('abort', () => cancelAnimationFrame(frame))
  for (const looks of LOOKS_AWAY)
    addEventListener(looks, end, { capture: true, passive: true, signal: ended.signal })
  return end
}
