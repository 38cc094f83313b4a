import { useMemo } from 'react'
import { Clock, piecesOf } from '../../../core/melody/clock'
import { placeKey, type HarmonisedNote } from '../../../core/melody/line'
import type { MelodyNote } from '../../../core/reharm/melodyFit'
import type { Key } from '../../../core/pitch/key'
import type { Chart } from '../../../core/chart/chart'
import { MelodySystem, type MelodyShown } from '../../services/notation/MelodySystem'
import { systemsOf } from '../../services/notation/layout'

interface Props {
  chart: Chart
  songKey: Key
  melody: readonly MelodyNote[]
  /** The chord melody; empty where none was made. */
  made: readonly HarmonisedNote[]
  strings: number
}

const nothing = () => {}

/** The melody on paper, with the chord melody under it as tablature where one was made. */
export function SheetMelody({ chart, songKey, melody, made, strings }: Props) {
  const shown = useMemo((): MelodyShown => {
    const clock = new Clock(chart)
    const events = made.map((one, index) => {
      const from = clock.at(one)
      return { key: placeKey(one), index, from, to: from + one.beats, made: one, fixed: false }
    })
    return {
      view: { pieces: piecesOf(chart, melody), events, over: new Map(), phrases: [], selected: null, clock },
      songKey,
      strings,
      capo: chart.capo,
      sounding: null,
      writing: false,
      grid: 1,
      caret: null,
      threads: false,
      onSelect: nothing,
      onPut: nothing,
    }
  }, [chart, songKey, melody, made, strings])
  return (
    <section className="sheet-melody" aria-label={made.length > 0 ? 'Chord melody' : 'Melody'}>
      <h2>{made.length > 0 ? 'Chord melody' : 'Melody'}</h2>
      {systemsOf(chart.bars).map((system, at) => (
        <MelodySystem
          key={system.bars[0]!.number}
          system={system}
          first={at === 0}
          range={[0, 127]}
          shown={shown}
        />
      ))}
    </section>
  )
}
