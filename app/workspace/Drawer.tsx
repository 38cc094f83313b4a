import Button from '@mui/material/Button'
import { useDeferredValue, useEffect, useRef, useState, type ReactNode } from 'react'
import { useListening } from '../services/forms/useListening'

/** Where the window is too narrow for a drawer beside the music, in px: it is a sheet pulled up over it. */
const NARROW = '(max-width: 900px)'

/** What is said of the selected chord: beside the music, or a sheet over it that opens at a touch on a chord. */
export function Drawer({ name, children }: { name: string; children: ReactNode }) {
  const [open, setOpen] = useState(false)
  // Come from another room, the player sees the music first, and what is said of its chord in the next frame.
  const there = useDeferredValue(true, !useListening())
  const box = useRef<HTMLElement>(null)
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
    <aside ref={box} className={open ? 'drawer open' : 'drawer'} aria-label={name}>
      <Button className="drawer-handle" variant="text" aria-expanded={open} onClick={() => setOpen(!open)}>
        {name} {open ? '▾' : '▴'}
      </Button>
      <div className="drawer-content">{there && children}</div>
    </aside>
  )
}
