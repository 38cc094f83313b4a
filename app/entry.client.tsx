import createCache from '@emotion/cache'
import { CacheProvider } from '@emotion/react'
import { startTransition } from 'react'
import { hydrateRoot } from 'react-dom/client'
import { HydratedRouter } from 'react-router/dom'
import { tellFaultsOfPage } from './services/faults'
import { beginKeeping } from './services/offline/offline'

/**
 * Styles made in the browser carry the page's nonce too; scripts can still read it where markup
 * cannot.
 */
const nonce = document.querySelector<HTMLScriptElement>('script[nonce]')?.nonce
const cache = createCache({ key: 'yh', ...(nonce !== undefined && { nonce }) })

/** The first page has the network for itself for so long. */
const KEEPING_AFTER_MS = 2_500

tellFaultsOfPage()

// After the page itself is there; while the program is worked on, files change under their names.
if (import.meta.env.PROD) setTimeout(beginKeeping, KEEPING_AFTER_MS)

// A page that the browser kept whole and shows again on Back is of another hour: its tuning, its
// tunes and who is signed in may be others by now.
addEventListener('pageshow', ({ persisted }: PageTransitionEvent) => {
  if (persisted) location.reload()
})

startTransition(() => {
  hydrateRoot(
    document,
    <CacheProvider value={cache}>
      <HydratedRouter />
    </CacheProvider>,
  )
})
