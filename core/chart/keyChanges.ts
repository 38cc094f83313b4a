import type { Key } from '../pitch/key'
import type { Bar } from './chart'

/** The key in force at each bar, by its number. @param key at the beginning */
export function keysInForce(bars: readonly Bar[], key: Key): Map<number, Key> {
  let now = key
  return new Map(
    bars.map((bar) => {
      now = bar.newKey ?? now
      return [bar.number, now]
    }),
  )
}
