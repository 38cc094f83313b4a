/**
 * What was open is kept by a service worker (`workers/offline`), to be read while the server is
 * away. A browser that has none, or that does not trust the certificate of the home network, reads
 * nothing then, and all else works.
 */
const worker = (): ServiceWorkerContainer | undefined =>
  typeof navigator === 'undefined' ? undefined : navigator.serviceWorker

/** Why this browser keeps nothing; null where it does, or has not said yet. */
let hindered: string | null = null
const listeners = new Set<() => void>()
export const hindrance = (): string | null => hindered
export const onHindrance = (listener: () => void): (() => void) => {
  listeners.add(listener)
  return () => void listeners.delete(listener)
}
function hinder(why: string): void {
  hindered = why
  listeners.forEach((tell) => tell())
}

/** Begins the keeping, once a page. */
export function beginKeeping(): void {
  if (!worker()) return hinder('This browser cannot keep pages from here.')
  worker()!
    .register('/service-worker.js')
    .catch((error: unknown) =>
      hinder(
        error instanceof DOMException && error.name === 'SecurityError'
          ? 'This device does not trust the certificate of this songbook yet, so its browser keeps nothing.'
          : 'This browser keeps no pages from here.',
      ),
    )
}

/**
 * Asks for pages, and what they show, to be kept as they are now. @param addresses on this server,
 * the most wanted first
 */
export function keepForReading(addresses: readonly string[]): void {
  void worker()?.ready.then(({ active }) => active?.postMessage({ keep: addresses }))
}

/** Whether what this page asks for passes the worker, which keeps it by itself. */
export const readsThroughWorker = (): boolean => Boolean(worker()?.controller)

/**
 * Whether the server answers, whatever it says (signed out elsewhere, it refuses) and whatever is
 * kept: nothing but a GET is answered out of what is kept.
 */
export const isServerThere = (): Promise<boolean> =>
  fetch('/heron.svg', { method: 'HEAD', cache: 'no-store' }).then(
    () => true,
    () => false,
  )

/** When the kept copy of a page was made; null where none is kept. */
export async function keptAt(address: string): Promise<Date | null> {
  if (typeof caches === 'undefined') return null
  const made = (await caches.match(address))?.headers.get('date')
  return made ? new Date(made) : null
}
