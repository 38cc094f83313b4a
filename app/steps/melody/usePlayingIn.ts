import { itemAt } from '../../../core/lists'
import { useEffect, useRef, useState, useInsertionEffect } from 'react'
import type { Chart } from '../../../core/chart/chart'
import { pitchNear, playedIn, withPassage, type Tap } from '../../../core/melody/entry'
import type { Grid } from '../../../core/melody/melody'
import type { Key } from '../../../core/pitch/key'
import type { MelodyNote } from '../../../core/reharm/melodyFit'

/**
 * Rows of a computer's keys as neighbouring strings, the lowest string first; along a row each key
 * is a fret more. By their place, so that other layouts have them where they lie.
 */
const ROWS: readonly (readonly string[])[] = [
  ['KeyZ', 'KeyX', 'KeyC', 'KeyV', 'KeyB', 'KeyN', 'KeyM', 'Comma', 'Period', 'Slash'],
  ['KeyA', 'KeyS', 'KeyD', 'KeyF', 'KeyG', 'KeyH', 'KeyJ', 'KeyK', 'KeyL', 'Semicolon'],
  ['KeyQ', 'KeyW', 'KeyE', 'KeyR', 'KeyT', 'KeyY', 'KeyU', 'KeyI', 'KeyO', 'KeyP'],
  ['Digit1', 'Digit2', 'Digit3', 'Digit4', 'Digit5', 'Digit6', 'Digit7', 'Digit8', 'Digit9', 'Digit0'],
]

/** Where the keys lie on the neck. */
export interface OnNeck {
  /** The string of the lowest row, from 0, the lowest string of the instrument. */
  string: number
  /** The fret of the first key of each row, counted from nut or capo. */
  fret: number
}

/** The highest strings, from the nut. */
export const atTheNut = (strings: number): OnNeck => ({ string: Math.max(0, strings - ROWS.length), fret: 0 })

/** The string and fret that a key lies on; null for other keys, and where the neck ends. */
export function onNeck(
  code: string,
  { string, fret }: OnNeck,
  strings: number,
  frets: number,
): { string: number; fret: number } | null {
  const row = ROWS.findIndex((keys) => keys.includes(code))
  const there = { string: string + row, fret: fret + (ROWS[row]?.indexOf(code) ?? 0) }
  return row >= 0 && there.string < strings && there.fret <= frets ? there : null
}

/** The keys moved along the neck by the arrows, or over to other strings. */
export function movedOnNeck(
  code: string,
  { string, fret }: OnNeck,
  strings: number,
  frets: number,
): OnNeck | null {
  const within = (value: number, most: number) => Math.max(0, Math.min(most, value))
  if (code === 'ArrowLeft' || code === 'ArrowRight')
    return { string, fret: within(fret + (code === 'ArrowRight' ? 1 : -1), frets) }
  if (code === 'ArrowUp' || code === 'ArrowDown')
    return {
      string: within(string + (code === 'ArrowUp' ? 1 : -1), Math.max(0, strings - ROWS.length)),
      fret,
    }
  return null
}

interface PlayingInOf {
  chart: Chart
  notes: readonly MelodyNote[]
  /** Where it begins. */
  place: { bar: number; beat: number }
  songKey: Key
  grid: Grid
  /** Beats a minute at which it is heard. */
  tempo: number
  /** Sounds of the open strings, with the capo, lowest first, as MIDI numbers. */
  open: readonly number[]
  /** Frets from nut or capo to the highest the hand gets to. */
  frets: number
  /** Starts the band; resolves when it has started, in performance time of its first beat. */
  onStart: () => Promise<number>
  onStop: () => void
  onHear: (midis: readonly number[]) => void
  onPlayed: (melody: MelodyNote[], count: number) => void
}

/**
 * A melody played in time on the computer's keys over the plain chords; what was played goes on the
 * grid when it is stopped.
 */
export function usePlayingIn({
  chart,
  notes,
  place,
  songKey,
  grid,
  tempo,
  open,
  frets,
  onStart,
  onStop,
  onHear,
  onPlayed,
}: PlayingInOf) {
  const [on, setOn] = useState(false)
  /** The count-in is over: what is played now counts. */
  const [counted, setCounted] = useState(false)
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const [count, setCount] = useState(0)
  const taps = useRef<Tap[]>([])
  const down = useRef(new Map<string, { from: number; midi: number }>())
  const begun = useRef(0)
  const [where, setWhere] = useState(() => atTheNut(open.length))
  const latest = useRef({ finish: () => {}, onHear, songKey, where, open, frets })

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
    for (const { from, midi } of down.current.values())
      taps.current.push({ from, to: now, pitch: pitchNear(midi, songKey, true) })
    down.current.clear()
    const passage = playedIn(
      chart,
      place,
      taps.current.sort((a, b) => a.from - b.from),
      tempo,
      grid,
    )
    if (passage.length > 0) onPlayed(withPassage(chart, notes, passage), passage.length)
  }
  useInsertionEffect(() => {
    latest.current = { finish, onHear, songKey, where, open, frets }
  })

  useEffect(() => {
    if (!on) return
    const seconds = (event: KeyboardEvent) => (event.timeStamp - begun.current) / 1000
    const press = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey) return
      if (event.code === 'Escape' || event.code === 'Space') {
        event.preventDefault()
        event.stopImmediatePropagation()
        latest.current.finish()
        return
      }
      const { where: here, open: strings, frets: most } = latest.current
      const moved = movedOnNeck(event.code, here, strings.length, most)
      const place = onNeck(event.code, here, strings.length, most)
      if (!moved && !place) return
      event.preventDefault()
      event.stopImmediatePropagation()
      if (moved) return setWhere(moved)
      if (!place) return
      if (event.repeat || down.current.has(event.code)) return
      const midi = itemAt(strings, place.string) + place.fret
      down.current.set(event.code, { from: seconds(event), midi })
      latest.current.onHear([midi])
    }
    const release = (event: KeyboardEvent) => {
      const held = down.current.get(event.code)
      if (!held) return
      down.current.delete(event.code)
      taps.current.push({
        from: held.from,
        to: seconds(event),
        pitch: pitchNear(held.midi, latest.current.songKey, true),
      })
      setCount(taps.current.length)
    }
    window.addEventListener('keydown', press, true)
    window.addEventListener('keyup', release, true)
    return () => {
      window.removeEventListener('keydown', press, true)
      window.removeEventListener('keyup', release, true)
    }
  }, [on])
  return { on, counted, count, where, start, finish }
}
