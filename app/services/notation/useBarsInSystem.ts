import { useSyncExternalStore } from 'react'
import { BARS_IN_SYSTEM, BARS_ON_A_PHONE } from './systemLayout'

/** A phone's window, in px: the narrowest of the three that styles know. */
const PHONE = '(max-width: 560px)'

const listen = (changed: () => void): (() => void) => {
  const phone = matchMedia(PHONE)
  phone.addEventListener('change', changed)
  return () => phone.removeEventListener('change', changed)
}

/**
 * How many bars stand side by side in this window; the server, which does not know it, draws four.
 */
export const useBarsInSystem = (): number =>
  useSyncExternalStore(
    listen,
    () => (matchMedia(PHONE).matches ? BARS_ON_A_PHONE : BARS_IN_SYSTEM),
    () => BARS_IN_SYSTEM,
  )
