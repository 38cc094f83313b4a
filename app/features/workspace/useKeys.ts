import { useEffect, useRef } from 'react'
import { flushSync } from 'react-dom'

/** What a key does; true when it was used. */
export type KeyHandler = (event: KeyboardEvent) => boolean

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || ['TEXTAREA', 'SELECT'].includes(target.tagName) ||
    (target.tagName === 'INPUT' && (target as HTMLInputElement).type !== 'range'))

/** Listens to the page's keys while nobody is typing; undo and redo are heard even then, outside text fields' own. */
export function useKeys(handler: KeyHandler): void {
  const latest = useRef(handler)
  latest.current = handler
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (isTyping(event.target) || document.querySelector('[role="dialog"]')) return
      // Drawn at once: the next key may follow before the page would have had time, and must find what this one did.
      let used = false
      flushSync(() => { used = latest.current(event) })
      if (used) event.preventDefault()
    }
    window.addEventListener('keydown', listen)
    return () => window.removeEventListener('keydown', listen)
  }, [])
}
