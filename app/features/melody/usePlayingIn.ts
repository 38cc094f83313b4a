import { useEffect, useRef, useState } from 'react'
import type { Chart } from '../../../core/chart/chart'
import { pitchNear, playedIn, withPassage, type Tap } from '../../../core/melody/entry'
import type { Grid } from '../../../core/melody/melody'
import type { Key } from '../../../core/pitch/key'
import type { MelodyNote } from '../../../core/reharm/melodyFit'

/** Two rows of a computer's keys as a keyboard from C: the lower row the white keys, the upper the black ones. By their place, so that other layouts have them where they lie. */
const ROW = ['KeyA', 'KeyW', 'KeyS', 'KeyE', 'KeyD', 'KeyF', 'KeyT', 'KeyG', 'KeyY', 'KeyH', 'KeyU', 'KeyJ', 'KeyK', 'KeyO', 'KeyL', 'KeyP', 'Semicolon']
/** MIDI number of the first key: C4. */
const FIRST = 60

interface Asked {
  chart: Chart
  notes: readonly MelodyNote[]
  /** Where it begins. */
  place: { bar: number; beat: number }
  songKey: Key
  grid: Grid
  tempo: number
  /** Starts the band; resolves when it has started, in performance time of its first beat. */
  onStart: () => Promise<number>
  onStop: () => void
  onHear: (midis: readonly number[]) => void
  onPlayed: (melody: MelodyNote[], count: number) => void
}

/** A melody played in time on the computer's keys over the plain chords; what was played goes on the grid when it is stopped. */
export function usePlayingIn({ chart, notes, place, songKey, grid, tempo, onStart, onStop, onHear, onPlayed }: Asked) {
  const [on, setOn] = useState(false)
  /** The count-in is over: what is played now counts. */
  const [counted, setCounted] = useState(false)
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const [count, setCount] = useState(0)
  const taps = useRef<Tap[]>([])
  const down = useRef(new Map<string, { from: number; midi: number }>())
  const begun = useRef(0)
  const octave = useRef(0)
  const latest = useRef({ finish: () => {}, onHear, songKey })

  const start = async () => {
    taps.current = []
    down.current.clear()
    setCount(0)
    begun.current = Infinity
    setCounted(false)
    setOn(true)
    begun.current = await onStart()
    timer.current = setTimeout(() => setCounted(true), begun.current - performance.now())
  }
  const finish = () => {
    onStop()
    clearTimeout(timer.current)
    setOn(false)
    const now = (performance.now() - begun.current) / 1000
    for (const { from, midi } of down.current.values()) taps.current.push({ from, to: now, pitch: pitchNear(midi, songKey, true) })
    down.current.clear()
    const passage = playedIn(chart, place, taps.current.sort((a, b) => a.from - b.from), tempo, grid)
    if (passage.length > 0) onPlayed(withPassage(chart, notes, passage), passage.length)
  }
  latest.current = { finish, onHear, songKey }

  useEffect(() => {
    if (!on) return
    const seconds = (event: KeyboardEvent) => (event.timeStamp - begun.current) / 1000
    const press = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey) return
      if (event.code === 'Escape' || event.code === 'Space') { event.preventDefault(); event.stopImmediatePropagation(); latest.current.finish(); return }
      if (event.code === 'KeyZ' || event.code === 'KeyX') { octave.current = Math.max(-2, Math.min(2, octave.current + (event.code === 'KeyZ' ? -1 : 1))); event.stopImmediatePropagation(); return }
      const step = ROW.indexOf(event.code)
      if (step < 0) return
      event.preventDefault()
      event.stopImmediatePropagation()
      if (event.repeat || down.current.has(event.code)) return
      const midi = FIRST + step + 12 * octave.current
      down.current.set(event.code, { from: seconds(event), midi })
      latest.current.onHear([midi])
    }
    const release = (event: KeyboardEvent) => {
      const held = down.current.get(event.code)
      if (!held) return
      down.current.delete(event.code)
      taps.current.push({ from: held.from, to: seconds(event), pitch: pitchNear(held.midi, latest.current.songKey, true) })
      setCount(taps.current.length)
    }
    window.addEventListener('keydown', press, true)
    window.addEventListener('keyup', release, true)
    return () => { window.removeEventListener('keydown', press, true); window.removeEventListener('keyup', release, true) }
  }, [on])
  return { on, counted, count, start, finish }
}
