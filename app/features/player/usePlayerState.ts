import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { rulesIn, type Liking } from '../../../core/reharm/taste'
import type { PlayerSettings } from './settings'
import type { KnownPlayer } from './PlayerContext'

/** A slider that is moved is written when it has rested this long. */
const PAUSE_MS = 400

const post = (body: unknown) => fetch('/player/edits', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body), keepalive: true }).catch(() => null)

/** The player's settings as this tab works with them; each change is written to the database behind the screen. */
export function usePlayerState(loaded: { settings: PlayerSettings; liking: Liking }): KnownPlayer {
  const [settings, setSettings] = useState(loaded.settings)
  const [liking, setLiking] = useState(loaded.liking)
  const unsent = useRef<Partial<PlayerSettings>>({})
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const send = useCallback(() => {
    clearTimeout(timer.current)
    if (Object.keys(unsent.current).length === 0) return
    void post({ change: unsent.current })
    unsent.current = {}
  }, [])
  useEffect(() => send, [send])
  const change = useCallback((changed: Partial<PlayerSettings>) => {
    setSettings((now) => ({ ...now, ...changed }))
    unsent.current = { ...unsent.current, ...changed }
    clearTimeout(timer.current)
    timer.current = setTimeout(send, PAUSE_MS)
  }, [send])
  // The server counts with the edit that keeps the change; here it is only shown.
  const liked = useCallback((rule: string) => setLiking((now) => ({ ...now, ...Object.fromEntries(rulesIn(rule).map((one) => [one, (now[one] ?? 0) + 1])) })), [])
  const forget = useCallback((rule?: string) => {
    setLiking((now) => (rule ? Object.fromEntries(Object.entries(now).filter(([one]) => one !== rule)) : {}))
    void post({ forget: rule ?? 'all' })
  }, [])
  return useMemo(() => ({ settings, liking, change, liked, forget }), [settings, liking, change, liked, forget])
}
