import type { ReactNode } from 'react'
import { Places } from './Places'
import { ThemeSwitch } from './ThemeSwitch'

/**
 * The head of a page that is no tune: its title, the way to every place, and the theme. @param
 * children what else is said there
 */
export function PageHead({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <header className="songbook-head">
      <img src="/heron.svg" alt="" width="44" height="44" />
      <h1>{title}</h1>
      {children}
      <Places />
      <ThemeSwitch />
    </header>
  )
}
