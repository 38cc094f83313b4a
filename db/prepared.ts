import type { Db, Tx } from './connect'

/**
 * Questions that are asked again and again, put together once for a book, and once in each
 * transaction that asks for itself: that costs more than asking.
 */
export function preparedOn<Asked>(make: (db: Db | Tx) => Asked): (db: Db | Tx) => Asked {
  const known = new WeakMap<Db | Tx, Asked>()
  return (db) => {
    const made = known.get(db) ?? make(db)
    known.set(db, made)
    return made
  }
}
