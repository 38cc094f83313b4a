import createCache from '@emotion/cache'
import { CacheProvider } from '@emotion/react'
import createEmotionServer from '@emotion/server/create-instance'
import { renderToString } from 'react-dom/server'
import { ServerRouter, type EntryContext } from 'react-router'
import { NonceContext } from './nonce'

/** Renders a page with the styles it uses in its head, everything under the request's nonce. */
export default function handleRequest(
  request: Request, status: number, headers: Headers, context: EntryContext, loadContext?: { nonce?: string },
): Response {
  const nonce = loadContext?.nonce
  const cache = createCache({ key: 'yh', nonce })
  const { extractCriticalToChunks, constructStyleTagsFromChunks } = createEmotionServer(cache)
  const html = renderToString(
    <CacheProvider value={cache}>
      <NonceContext.Provider value={nonce}>
        <ServerRouter context={context} url={request.url} nonce={nonce} />
      </NonceContext.Provider>
    </CacheProvider>,
  )
  const styles = constructStyleTagsFromChunks(extractCriticalToChunks(html))
  headers.set('Content-Type', 'text/html; charset=utf-8')
  return new Response(`<!DOCTYPE html>${html.replace('</head>', () => `${styles}</head>`)}`, { status, headers })
}
