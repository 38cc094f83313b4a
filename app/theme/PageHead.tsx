import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { ThemeSwitch } from './ThemeSwitch'

/** Pages that are reached from everywhere, in their order. */
const PAGES: readonly (readonly [address: string, label: string])[] = [
  ['/', 'Songbook'],
  ['/sets', 'Sets'],
  ['/log', 'Practice log'],
  ['/trainer', 'Trainer'],
  ['/grips', 'Grip book'],
  ['/player', 'Player'],
  ['/files', 'Files'],
  ['/guide', 'Guide'],
]

/** The head of a page that is no tune: its title, the way to the others, and the theme. @param here its address @param children what else is said there */
export function PageHead({ title, here, children }: { title: string; here: string; children?: ReactNode }) {
  return (
    <header className="songbook-head">
      <img src="/heron.svg" alt="" width="44" height="44" />
      <h1>{title}</h1>
      {children}
      <nav className="page-links" aria-label="Pages">
        {PAGES.filter(([address]) => address !== here).map(([address, label]) => (
          <Link key={address} to={address}>
            {label}
          </Link>
        ))}
      </nav>
      <ThemeSwitch />
    </header>
  )
}
