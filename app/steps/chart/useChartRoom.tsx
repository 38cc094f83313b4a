import { useMemo, useRef } from 'react'
import { sameBeat, wholeBeat } from '../../../core/chart/beats'
import { placeName } from '../../../core/chart/chart'
import { printChart } from '../../../core/chart/print'
import type { Lyric } from '../../../core/melody/lyrics'
import type { Group } from '../../../core/analysis/reading'
import { skeletonOf } from '../../../core/analysis/skeleton'
import { readTuneDocument, type TuneChord } from '../../../core/tune/reading'
import { isPartOf } from '../../services/notation/Brackets'
import { useNumerals } from '../../services/notation/numerals'
import type { KeyRow } from '../../services/keys/keys'
import type { RoomView } from '../../services/room/room'
import { useKeptState, useSelection } from '../../services/selection/SelectionContext'
import { useKnownTune } from '../../services/tune/TuneContext'
import { useSteady } from '../../services/words/steady'
import { WhyContext } from '../../services/words/Why'
import { ChartBar } from './ChartBar'
import type { SkeletonShown } from './ChartTools'
import { ChartHead } from './ChartHead'
import { FormLine } from './FormLine'
import { Problems } from './Problems'
import { ReadingDrawer } from './ReadingDrawer'
import { useChartEditing, type BarAct } from './useChartEditing'

/** Keys for the selected bars, and what they do. */
const BAR_KEYS: readonly { on: string; shown: string; says: string; act: BarAct }[] = [
  { on: 'Alt+i', shown: 'Alt I', says: 'A bar put in behind', act: 'after' },
  { on: 'Alt+Shift+i', shown: 'Alt Shift I', says: 'A bar put in before', act: 'before' },
  { on: 'Alt+s', shown: 'Alt S', says: 'Split the bar in two', act: 'split' },
  { on: 'Alt+j', shown: 'Alt J', says: 'Join the bar with the next', act: 'join' },
  { on: '[', shown: '[', says: 'Move the selected bars earlier', act: 'earlier' },
  { on: ']', shown: ']', says: 'Move the selected bars later', act: 'later' },
  { on: '-', shown: '−', says: 'The selected bars a half step down', act: 'down' },
  { on: '+', shown: '+', says: 'The selected bars a half step up', act: 'up' },
  { on: 'Delete', shown: 'Delete', says: 'Take the selected bars out', act: 'remove' },
]
/** The same sign from another key. */
const ALSO: Readonly<Record<string, string>> = { '-': '−', Delete: 'Alt+x' }

/** Letters that a chord symbol, or N.C., begins with. */
const BEGIN_A_CHORD = [...'abcdefgn']

/** The plain chart: typed as text or on its beats, read with every reason. */
export function useChartRoom(): RoomView {
  const { document, session, reading, edit } = useKnownTune()
  const { chart, chords } = reading
  const { selection, range, selectRange } = useSelection()
  const { school } = useNumerals()
  const [shown, setShown] = useKeptState<SkeletonShown>('chart.shown', 0)
  const [words, setWords] = useKeptState('chart.words', false)
  const [reasons, setReasons] = useKeptState('chart.reasons', false)
  const skeleton = useMemo(
    () =>
      shown > 0
        ? readTuneDocument(
            { text: printChart(skeletonOf(chart, shown as 1)), colour: 0, choices: {}, fixed: {} },
            school,
          )
        : null,
    [shown, chart, school],
  )
  const read = skeleton ?? reading
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

  const groupSelected = useRef<Group | null>(null)
  const selectGroup = useSteady((group: Group, within?: number) => {
    const indexOf = ({ bar, beat }: Group['from']) =>
      Math.max(
        0,
        chords.findIndex((chord) => chord.slot.bar === bar && sameBeat(chord.slot.beat, beat)),
      )
    const [from, to] = [indexOf(group.from), indexOf(group.to)]
    // The chord the drawer speaks of stays at the end it is nearer to, so that the key can be pressed again.
    if (within !== undefined && to - within < within - from) selectRange(from, to)
    else selectRange(to, from)
  })
  const onGroup = useSteady((group: Group) => selectGroup(group))
  /** The groups around a chord in turn, the smallest first: each press selects the next one. */
  const selectNextGroup = (chord: TuneChord) => {
    const chordsIn = (group: Group) => chords.filter((one) => isPartOf(one, group)).length
    const around = read.analysis.groups
      .filter((group) => isPartOf(chord, group))
      .sort((a, b) => chordsIn(a) - chordsIn(b))
    const now = around.findIndex((group) => group === groupSelected.current)
    const next = around[(now + 1) % Math.max(1, around.length)]
    groupSelected.current = next ?? null
    if (next) selectGroup(next, chord.index)
  }
  const typeOn = (word?: string) => {
    if (!writes || !focus) return false
    editing.openAt(focus.slot.bar, wholeBeat(focus.slot.beat), word)
  }

  const onText = useSteady((text: string) => session.edit({ kind: 'text', text }))
  const onWords = useSteady((bar: number, lyrics: Lyric[]) => session.edit({ kind: 'lyrics', bar, lyrics }))
  const onBeat = writes ? editing.openAt : undefined
  const form = useMemo(
    () => ({ editing: editing.editing, onBeat, onGroup, onWords: words && writes ? onWords : undefined }),
    [editing.editing, onBeat, onGroup, onWords, words, writes],
  )
  const keys: KeyRow[] = [
    {
      on: [...BEGIN_A_CHORD, 'Enter'],
      shown: 'A to G, N, Enter',
      says: 'Type a chord (or N.C.) on the beat of the selected one',
      act: (press, event) => typeOn(press === 'Enter' ? undefined : event.key),
    },
    {
      on: [],
      shown: 'Space or Tab, Shift Tab',
      says: 'While typing a beat: take it and go a beat on, or back',
      act: () => false,
    },
    {
      on: [],
      shown: 'Enter, Escape',
      says: 'While typing a beat: take it, or leave it as it was',
      act: () => false,
    },
    {
      on: ['Alt+g', 'g'],
      shown: 'Alt G',
      says: 'Select the group around the chord (ii-V, turnaround, …), then the next',
      act: () => {
        if (!focus) return false
        selectNextGroup(focus)
      },
    },
    { on: ['l', 'Alt+l'], shown: 'L', says: 'Type words under the bars', act: () => setWords(!words) },
    { on: ['w', 'Alt+w'], shown: 'W', says: 'Every reason shown or hidden', act: () => setReasons(!reasons) },
    ...BAR_KEYS.map(({ on, shown: sign, says, act }): KeyRow => ({
      on: [on, ...(ALSO[on] ? [ALSO[on]] : [])],
      shown: sign,
      says,
      act: () => {
        if (!writes || !focus) return false
        editing.act(act)
      },
    })),
    { on: [], shown: 'Ctrl C  Ctrl X  Ctrl V', says: 'Copy, cut, paste bars', act: () => false },
  ]

  return {
    bar: (
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
    ),
    head: <ChartHead document={document} session={session} reading={reading} />,
    lead: (
      <WhyContext.Provider value={reasons}>
        <Problems text={document.text} reading={reading} onText={onText} />
        <FormLine reading={reading} />
      </WhyContext.Provider>
    ),
    music: { reading: read, newLine: 'none', form },
    drawer: {
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
    },
    keys,
    cursor: 'home',
  }
}
