import {
  createContext,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
  useSyncExternalStore,
  type ReactNode,
} from 'react'
import type { BandPart, Rhythm } from '../../../core/tune/rhythmSchema'
import { useKnownTune } from '../tune/TuneContext'
import { useStableCallback } from '../words/stable'
import type { Levels } from './soundPlayer'
import type { HeardLine, Schedule, Version } from './schedule'
import { SOUND } from './soundStore'

/** Bars that are counted in. */
export const COUNT_INS = [0, 1, 2] as const
export type CountIn = (typeof COUNT_INS)[number]

/** How the tune is heard. */
export interface Hearing {
  version: Version
  loop: boolean
  countIn: CountIn
  /** The heard tempo as a share of the tune's own, in percent: the tune is not changed by it. */
  speed: number
}

/** Shares of the tune's tempo at which it can be heard, in percent. */
export const SPEEDS = [50, 60, 70, 80, 90, 100, 110, 120] as const

/**
 * The sound library is loaded so long after the first touch of the page: what the touch was for
 * goes first.
 */
const READY_AFTER_MS = 400

export interface KnownSound {
  hearing: Hearing
  setHearing: (hearing: Hearing) => void
  /** Tells what Play plays now. */
  setHeard: (heard: Schedule) => void
  /** Beats a minute at which it is heard. */
  heardTempo: number
  play: () => void
  /** Plays the tune as soon as what is heard of it is another. */
  playWhenChanged: () => void
  /** Plays a part to try something, once. */
  playPart: (schedule: Schedule) => Promise<number | null>
}

/** How loud each of the band is heard; 0 where it is mute. */
export function levelsHeard({ levels, muted }: Rhythm): Levels {
  const heard = (part: BandPart) => (muted.includes(part) ? 0 : levels[part])
  return { guitar: heard('guitar'), bass: heard('bass'), time: heard('time') }
}

const SoundContext = createContext<KnownSound | null>(null)

export function SoundProvider({ children }: { children: ReactNode }) {
  const {
    document: { tempo, rhythm },
    reading: { chart },
  } = useKnownTune()
  const [hearing, setHearing] = useState<Hearing>({ version: 'both', loop: false, countIn: 1, speed: 100 })
  const [heard, setHeard] = useState<Schedule | null>(null)
  const heardTempo = (tempo * hearing.speed) / 100
  const waits = useRef(false)
  const play = useStableCallback(() => {
    if (heard && heard.strikes.length > 0) void SOUND.playTune(heard, heardTempo, hearing.loop)
  })
  const playWhenChanged = useStableCallback(() => {
    waits.current = true
  })
  const playPart = useStableCallback((schedule: Schedule) => SOUND.play(schedule, heardTempo))
  useEffect(() => SOUND.setTempo(heardTempo), [heardTempo])
  useEffect(() => SOUND.setLevels(levelsHeard(rhythm)), [rhythm])
  useEffect(() => SOUND.stop, [])
  // Whoever has touched the page will want to hear it; a page that is only looked at loads nothing.
  useEffect(() => {
    const touched = new AbortController()
    const soon = () => {
      touched.abort()
      setTimeout(SOUND.getReady, READY_AFTER_MS)
    }
    for (const kind of ['pointerdown', 'keydown'])
      window.addEventListener(kind, soon, { signal: touched.signal })
    return () => touched.abort()
  }, [])
  const before = useRef({ hearing, rhythm, heardTempo })
  useEffect(() => {
    if (!heard) return
    if (waits.current && heard.strikes.length > 0) {
      waits.current = false
      return play()
    }
    // Plain, new, beside, the loop, figure, feel and band are switched at the next beat; other
    // chords and grips come in with the next bar.
    const now = { hearing, rhythm, heardTempo }
    const switched = Object.entries(before.current).some(
      ([name, was]) => now[name as keyof typeof now] !== was,
    )
    before.current = now
    SOUND.swap(heard, hearing.loop, switched || heard.beats ? 1 : chart.meter.beats)
    // oxlint-disable-next-line react/exhaustive-deps -- only what is heard, and how, is waited for
  }, [heard, hearing])
  const value = useMemo(
    () => ({ hearing, setHearing, setHeard, heardTempo, play, playWhenChanged, playPart }),
    [hearing, heardTempo, play, playWhenChanged, playPart],
  )
  return <SoundContext.Provider value={value}>{children}</SoundContext.Provider>
}

export function useSound(): KnownSound {
  const sound = useContext(SoundContext)
  if (!sound) throw new Error('There is no sound around this part of the page.')
  return sound
}

export const usePlaying = () => useSyncExternalStore(SOUND.subscribe, SOUND.read, SOUND.read)

/** The chord of one line that sounds now, by its index: only what draws it is drawn again. */
export const useSoundingIn = (version: HeardLine, from = 0, to = Infinity): number | null =>
  useSyncExternalStore(
    SOUND.subscribe,
    () => SOUND.soundingIn(version, from, to),
    () => null,
  )
