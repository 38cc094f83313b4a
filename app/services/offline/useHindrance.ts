import { useSyncExternalStore } from 'react'
import { hindrance, onHindrance } from './offline'

/** Why this browser keeps nothing for reading without the server, in words; null where it does. */
export const useHindrance = (): string | null => useSyncExternalStore(onHindrance, hindrance, () => null)
