import { useEffect, useState } from 'react'

/**
 * Keeps the screen awake while this page is in sight. @returns false where the browser cannot, or
 * does not let it
 */
export function useAwake(): boolean {
  const [awake, setAwake] = useState(true)
  useEffect(() => {
    let lock: WakeLockSentinel | null = null
    let ended = false
    const ask = async () => {
      if (document.visibilityState !== 'visible') return
      try {
        const held = await navigator.wakeLock.request('screen')
        if (ended) void held.release()
        else lock = held
        setAwake(true)
      } catch {
        setAwake(false)
      }
    }
    const askAgain = () => void ask()
    askAgain()
    // The browser lets go of it whenever the page is hidden.
    document.addEventListener('visibilitychange', askAgain)
    return () => {
      ended = true
      document.removeEventListener('visibilitychange', askAgain)
      void lock?.release()
    }
  }, [])
  return awake
}
