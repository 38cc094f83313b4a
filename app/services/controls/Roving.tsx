import { itemAt } from '../../../core/lists'
import { useEffect, useRef, type HTMLAttributes, type KeyboardEvent } from 'react'
import { cameByTab } from '../keys/byTab'

/** What the arrows go through. */
const ITEMS = 'button:not(:disabled), a[href], [role="combobox"]'
const CHOSEN = '[aria-checked="true"], [aria-pressed="true"], [aria-current]'

interface Props extends HTMLAttributes<HTMLElement> {
  as?: 'div' | 'nav' | 'ol' | 'footer' | 'section'
}

/**
 * Several controls with one Tab stop: the arrows, Home and End go from one to the next. The stop is
 * the one that was used last, else the chosen one, else the first.
 */
export function Roving({ as: Box = 'div', children, onKeyDown, ...rest }: Props) {
  const box = useRef<HTMLElement>(null)
  const itemsOf = () =>
    [...(box.current?.querySelectorAll<HTMLElement>(ITEMS) ?? [])].filter((one) => one.offsetParent !== null)
  const stopAt = (wanted?: HTMLElement) => {
    const items = itemsOf()
    const stop =
      wanted ??
      items.find((one) => one === document.activeElement) ??
      items.find((one) => one.dataset.used !== undefined) ??
      items.find((one) => one.matches(CHOSEN)) ??
      items[0]
    for (const one of items) {
      if (one === stop) one.removeAttribute('tabindex')
      else one.tabIndex = -1
      if (wanted) {
        if (one === wanted) one.dataset.used = ''
        else delete one.dataset.used
      }
    }
    if (stop && stop.getAttribute('role') === 'combobox') stop.tabIndex = 0
  }
  const later = useRef<ReturnType<typeof setTimeout>>(undefined)
  useEffect(() => {
    // Behind the picture: to ask what is visible before it would have everything laid out once more
    // for each set of controls.
    const soon = () => {
      clearTimeout(later.current)
      later.current = setTimeout(stopAt)
    }
    soon()
    const watch = new MutationObserver(soon)
    watch.observe(box.current!, { childList: true, subtree: true })
    return () => watch.disconnect()
  })
  useEffect(() => () => clearTimeout(later.current), [])
  const onKey = (event: KeyboardEvent<HTMLElement>) => {
    onKeyDown?.(event)
    const items = itemsOf()
    const at = items.indexOf(event.target as HTMLElement)
    const to =
      at < 0 || !cameByTab() || event.altKey || event.ctrlKey || event.metaKey
        ? undefined
        : placeAfter(event.key, at, items.length)
    if (to === undefined) return
    event.preventDefault()
    event.stopPropagation()
    stopAt(items[to])
    itemAt(items, to).focus()
  }
  return (
    <Box
      {...rest}
      ref={box as never}
      onKeyDown={onKey}
      onFocus={(event) => {
        const target = event.target as HTMLElement
        if (itemsOf().includes(target)) stopAt(target)
      }}
    >
      {children}
    </Box>
  )
}

function placeAfter(key: string, at: number, count: number): number | undefined {
  if (key === 'ArrowRight' || key === 'ArrowDown') return (at + 1) % count
  if (key === 'ArrowLeft' || key === 'ArrowUp') return (at - 1 + count) % count
  if (key === 'Home') return 0
  return key === 'End' ? count - 1 : undefined
}
