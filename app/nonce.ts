import { createContext } from 'react'

/** The nonce of the page's content security policy; empty in the browser, which hides it. */
export const NonceContext = createContext<string | undefined>(undefined)
