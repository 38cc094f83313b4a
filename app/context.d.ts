import type { OnNetwork } from './features/network/NetworkSection'

/** What the server gives each request along. */
declare module 'react-router' {
  interface AppLoadContext {
    nonce?: string
    onNetwork?: OnNetwork | null
  }
}
