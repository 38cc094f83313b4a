import { useSyncExternalStore } from 'react'

/** What broke off in a worker last, for the page to say; null when nothing has. */
let fault: string | null = null
const listeners = new Set<() => void>()
const say = (next: string | null) => { fault = next; listeners.forEach((listener) => listener()) }

/**
 * A worker whose failing is never silent: an exception in it, an answer that cannot be read, or code that does not load is said.
 * @param what is being done, as the beginning of a sentence: "Finding grips"
 * @param onFault says it in a place of its own; the page's notice otherwise
 */
export function guarded(worker: Worker, what: string, onFault: (message: string) => void = say): Worker {
  worker.onerror = (event) => onFault(`${what} broke off: ${event.message || 'its code could not be loaded'}.`)
  worker.onmessageerror = () => onFault(`${what} broke off: its answer could not be read.`)
  return worker
}

/** What broke off, and how the notice is put away. */
export function useWorkerFault(): [string | null, () => void] {
  const message = useSyncExternalStore((listener) => { listeners.add(listener); return () => void listeners.delete(listener) }, () => fault, () => null)
  return [message, () => say(null)]
}
