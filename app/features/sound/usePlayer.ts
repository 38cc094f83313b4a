import { useCallback, useEffect, useRef, useState } from 'react'
import type { Player } from './guitar'
import type { Schedule, Strike } from './schedule'

export interface PlayerView {
  playing: boolean
  /** The chord that sounds now. */
  sounding: Pick<Strike, 'index' | 'version'> | null
  /** Why no sound could be made, if so. */
  trouble: string | null
}

/** The one player of the page. The sound library is loaded when it is first needed, by a touch of the player's. */
export function usePlayer() {
  const player = useRef<Player | null>(null)
  const [view, setView] = useState<PlayerView>({ playing: false, sounding: null, trouble: null })

  const withPlayer = useCallback(async <Heard>(act: (player: Player) => Promise<Heard>): Promise<Heard | null> => {
    try {
      player.current ??= new (await import('./guitar')).Player()
      return await act(player.current)
    } catch (error) {
      setView({ playing: false, sounding: null, trouble: `The sound could not be started: ${(error as Error).message}` })
      return null
    }
  }, [])

  const stop = useCallback(() => {
    player.current?.stop()
    setView({ playing: false, sounding: null, trouble: null })
  }, [])

  const play = useCallback((schedule: Schedule, beatsPerMinute: number, loop: boolean) =>
    withPlayer(async (here) => {
      setView({ playing: true, sounding: null, trouble: null })
      return here.play(schedule, beatsPerMinute, loop, (strike) =>
        setView((now) => (strike ? { ...now, sounding: { index: strike.index, version: strike.version } } : { playing: false, sounding: null, trouble: null })))
    }), [withPlayer])

  const strumNow = useCallback((midis: readonly number[]) => withPlayer((here) => here.strumNow(midis)), [withPlayer])
  /** Another schedule at the same place, from the next beat on; nothing where nothing is played. */
  const swap = useCallback((schedule: Schedule, loop: boolean) => player.current?.swap(schedule, loop), [])
  const setTempo = useCallback((tempo: number) => player.current?.setTempo(tempo), [])

  useEffect(() => () => player.current?.stop(), [])
  return { ...view, play, swap, stop, strumNow, setTempo }
}
