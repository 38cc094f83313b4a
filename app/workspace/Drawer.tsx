import Button from '@mui/material/Button'
import { useDeferredValue, useEffect, useMemo, useState, type ReactNode } from 'react'
import { useListening } from '../services/forms/useListening'

/** Where the window is too narrow for a drawer beside the music, in px: it is a sheet pulled up over it. */
const NARROW = '(max-width: 900px)'

/** What is said of the selected chord: beside the music, or a sheet over it that opens at a touch on a chord. */
export function Drawer({ name, children }: { name: string; children: ReactNode }) {
  const [open, setOpen] = useState(false)
  // The music goes first: what is said of a chord comes in the frame after the one in which it is seen to be selected, and does not hold up the next key.
  const now = useMemo(() => ({ name, children }), [name, children])
  const listening = useListening()
  const said = useDeferredValue(now, listening ? { name, children: null } : now)
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
      aria-busy={said !== now || undefined}
    >
      <Button className="drawer-handle" variant="text" aria-expanded={open} onClick={() => setOpen(!open)}>
        {said.name} {open ? '▾' : '▴'}
      </Button>
      <div className="drawer-content">{said.children}</div>
    </aside>
  )
}
