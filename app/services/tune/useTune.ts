import { useEffect, useMemo, useSyncExternalStore } from 'react'
import type { TuneState } from '../../../db/tunes'
import { TuneSession, type SessionView } from './session'

/**
 * A tune as this tab works on it. The loader's state only begins the session; after that the
 * session knows better.
 */
export function useTune(state: TuneState): { view: SessionView; session: TuneSession } {
  // oxlint-disable-next-line react/exhaustive-deps -- a new state of the same tune must not end the session
  const session = useMemo(() => new TuneSession(state.id, state), [state.id])
  useEffect(() => {
    const look = () => {
      if (document.visibilityState === 'visible') void session.look()
    }
    // Another tab may have written between the sending of the page and now.
    void session.resume().then(look)
    document.addEventListener('visibilitychange', look)
    window.addEventListener('focus', look)
    return () => {
      document.removeEventListener('visibilitychange', look)
      window.removeEventListener('focus', look)
      session.close()
    }
  }, [session])
  return { view: useSyncExternalStore(session.subscribe, session.read, session.readInitial), session }
}
