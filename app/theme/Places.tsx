import { useRef } from 'react'
import { Link, useLocation } from 'react-router'

/** What is reached from everywhere, always in this order. */
export const PLACES: readonly (readonly [address: string, label: string])[] = [
  ['/', 'Songbook'],
  ['/sets', 'Sets'],
  ['/log', 'Practice'],
  ['/trainer', 'Trainer'],
  ['/grips', 'Grip book'],
  ['/player', 'Player'],
  ['/files', 'Files'],
  ['/guide', 'Guide'],
]

/**
 * The place that an address belongs to: a set is of the sets, a tune and a deleted one are of the
 * songbook.
 */
export function sectionOfAddress(path: string): string | null {
  if (/^\/($|deleted|tunes\/)/.test(path)) return '/'
  return (
    PLACES.map(([address]) => address).find(
      (one) => one !== '/' && (path === one || path.startsWith(`${one}/`)),
    ) ?? null
  )
}

function PlaceLinks() {
  const here = sectionOfAddress(useLocation().pathname)
  return PLACES.map(([address, label]) => (
    <Link key={address} to={address} aria-current={address === here ? 'page' : undefined}>
      {label}
    </Link>
  ))
}

/** All places side by side; where the window is narrow, under one button. */
export function Places() {
  return (
    <>
      <nav className="places" aria-label="Places">
        <PlaceLinks />
      </nav>
      <PlacesMenu words="Places" className="places-narrow" />
    </>
  )
}

/** All places behind one button: the heron, inside a tune. Opens before scripts listen too. */
export function PlacesMenu({ words, className = '' }: { words?: string; className?: string }) {
  const menu = useRef<HTMLDetailsElement>(null)
  const close = () => menu.current?.removeAttribute('open')
  return (
    <details
      ref={menu}
      className={`places-menu ${className}`}
      onKeyDown={(event) => {
        if (event.key !== 'Escape' || !menu.current?.open) return
        event.stopPropagation()
        close()
        menu.current.querySelector('summary')?.focus()
      }}
      onBlur={({ currentTarget, relatedTarget }) => {
        if (relatedTarget && !currentTarget.contains(relatedTarget as Node)) close()
      }}
    >
      <summary aria-label={words ? undefined : 'Places'} title={words ? undefined : 'Places'}>
        {words ?? <img src="/heron.svg" alt="" width="28" height="28" />}
      </summary>
      <nav aria-label="Places" onClick={close}>
        <PlaceLinks />
      </nav>
    </details>
  )
}
