import { useMemo } from 'react'
import type { Key } from '../../../core/pitch/key'
import type { MelodyShown } from '../../services/notation/MelodySystem'
import type { MelodyView } from './useMelody'
import type { usePlayingIn } from './usePlayingIn'
import type { useWriting } from './useWriting'

interface ShownOf extends Pick<MelodyShown, 'threads' | 'onSelect' | 'onPut' | 'strings' | 'capo'> {
  view: MelodyView
  songKey: Key
  /** The event that sounds, by its index; null while none does. */
  sounding: number | null
  writing: ReturnType<typeof useWriting>
  playing: Pick<ReturnType<typeof usePlayingIn>, 'on'>
}

/** What the rows of the melody show: the same object while nothing of it changes. */
export function useMelodyShown({
  view,
  songKey,
  sounding,
  writing,
  playing,
  strings,
  capo,
  threads,
  onSelect,
  onPut,
}: ShownOf): MelodyShown {
  const soundingKey = sounding === null ? null : (view.events[sounding]?.key ?? null)
  const caret = writing.pen.on || playing.on ? writing.place : null
  const { pieces, events, over, phrases, selected, clock } = view
  return useMemo(
    (): MelodyShown => ({
      view: { pieces, events, over, phrases, selected, clock },
      songKey,
      strings,
      capo,
      sounding: soundingKey,
      writing: writing.pen.on,
      grid: writing.pen.grid,
      caret,
      threads,
      onSelect,
      onPut,
    }),
    // oxlint-disable-next-line react/exhaustive-deps -- the caret is told by its place
    [
      pieces,
      events,
      over,
      phrases,
      selected,
      clock,
      songKey,
      strings,
      capo,
      soundingKey,
      writing.pen.on,
      writing.pen.grid,
      caret?.bar,
      caret?.beat,
      threads,
      onSelect,
      onPut,
    ],
  )
}
