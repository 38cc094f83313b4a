import { useMemo } from 'react'
import type { TuneEdit } from '../../../core/tune/tuneEdit'
import { tapGrid } from '../../../core/rhythm/tapped'
import { accompanied } from '../../../core/tune/accompaniment'
import type { Rhythm } from '../../../core/tune/rhythmSchema'
import { useGrips } from '../../services/grips/GripsContext'
import { useKeptState, useSelection } from '../../services/selection/SelectionContext'
import { useKnownTune } from '../../services/tune/TuneContext'
import { useStableCallback } from '../../services/words/stable'
import { moveHit } from './handHits'
import { placeOfHit } from './RhythmRow'

/** What is struck, bar by bar as it is written, and the hit that is taken hold of. */
export function useHits(rhythm: Rhythm) {
  const { document, reading, edit } = useKnownTune()
  const { chart, line } = reading
  const { voicings } = useGrips()
  const { lineSelection, selectLine } = useSelection()
  const { melody } = document
  const [selected, setSelected] = useKeptState<string | null>('rhythm.hit', null)
  const played = useMemo(
    () =>
      accompanied({ reading, document: { rhythm, melody }, which: 'new', grips: voicings, order: 'written' }),
    [reading, rhythm, melody, voicings],
  )
  const places = useMemo(() => [...new Set(played.hits.map(placeOfHit))], [played])
  const inLine = line[lineSelection.focus]
  // The hit taken hold of, else the first of the selected chord.
  const here =
    selected !== null && places.includes(selected)
      ? selected
      : (places[played.hits.findIndex(({ key }) => key === inLine?.key)] ?? places[0] ?? null)
  const hits = useMemo(() => played.hits.filter((hit) => placeOfHit(hit) === here), [played, here])
  const grid = tapGrid(chart.meter)

  const take = useStableCallback((place: string) => {
    setSelected(place)
    const one = played.hits.find((other) => placeOfHit(other) === place)
    if (one) selectLine(one.index, false)
  })
  const put = (made: { edit: TuneEdit; to: string } | null) => {
    if (!made) return
    edit(made.edit)
    setSelected(made.to)
  }
  return {
    played,
    places,
    here,
    /** What is struck at that place. */
    hits,
    /** Steps of a beat on which hits stand. */
    grid,
    take,
    letGo: () => setSelected(null),
    put,
    move: useStableCallback((place: string, beats: number) => {
      const pulled = played.hits.filter((one) => placeOfHit(one) === place)
      const steps = Math.round(beats / grid) * grid
      if (pulled.length > 0 && steps !== 0) put(moveHit(chart, pulled, steps))
    }),
    /** Takes hold of the first hit of a chord. */
    takeChord: useStableCallback((key: string) => {
      const first = played.hits.find((one) => one.key === key)
      if (first) take(placeOfHit(first))
    }),
  }
}
export type Hits = ReturnType<typeof useHits>
