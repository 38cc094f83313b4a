import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { rulesIn } from '../../../core/reharm/families'
import type { Liking } from '../../../core/reharm/taste'
import type { KnownPlayer } from './PlayerContext'
import { changedBy, differences, type PlayerSettings } from '../../../core/player/playerSettings'
import { forgetOnServer, SettingsOutbox, type KeepingState } from './settingsOutbox'

/**
 * The player's settings as this tab works with them; each change is written to the database behind
 * the screen, and waits in this browser while it cannot be.
 */
export function usePlayerState(loaded: { settings: PlayerSettings; liking: Liking }): KnownPlayer {
  const [settings, setSettings] = useState(loaded.settings)
  const [liking, setLiking] = useState(loaded.liking)
  const [keeping, setKeeping] = useState<KeepingState>('saved')
  const latest = useRef(settings)
  const take = useCallback((next: PlayerSettings) => {
    latest.current = next
    setSettings(next)
  }, [])
  // oxlint-disable-next-line react/refs -- what is taken is set when the server answers, not while drawing
  const [waiting] = useState(() => new SettingsOutbox(setKeeping, take))
  useEffect(() => {
    void waiting.resume().then((change) => {
      if (Object.keys(change).length > 0) take(changedBy(latest.current, change))
    })
    window.addEventListener('pagehide', waiting.flush)
    return () => {
      window.removeEventListener('pagehide', waiting.flush)
      waiting.flush()
    }
  }, [waiting, take])
  const change = useCallback(
    (changed: Partial<PlayerSettings>) => {
      const next = { ...latest.current, ...changed }
      const made = differences(latest.current, next)
      if (Object.keys(made).length === 0) return
      take(next)
      waiting.add(made)
    },
    [waiting, take],
  )
  // The server counts with the edit that keeps the change; here it is only shown.
  const liked = useCallback(
    (rule: string) =>
      setLiking((now) => ({
        ...now,
        ...Object.fromEntries(rulesIn(rule).map((one) => [one, (now[one] ?? 0) + 1])),
      })),
    [],
  )
  const forget = useCallback((rule?: string) => {
    setLiking((now) => (rule ? Object.fromEntries(Object.entries(now).filter(([one]) => one !== rule)) : {}))
    forgetOnServer(rule)
  }, [])
  return useMemo(
    () => ({ settings, liking, keeping, change, liked, forget }),
    [settings, liking, keeping, change, liked, forget],
  )
}
