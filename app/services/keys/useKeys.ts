import { useEffect } from 'react'
import { flushSync } from 'react-dom'
import { cameByTab, focusTaken, watchTab } from './byTab'
import { useLatest } from '../words/stable'

/** What a key does; true when it was used. */
export type KeyHandler = (event: KeyboardEvent) => boolean

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    ['TEXTAREA', 'SELECT'].includes(target.tagName) ||
    (target.tagName === 'INPUT' && (target as HTMLInputElement).type !== 'range'))

/** Controls that use arrows, Home and End, digits and letters themselves. */
const CHOOSERS =
  '[role="combobox"], [role="listbox"], [role="menu"], [role="slider"], [role="spinbutton"], [role="tab"], input[type="range"]'
/** Controls that Enter and Space press. */
const PRESSED = 'button, a[href], summary, [role="button"], [role="radio"], [role="switch"]'
/** Parts of the music: what is selected there is the cursor itself. */
const MUSIC = '.slot'

/** The key belongs to the control that has the focus, and not to the selection. */
export function belongsToControl(
  { key, target }: Pick<KeyboardEvent, 'key' | 'target'>,
  byTab: boolean,
): boolean {
  if (!(target instanceof Element)) return false
  const control = target.closest(`${CHOOSERS}, ${PRESSED}`)
  if (!control || control.matches(MUSIC)) return false
  if (control.matches(CHOOSERS))
    return (
      key.length === 1 ||
      key === 'Enter' ||
      key.startsWith('Arrow') ||
      ['Home', 'End', 'Backspace', 'Escape'].includes(key)
    )
  // After a touch of a button Space is still play and stop; after Tab the button is what is
  // pressed.
  return key === 'Enter' || (key === ' ' && byTab)
}

/**
 * Keys that move or act on the selection: the focus goes where they act, so that the next key acts
 * there too.
 */
const OF_THE_SELECTION = /^(Arrow|Backspace$|Enter$|Escape$|Home$|End$|[0-9]$)/

/**
 * Listens to the page's keys while nobody is typing. There is one cursor: a key goes to the control
 * that has the focus where that control uses it; any other acts on the selection and takes the
 * focus along.
 * @param cursor the element of the present selection
 */
export function useKeys(handler: KeyHandler, cursor: () => HTMLElement | null): void {
  const latest = useLatest({ handler, cursor })
  useEffect(() => {
    const unwatch = watchTab()
    const listen = (event: KeyboardEvent) => {
      if (
        isTyping(event.target) ||
        document.querySelector('[role="dialog"], [role="menu"], [role="listbox"]')
      )
        return
      const modified = event.ctrlKey || event.metaKey || event.altKey
      if (!modified && belongsToControl(event, cameByTab())) return
      // Drawn at once: the next key may follow before the page would have had time, and must find
      // what this one did.
      let used = false
      flushSync(() => {
        used = latest.current.handler(event)
      })
      if (!used) return
      event.preventDefault()
      if (modified || !OF_THE_SELECTION.test(event.key)) return
      const there = latest.current.cursor()
      // Whoever goes along by keys sees where: the whole system, with its grips.
      there?.closest('.system')?.scrollIntoView({ block: 'nearest' })
      const now = document.activeElement
      if (!(now instanceof HTMLElement) || now === document.body || isTyping(now)) return
      focusTaken()
      if (there) there.focus({ preventScroll: true })
      else now.blur()
    }
    window.addEventListener('keydown', listen)
    return () => {
      window.removeEventListener('keydown', listen)
      unwatch()
    }
  }, [latest])
}
