import createCache from '@emotion/cache'
import { CacheProvider } from '@emotion/react'
import createEmotionServer from '@emotion/server/create-instance'
import { text } from 'node:stream/consumers'
import { PassThrough } from 'node:stream'
import { renderToPipeableStream } from 'react-dom/server'
import { isRouteErrorResponse, ServerRouter, type EntryContext, type HandleErrorFunction } from 'react-router'
import { NonceContext } from './nonce'

/** The server opens the book before it says that it is there, and closes it when it ends. */
export { closeBook, openBook, servedAt } from './database.server'

/** Where faults are told besides; the console, until the server says. */
let toldTo: (error: unknown) => void = (error) => console.error(error)
export const tellFaults = (to: (error: unknown) => void): void => {
  toldTo = to
}

/**
 * What the client did wrong it is told, and nobody else; a request that was broken off is no fault.
 */
export const handleError: HandleErrorFunction = (error, { request }) => {
  const ofClient = isRouteErrorResponse(error) && error.status < 500
  if (!ofClient && !request.signal.aborted) toldTo(error)
}

/**
 * Renders a whole page, then puts the styles it uses into its head; everything under the request's
 * nonce.
 */
export default async function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  context: EntryContext,
  loadContext?: { nonce?: string },
): Promise<Response> {
  const nonce = loadContext?.nonce
  const withNonce = nonce === undefined ? {} : { nonce }
  const cache = createCache({ key: 'yh', ...withNonce })
  const { extractCriticalToChunks, constructStyleTagsFromChunks } = createEmotionServer(cache)
  let failed = false
  const html = await new Promise<string>((resolve, reject) => {
    const { pipe } = renderToPipeableStream(
      <CacheProvider value={cache}>
        <NonceContext.Provider value={nonce}>
          <ServerRouter context={context} url={request.url} {...withNonce} />
        </NonceContext.Provider>
      </CacheProvider>,
      {
        nonce,
        onAllReady: () => void text(pipe(new PassThrough())).then(resolve, reject),
        onShellError: reject,
        onError(error) {
          failed = true
          toldTo(error)
        },
      },
    )
  })
  const styles = constructStyleTagsFromChunks(extractCriticalToChunks(html))
  headers.set('Content-Type', 'text/html; charset=utf-8')
  return new Response(
    html.replace('</head>', () => `${styles}</head>`),
    { status: failed ? 500 : status, headers },
  )
}
