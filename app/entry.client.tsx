import createCache from '@emotion/cache'
import { CacheProvider } from '@emotion/react'
import { startTransition } from 'react'
import { hydrateRoot } from 'react-dom/client'
import { HydratedRouter } from 'react-router/dom'

const cache = createCache({ key: 'yh' })

startTransition(() => {
  hydrateRoot(document, <CacheProvider value={cache}><HydratedRouter /></CacheProvider>)
})
