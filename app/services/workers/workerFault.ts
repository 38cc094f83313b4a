import { useSyncExternalStore } from 'react'
import { WorkerFault } from './workerPool'

/** What broke off in a worker last, for the page to say; null when nothing has. */
let fault: string | null = null
const listeners = new Set<() => void>()

/** Says what broke off where nothing else on the page would. */
export function sayFault(next: string | null): void {
  fault = next
  listeners.forEach((listener) => listener())
}

/**
 * What is said of a question nobody waits for the answer of: that its worker broke; not that it was
 * stopped, or that there is none.
 */
export function faultsOnly(error: unknown): void {
  if (error instanceof WorkerFault) sayFault(error.message)
}

/** What broke off, and how the notice is put away. */
export function useWorkerFault(): [string | null, () => void] {
  const message = useSyncExternalStore(
    (listener) => {
      listeners.add(listener)
      return () => void listeners.delete(listener)
    },
    () => fault,
    () => null,
  )
  return [message, () => sayFault(null)]
}
