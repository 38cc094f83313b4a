import { clientsClaim, type WorkboxPlugin } from 'workbox-core'
import { ExpirationPlugin } from 'workbox-expiration'
import { cleanupOutdatedCaches, precacheAndRoute } from 'workbox-precaching'
import { registerRoute, setCatchHandler } from 'workbox-routing'
import { CacheFirst, NetworkFirst, NetworkOnly } from 'workbox-strategies'
import {
  isRead,
  isReadWith,
  keptPagesAsHtml,
  requestKindOf,
  otherWindow,
  stepInstead,
  stepOfAddress,
  type RequestKind,
} from './cachePolicy'

/** Put in by the build: the files of the application, and a digest of their names. */
declare const FILES: { url: string; revision: string | null }[]
declare const BUILD: string

const here = self as unknown as ServiceWorkerGlobalScope

/**
 * Pages as they were when last open. Those of an earlier build name files that are gone, so each
 * build has its own.
 */
const PAGES = `pages-${BUILD}`
const isPagesOfBefore = (name: string): boolean => name.startsWith('pages-') && name !== PAGES
/** About 80 tunes with their practice, sheet and stand; the one not seen for longest goes first. */
const MOST_KEPT = 320
/** A server that says nothing for so long is taken to be away, where the page is kept. */
const SILENT_S = 8
const MOST_RARE = 60
/** What the gate answers to a device that is not signed in, where no page is asked for. */
const SIGNED_OUT = 401

// The plugin's own types leave out that a step it does not have may be undefined.
const asPlugin = (expiring: ExpirationPlugin) => expiring as WorkboxPlugin
const expiring = new ExpirationPlugin({ maxEntries: MOST_KEPT, purgeOnQuotaError: true })
const pages = new NetworkFirst({
  cacheName: PAGES,
  networkTimeoutSeconds: SILENT_S,
  plugins: [
    asPlugin(expiring),
    // A page that was answered by another one, such as the sign-in page, is not the page.
    {
      fetchDidSucceed: async ({ response }) => {
        if (response.status === SIGNED_OUT) await forgetPages()
        return response
      },
    },
    { cacheWillUpdate: async ({ response }) => (response.ok && !response.redirected ? response : null) },
  ],
})

// The page that installs it is read through it at once.
clientsClaim()
precacheAndRoute(FILES)
cleanupOutdatedCaches()

/** Whether a request is of a kind; each is of one alone. */
const isOf =
  (kind: RequestKind) =>
  ({ url, request }: { url: URL; request: Request }): boolean =>
    requestKindOf(url, request) === kind

// A device that is signed out keeps nothing to be read.
registerRoute(
  isOf('signs out'),
  async ({ request }) => {
    await forgetPages()
    return fetch(request)
  },
  'POST',
)
registerRoute(isOf('signs in'), async ({ request }) => {
  const answer = await fetch(request)
  if (answer.ok) await forgetPages()
  return answer
})
registerRoute(
  isOf('file'),
  new CacheFirst({
    cacheName: 'rare-files',
    plugins: [asPlugin(new ExpirationPlugin({ maxEntries: MOST_RARE }))],
  }),
)
registerRoute(isOf('kept'), pages)
// Pages that are not kept still lead to those that are.
registerRoute(isOf('page'), new NetworkOnly())

setCatchHandler(async ({ url, request }) => {
  if (!url) return Response.error()
  const cache = await caches.open(PAGES)
  const kept = (await cache.keys()).map((one) => new URL(one.url))
  const other = otherWindow(url, kept)
  if (isReadWith(url)) return (other && (await cache.match(other.href))) ?? Response.error()
  if (request.mode !== 'navigate') return Response.error()
  const step = stepInstead(url, kept)
  // The page goes on to the step that was asked for: all steps are in it.
  if (step) return Response.redirect(`${step.href}#to-${stepOfAddress(url)!}`)
  return new Response(await keptPages(cache, kept), {
    status: 503,
    headers: {
      'Content-Type': 'text/html; charset=utf-8',
      'Content-Security-Policy':
        "default-src 'none'; style-src 'self' 'unsafe-inline'; font-src 'self'; base-uri 'none'",
    },
  })
})

async function keptPages(cache: Cache, kept: readonly URL[]): Promise<string> {
  const listed = await Promise.all(
    kept
      .filter((address) => isRead(address))
      .map(async (address) => ({
        address,
        title: decoded(
          /<title>([^<]*)/.exec((await (await cache.match(address.href))?.text()) ?? '')?.[1] ??
            address.pathname,
        ),
      })),
  )
  return keptPagesAsHtml(listed, FILES.find(({ url }) => /\/root-[^/]*\.css$/.test(url))?.url ?? null)
}

const NAMED: Readonly<Record<string, string>> = { amp: '&', lt: '<', gt: '>', quot: '"', '#x27': "'" }
const decoded = (text: string): string =>
  text.replace(/&(#x27|amp|lt|gt|quot);/g, (_, name: string) => NAMED[name]!)

async function forgetPages(): Promise<void> {
  await caches.delete(PAGES)
  await expiring.deleteCacheAndMetadata()
}

/**
 * Pages ask for what they lead to, and for themselves where they were gone to without loading a
 * document.
 */
here.addEventListener('message', (event) => {
  const { keep } = (event.data ?? {}) as { keep?: unknown }
  if (!Array.isArray(keep)) return
  event.waitUntil(
    keepAll(
      event,
      keep.filter((one) => typeof one === 'string'),
    ),
  )
})

/**
 * One after the other, so that the server has time for the player. What cannot be had is left as it
 * was.
 */
async function keepAll(event: ExtendableEvent, addresses: readonly string[]): Promise<void> {
  for (const address of addresses) {
    const url = new URL(address, here.location.origin)
    if (url.origin !== here.location.origin || !(isRead(url) || isReadWith(url))) continue
    const request = new Request(url, { headers: { Accept: 'text/html,application/json' } })
    await pages.handleAll({ event, request })[1].catch(() => null)
  }
}

/**
 * A new build takes over when no page of the one before is open; what was kept is asked for anew,
 * since it names the files of that one.
 */
here.addEventListener('activate', (event) => event.waitUntil(renewPages(event)))

async function renewPages(event: ExtendableEvent): Promise<void> {
  for (const name of (await caches.keys()).filter(isPagesOfBefore)) {
    const before = await (await caches.open(name)).keys()
    await keepAll(
      event,
      before.map(({ url }) => url),
    )
    await caches.delete(name)
  }
}
