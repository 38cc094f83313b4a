import { itemKey } from '../../../core/practice/grade'
import { AREAS, type Item } from '../../../core/practice/items'
import type { PracticeMode, Practised } from './PracticeBar'
import type { usePasses } from './usePasses'

/** What is practised in a mode of its own. */
const MODE_OF: Readonly<Partial<Record<Item['kind'], PracticeMode>>> = { cadence: 'areas', keys: 'keys' }

const AREA = /frets (\d+) to/
const AREA_STARTS = AREAS.map(([low]): number => low)

interface ChoosingOf {
  items: readonly Item[]
  set: Practised
  onSet: (set: Practised) => void
  passes: ReturnType<typeof usePasses>
  onPick: (item: string) => void
  /** How far the way through the keys is to have come. */
  onKey: (at: number) => void
}

/** What is practised and how, chosen by hand: what is under way is left. */
export function useChoosing({ items, set, onSet, passes, onPick, onKey }: ChoosingOf) {
  const { round } = passes
  const change = (more: Partial<Practised>) => {
    round.leave()
    onSet({ ...set, ...more })
  }
  const choose = ({ kind, item: name }: Pick<Item, 'kind' | 'item'>) => {
    round.leave()
    passes.unhurt()
    onPick(itemKey({ kind, item: name }))
    const mode = MODE_OF[kind] ?? set.mode
    const area = AREA.exec(name)
    if (kind === 'cadence') onSet({ ...set, mode, area: area ? AREA_STARTS.indexOf(Number(area[1])) : 0 })
    else if (kind === 'keys') {
      const wanted = items.filter((one) => one.kind === 'keys').findIndex((one) => one.item === name)
      onSet({ ...set, mode, order: 'fourths' })
      onKey(wanted + 1)
    } else if (set.mode === 'areas' || set.mode === 'keys' || set.mode === 'walk')
      onSet({ ...set, mode: 'ladder' })
  }
  return { change, choose }
}
