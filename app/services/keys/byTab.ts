/**
 * Whether the focus came to where it is by Tab: then arrows and Space are the control's, after a
 * touch they are the music's.
 */
let tab = false

export const cameByTab = (): boolean => tab
export const focusTaken = (): void => {
  tab = false
}

/** Begins to watch; once for the page. */
export function watchTab(): () => void {
  const press = (event: KeyboardEvent) => {
    if (event.key === 'Tab') tab = true
  }
  window.addEventListener('keydown', press, true)
  window.addEventListener('pointerdown', focusTaken, true)
  return () => {
    window.removeEventListener('keydown', press, true)
    window.removeEventListener('pointerdown', focusTaken, true)
  }
}
