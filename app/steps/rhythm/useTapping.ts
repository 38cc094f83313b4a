import { useEffect, useRef, useState } from 'react'
import type { Meter } from '../../../core/chart/chart'
import { tapped, tapGrid } from '../../../core/rhythm/tapped'
import type { Rhythm } from '../../../core/tune/rhythmSchema'
import { clicksFor, type Schedule } from '../../services/sound/schedule'
import { SOUND } from '../../services/sound/soundStore'

/** Bars that are listened to behind the count-in. */
const BARS = 2
/** A tap may come so long before the first beat, in beats. */
const EARLY = 0.3

interface Tapping {
  meter: Meter
  /** Beats a minute. */
  tempo: number
  onFigure: (figure: NonNullable<Rhythm['figure']>) => void
}

/**
 * A figure tapped on one key: a bar counted in, two bars listened to, put on the grid of the metre.
 */
export function useTapping({ meter, tempo, onFigure }: Tapping) {
  const [on, setOn] = useState(false)
  /** What was heard so far, in beats from 0, as it is put on the grid. */
  const [heard, setHeard] = useState<readonly number[]>([])
  const taps = useRef<number[]>([])
  const first = useRef<number | null>(null)
  const ending = useRef<ReturnType<typeof setTimeout>>(undefined)
  const msPerBeat = 60_000 / tempo
  const stop = () => {
    clearTimeout(ending.current)
    SOUND.stop()
    first.current = null
    setOn(false)
  }
  const begin = async () => {
    taps.current = []
    setHeard([])
    setOn(true)
    const clicks = clicksFor(meter.beats, meter.beats)
    const music = BARS * meter.beats
    const schedule: Schedule = {
      strikes: [],
      clicks,
      beats: Array.from({ length: music }, (_, at) => ({
        beat: meter.beats + at,
        strong: at % meter.beats === 0,
        brush: null,
      })),
      countIn: meter.beats,
      length: meter.beats + music,
      pass: music,
    }
    const began = await SOUND.play(schedule, tempo)
    if (began === null) return setOn(false)
    first.current = began + meter.beats * msPerBeat
    ending.current = setTimeout(
      () => {
        const figure = tapped(taps.current, meter, BARS)
        stop()
        if (figure) onFigure(figure)
      },
      first.current - performance.now() + (music + 0.2) * msPerBeat,
    )
  }
  const tap = () => {
    if (first.current === null) return
    const beat = (performance.now() - first.current) / msPerBeat
    if (beat < -EARLY) return
    taps.current.push(beat)
    const grid = tapGrid(meter)
    setHeard(taps.current.map((one) => Math.max(0, Math.round(one / grid) * grid)))
  }
  useEffect(() => () => clearTimeout(ending.current), [])
  return { on, heard, begin: () => void begin(), stop, tap }
}
