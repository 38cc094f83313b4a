import { useSyncExternalStore } from 'react'

const never = () => () => undefined

/**
 * Whether the page's scripts run: until then a field that is kept by them takes no letters, which
 * would be lost.
 */
export const useListening = (): boolean =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  )
