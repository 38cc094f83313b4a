/**
 * Items that the code around knows to be there. Where it is wrong, the error says so at once, with
 * the place, instead of an `undefined` that shows somewhere else.
 */

/**
 * The item at an index that exists.
 * @throws RangeError outside the list
 */
export function itemAt<T>(items: ArrayLike<T>, index: number): T {
  if (index >= 0 && index < items.length) return items[index] as T
  throw new RangeError(`there is no item ${index} in a list of ${items.length}`)
}

/** The first item of a list that has one. @throws RangeError where it is empty */
export const firstOf = <T>(items: ArrayLike<T>): T => itemAt(items, 0)

/** The last item of a list that has one. @throws RangeError where it is empty */
export const lastOf = <T>(items: ArrayLike<T>): T => itemAt(items, items.length - 1)

/** What a map has under a key that it has. @throws RangeError where it has not */
export function entryOf<Key, Value>(map: ReadonlyMap<Key, Value>, key: Key): Value {
  const value = map.get(key)
  if (value !== undefined || map.has(key)) return value as Value
  throw new RangeError(`there is no entry ${String(key)} in a map of ${map.size}`)
}

/** The item that is looked for and is there. @throws RangeError where there is none */
export function theOne<T>(items: readonly T[], isIt: (item: T, index: number) => boolean): T {
  const index = items.findIndex(isIt)
  if (index < 0) throw new RangeError(`none of ${items.length} items is the one`)
  return items[index] as T
}
