import { itemKey } from '../../../core/practice/grade'
import type { Item } from '../../../core/practice/items'
import type { KeyRow } from '../../services/keys/keyTable'
import { keysOf } from './keysOf'
import type { usePasses } from './usePasses'
import type { useWalk } from './useWalk'

interface PracticeKeysOf {
  passes: ReturnType<typeof usePasses>
  /** It is played without its grips in sight. */
  memory: boolean
  /** The walk that is under way; null elsewhere. */
  walk: ReturnType<typeof useWalk> | null
  /** What the plan has to play, and what of it is on the stage. */
  parts: readonly Pick<Item, 'kind' | 'item'>[]
  item: Pick<Item, 'kind' | 'item'> | null
  onDoubt: () => void
  onChoose: (item: Pick<Item, 'kind' | 'item'>) => void
  onNextMode: () => void
}

/** The keys of the Practice step, and what they do to what is on the stage. */
export const practiceKeys = ({
  passes,
  memory,
  walk,
  parts,
  item,
  onDoubt,
  onChoose,
  onNextMode,
}: PracticeKeysOf): KeyRow[] =>
  keysOf({
    press: passes.press,
    grade: (grade) => {
      if (passes.round.round.at !== 'asked') return false
      passes.round.grade(grade)

      return true
    },
    peek: () => {
      if (!memory) return false
      passes.peek()

      return true
    },
    doubt: onDoubt,
    shift: passes.visit.shift,
    go: (by) => {
      if (walk) return by > 0 ? walk.next() : walk.back()
      const at = parts.findIndex((one) => item && itemKey(one) === itemKey(item))
      const other = parts[(at + by + parts.length) % parts.length]
      if (!other) return false
      onChoose(other)
    },
    nextMode: onNextMode,
  })
