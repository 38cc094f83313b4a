import { useState } from 'react'

/** The tunes something is done with at once, of those shown, in their order. */
export function useChoice(shown: readonly string[]) {
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set())
  const [last, setLast] = useState<string | null>(null)
  const choose = (id: string, on: boolean, stretch: boolean) => {
    const [a, b] = [shown.indexOf(last ?? id), shown.indexOf(id)]
    const which = stretch && a >= 0 ? shown.slice(Math.min(a, b), Math.max(a, b) + 1) : [id]
    const next = new Set(picked)
    for (const one of which)
      if (on) next.add(one)
      else next.delete(one)
    setPicked(next)
    setLast(id)
  }
  return {
    chosen: shown.filter((id) => picked.has(id)),
    choose,
    chooseAll: () => setPicked(new Set(shown)),
    chooseNone: () => setPicked(new Set()),
  }
}
