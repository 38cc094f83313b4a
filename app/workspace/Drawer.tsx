import Button from '@mui/material/Button'
import { useDeferredValue, useEffect, useMemo, useState, type ReactNode } from 'react'
import { useListening } from '../services/forms/useListening'

/**
 * Where the window is too narrow for a drawer beside the music, in px: it is a sheet pulled up over
 * it.
 */
const NARROW = '(max-width: 900px)'

interface Props {
  name: string
  /** The player goes from chord to chord by keys. */
  walks: boolean
  children: ReactNode
}

/**
 * What is said of the selected chord: beside the music, or a sheet over it that opens at a touch on
 * a chord.
 */
export function Drawer({ name, walks, children }: Props) {
  const [open, setOpen] = useState(false)
  // Come from another room, or on the way from chord to chord by keys, the player sees the music
  // first, and what is said of the chord in the next frame: it does not hold up the next key. What
  // is done to a chord, or a touch on another, is seen here at once.
  const now = useMemo(() => ({ name, children }), [name, children])
  const listening = useListening()
  const late = useDeferredValue(now, listening ? { name, children: null } : now)
  /** The chord about which something was touched here. */
  const [touched, setTouched] = useState<string | null>(null)
  const said = late.children === null || (walks && touched !== name) ? late : now
  useEffect(() => {
    const touch = (event: MouseEvent) => {
      if (
        matchMedia(NARROW).matches &&
        (event.target as Element).closest(
          '.music .slot, .music .staff-note, .music .tab-event, .music .thread-column',
        )
      )
        setOpen(true)
    }
    const press = (event: KeyboardEvent) => {
      if (event.key === 'Escape') setOpen(false)
    }
    window.addEventListener('click', touch)
    window.addEventListener('keydown', press)
    return () => {
      window.removeEventListener('click', touch)
      window.removeEventListener('keydown', press)
    }
  }, [])
  return (
    <aside
      className={open ? 'drawer open' : 'drawer'}
      aria-label={said.name}
      onPointerDownCapture={() => setTouched(said.name)}
      aria-busy={said !== now || undefined}
    >
      <Button className="drawer-handle" variant="text" aria-expanded={open} onClick={() => setOpen(!open)}>
        {said.name} {open ? '▾' : '▴'}
      </Button>
      <div className="drawer-content">{said.children}</div>
    </aside>
  )
}
