import createCache from '@emotion/cache'
import { CacheProvider } from '@emotion/react'
import { startTransition } from 'react'
import { hydrateRoot } from 'react-dom/client'
import { HydratedRouter } from 'react-router/dom'
import { tellFaultsOfPage } from './services/faults'

/** Styles made in the browser carry the page's nonce too; scripts can still read it where markup cannot. */
const nonce = document.querySelector<HTMLScriptElement>('script[nonce]')?.nonce
const cache = createCache({ key: 'yh', nonce })

tellFaultsOfPage()

startTransition(() => {
  hydrateRoot(
    document,
    <CacheProvider value={cache}>
      <HydratedRouter />
    </CacheProvider>,
  )
})
