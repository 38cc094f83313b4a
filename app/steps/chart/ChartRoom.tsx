import { useMemo } from 'react'
import { placeName } from '../../../core/chart/chart'
import { printChart } from '../../../core/chart/print'
import type { Lyric } from '../../../core/melody/lyrics'
import { skeletonOf } from '../../../core/analysis/skeleton'
import { readTuneDocument } from '../../../core/tune/tuneReading'
import { isPartOf } from '../../services/notation/Brackets'
import { useNumerals } from '../../services/notation/numeralCookie'
import { RoomFrame } from '../../services/room/RoomFrame'
import { useKeptState, useSelection } from '../../services/selection/SelectionContext'
import { Music } from '../../services/systems/Music'
import { useKnownTune } from '../../services/tune/TuneContext'
import { useStableCallback } from '../../services/words/stable'
import { WhyContext } from '../../services/words/Why'
import { ChartBar } from './ChartBar'
import { chartKeys } from './chartKeys'
import type { SkeletonShown } from './ChartTools'
import { ChartHead } from './ChartHead'
import { FormLine } from './FormLine'
import { Problems } from './Problems'
import { ReadingDrawer } from './ReadingDrawer'
import { useChartEditing } from './useChartEditing'
import { useGroupSelection } from './useGroupSelection'

/** The plain chart: typed as text or on its beats, read with every reason. */
export function ChartRoom() {
  const { document, session, reading, edit } = useKnownTune()
  const { chart, chords } = reading
  const { selection, range, selectRange } = useSelection()
  const [shown, setShown] = useKeptState<SkeletonShown>('chart.shown', 0)
  const [words, setWords] = useKeptState('chart.words', false)
  const [reasons, setReasons] = useKeptState('chart.reasons', false)
  const read = useSkeleton(shown) ?? reading
  const focus = read.chords[selection.focus]
  const writes = shown === 0
  const editing = useChartEditing({
    can: writes,
    text: document.text,
    chart,
    keyNow: reading.analysis.key,
    range,
    onText: (text, did) => edit({ kind: 'bars', text, did: did.slice(0, 80) }),
    onSelect: selectRange,
  })
  const { onGroup, selectNext } = useGroupSelection(chords, read.analysis.groups)

  const onText = useStableCallback((text: string) => session.edit({ kind: 'text', text }))
  const onWords = useStableCallback((bar: number, lyrics: Lyric[]) =>
    session.edit({ kind: 'lyrics', bar, lyrics }),
  )
  const onBeat = writes ? editing.openAt : undefined
  const form = useMemo(
    () => ({ editing: editing.editing, onBeat, onGroup, onWords: words && writes ? onWords : undefined }),
    [editing.editing, onBeat, onGroup, onWords, words, writes],
  )
  return (
    <RoomFrame
      bar={
        <ChartBar
          document={document}
          session={session}
          reading={reading}
          editing={editing}
          shown={shown}
          onShown={setShown}
          words={words}
          onWords={setWords}
        />
      }
      head={<ChartHead document={document} session={session} reading={reading} />}
      lead={
        <WhyContext.Provider value={reasons}>
          <Problems text={document.text} reading={reading} onText={onText} />
          <FormLine reading={reading} />
        </WhyContext.Provider>
      }
      drawer={{
        name: focus ? `${focus.slot.text}, ${placeName(focus.slot)}` : 'Chord',
        content: focus && (
          <WhyContext.Provider value={reasons}>
            <ReadingDrawer
              key={focus.key}
              chord={focus}
              groups={read.analysis.groups.filter((group) => isPartOf(focus, group))}
            />
          </WhyContext.Provider>
        ),
      }}
      keys={chartKeys({
        focus,
        writes,
        editing,
        onNextGroup: selectNext,
        onWords: () => setWords(!words),
        onReasons: () => setReasons(!reasons),
      })}
      cursor="home"
    >
      <Music reading={read} newLine="none" form={form} />
    </RoomFrame>
  )
}

/** The chart reduced as far as is asked for, read like a chart; null for the chart itself. */
function useSkeleton(shown: SkeletonShown) {
  const { chart } = useKnownTune().reading
  const { school } = useNumerals()
  return useMemo(
    () =>
      shown > 0
        ? readTuneDocument(
            { text: printChart(skeletonOf(chart, shown as 1)), colour: 0, choices: {}, fixed: {} },
            school,
          )
        : null,
    [shown, chart, school],
  )
}
