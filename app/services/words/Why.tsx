import { createContext, useContext, useState, type ReactNode } from 'react'
import { engravedWords } from '../../../core/chord/engraved'
import { useOnChange } from './stable'

/** Whether every "why?" is open. */
export const WhyContext = createContext(false)

/** The reason for something computed, a touch away. */
export function Why({ children }: { children: string }) {
  const all = useContext(WhyContext)
  const [open, setOpen] = useState(all)
  useOnChange(all, setOpen)
  return (
    <details className="why-details" open={open} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>why?</summary>
      <p>{engravedWords(children)}</p>
    </details>
  )
}

/** Something said of a chord, with its reason. */
export function Fact({ name, why, children }: { name: string; why: string; children: ReactNode }) {
  return (
    <div className="fact">
      <dt>{name}</dt>
      <dd>
        {children} <Why>{why}</Why>
      </dd>
    </div>
  )
}
