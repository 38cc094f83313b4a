import { useMemo } from 'react'
import { placeName } from '../../../core/chart/chart'
import type { TuneEdit } from '../../../core/tune/tuneEdit'
import type { Rhythm } from '../../../core/tune/rhythmSchema'
import { useGrips } from '../../services/grips/GripsContext'
import type { System } from '../../services/notation/systemLayout'
import { RoomFrame } from '../../services/room/RoomFrame'
import { useSelection } from '../../services/selection/SelectionContext'
import { rangeOf } from '../../services/selection/selection'
import { useSound } from '../../services/sound/SoundContext'
import { Music } from '../../services/systems/Music'
import { useKnownTune } from '../../services/tune/TuneContext'
import { RhythmBar } from './RhythmBar'
import { RhythmDrawer } from './RhythmDrawer'
import { rhythmKeys } from './rhythmKeys'
import { hitInWords, RhythmRow, rhythmRows } from './RhythmRow'
import { figureInWords } from './rhythmSettings'
import { soundedIn } from './soundedThreads'
import { useFigureTried } from './useFigureTried'
import { useHandHelp } from './useHandHelp'
import { useHits } from './useHits'
import { useTapping } from './useTapping'

/** When to strike, how long, which voices, what to push, and where to be silent. */
export function RhythmRoom() {
  const { document, reading, edit } = useKnownTune()
  const { chart, line } = reading
  const { rhythm, melody } = document
  const { voicings } = useGrips()
  const { lineSelection, selectLine } = useSelection()
  const { heardTempo } = useSound()
  const figure = useFigureTried()
  const hits = useHits(figure.rhythm)
  const { played, here, take, takeChord, move } = hits
  const [hit = null] = hits.hits

  const set = (changes: Extract<TuneEdit, { kind: 'rhythm' }>['set'], did: string) =>
    edit({ kind: 'rhythm', set: changes, did })
  const keep = (next: Rhythm['figure']) => {
    figure.leave()
    set({ figure: next }, figureInWords(next, 'figure tapped in'))
  }
  const tapping = useTapping({ meter: chart.meter, tempo: heardTempo, onFigure: keep })
  const { late, grips, help, helpMost } = useHandHelp(figure.rhythm, hits, keep)

  const [firstOf, lastOf] = rangeOf(lineSelection)
  // The voices as they are struck: none of them is pulled here, a touch takes hold of the chord's
  // first hit.
  const threads = useMemo(
    () => ({
      taken: null,
      onTake: takeChord,
      onDrag: () => {},
      sounded: (system: System) => soundedIn(system, played, voicings),
    }),
    [played, voicings, takeChord],
  )
  const rows = useMemo(
    () => rhythmRows.tell({ played, melody, selected: here, onSelect: take, onMove: move }),
    [played, melody, here, take, move],
  )
  return (
    <RoomFrame
      bar={
        <RhythmBar
          rhythm={rhythm}
          chart={chart}
          tempo={heardTempo}
          hasMelody={melody.length > 0}
          selectedBars={[line[firstOf]?.slot.bar ?? 1, line[lastOf]?.slot.bar ?? 1]}
          hand={{
            late,
            grips,
            onHelp: help,
            onGo: (chord) => {
              hits.letGo()
              selectLine(chord.index, false)
            },
          }}
          tapping={tapping.on}
          onTap={() => (tapping.on ? tapping.stop() : tapping.begin())}
          onSet={set}
          onEdit={edit}
        />
      }
      head={
        tapping.on && (
          <p className="trying" role="status">
            Tap on <kbd>Space</kbd>: one bar is counted in, then two are listened to.{' '}
            {tapping.heard.length > 0 && `Heard on ${tapping.heard.map((beat) => beat + 1).join(', ')}.`}
          </p>
        )
      }
      lead={
        <p className="visually-hidden" aria-live="polite">
          {hit && hitInWords(hit)}
        </p>
      }
      drawer={{
        name: hit ? `${hit.slot.text}, ${placeName(hit)}` : 'Rhythm',
        content: (
          <RhythmDrawer
            chart={chart}
            rhythm={rhythm}
            laid={played.laid}
            figures={figure.figures}
            tried={figure.tried}
            onTry={figure.hear}
            onKeep={keep}
            hit={hit}
            byHand={here !== null && here in rhythm.byHand}
          />
        ),
      }}
      keys={rhythmKeys({
        chart,
        rhythm,
        figure,
        hits,
        tapping,
        onKeep: keep,
        onSet: set,
        onEdit: edit,
        onHelp: helpMost,
      })}
      cursor={null}
      plays={{ rhythm: figure.tried === null ? null : figure.rhythm }}
    >
      <Music
        reading={reading}
        newLine="reasons"
        voicings={voicings}
        threads={threads}
        Row={RhythmRow}
        rows={rows}
      />
    </RoomFrame>
  )
}
