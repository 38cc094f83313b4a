import { firstOf, itemAt, lastOf } from '../../../core/lists'
import {
  memo,
  startTransition,
  useDeferredValue,
  useEffect,
  useMemo,
  useRef,
  useState,
  type RefObject,
} from 'react'
import type { TuneDocument } from '../../../core/tune/document'
import type { TuneReading } from '../../../core/tune/tuneReading'
import { groupedBy } from '../../../core/grouped'
import type { Voicing } from '../../../core/voicing/voicing'
import { systemsOf, type System } from '../notation/systemLayout'
import { useBarsInSystem } from '../notation/useBarsInSystem'
import type { SungBar } from '../notation/SungWords'
import type { MusicShown } from '../room/room'
import { RowsTold } from '../room/rowsContext'
import type { Bank } from '../selection/SelectionContext'
import { rangeOf, type ChordSelection } from '../selection/selection'
import { NO_SELECTION, SystemView } from './SystemView'

interface Props {
  shown: MusicShown
  /** Words and melody of the tune. */
  tune: Pick<TuneDocument, 'lyrics' | 'melody'>
  /** Of the home line, and of the new one. */
  selection: ChordSelection
  lineSelection: ChordSelection
  /** The bank that the arrow keys go through. */
  cursor: Bank | null
  onSelect: (index: number, stretch: boolean) => void
  /** A chord of the new line. */
  onSelectLine: (index: number, stretch: boolean) => void
}

/**
 * Systems drawn at once, and with each turn after that, so that a long tune never holds the page
 * up.
 */
const AT_ONCE = 3
const MORE = 2
/**
 * Systems in sight that are drawn at once when something changes; a third, of which seldom more
 * than its beginning is in sight, comes with the rest.
 */
const SEEN_AT_ONCE = 2

/**
 * How many of so many systems are drawn by now; in any case those up to the one that is worked on.
 */
function useDrawn(count: number, needed: number): number {
  const [drawn, setDrawn] = useState(AT_ONCE)
  const here = Math.max(drawn, needed)
  useEffect(() => {
    if (here >= count) return
    const timer = setTimeout(() => startTransition(() => setDrawn(Math.min(count, here + MORE))), 0)
    return () => clearTimeout(timer)
  }, [here, count])
  return Math.min(count, here)
}

const NO_GRIPS: ReadonlyMap<string, Voicing> = new Map()

/**
 * The tune in two banks, four bars to a system: the home line above, what is being made below, the
 * threads between.
 */
export const Systems = memo(function Systems({
  shown,
  tune: { lyrics, melody },
  selection,
  lineSelection,
  cursor,
  onSelect,
  onSelectLine,
}: Props) {
  const {
    reading,
    beside = null,
    voicings = NO_GRIPS,
    form,
    newLine,
    threads = null,
    Row,
    rows = null,
    gutter = 0,
  } = shown
  const room = useBarsInSystem()
  const laidOut = useMemo(() => laidOutIn(reading, room), [reading, room])
  const now = useMemo(
    () => inSystems(laidOut, { room, reading, beside, voicings, form, newLine, threads, Row, gutter }),
    [laidOut, room, reading, beside, voicings, form, newLine, threads, Row, gutter],
  )
  const sung = useMemo(() => sungByBar({ lyrics, melody }), [lyrics, melody])
  // What nobody sees is drawn when what is seen stands there, so that a change of step does not
  // wait for it.
  const late = useDeferredValue(now)
  // Nor does the next key wait for grips and threads.
  const soon = onlyGripsDiffer(late, now) ? late : now
  const rowsLate = useDeferredValue(rows)
  const { chords, line } = reading
  const focus = (cursor === 'line' ? line[lineSelection.focus] : chords[selection.focus])?.slot.bar
  const focused = now.systems.findIndex(({ system }) => system.bars.some(({ number }) => number === focus))
  const drawn = useDrawn(now.systems.length, focused + 1)
  const box = useRef<HTMLDivElement>(null)
  const inSight = useInSight(box, drawn)
  const first = now.systems.findIndex((_, at) => inSight(at))
  return (
    <div className="systems" ref={box} aria-busy={soon !== now || undefined}>
      {now.systems.slice(0, drawn).map(({ system: { bars } }, at) => {
        const number = firstOf(bars).number
        const seen =
          at === focused ||
          (inSight(at) && at < first + SEEN_AT_ONCE) ||
          late.room !== room ||
          late.systems[at]?.system.bars[0]!.number !== number
        const { systems, room: _, ...all } = seen ? soon : late
        const { system, home, made, other, onward, low, high } = itemAt(systems, at)
        // Only what concerns this system is handed to it, so that the others need not be drawn
        // again.
        return (
          <RowsTold.Provider key={number} value={seen ? rows : rowsLate}>
            <SystemView
              {...all}
              system={system}
              chords={home}
              line={made}
              beside={other}
              onward={onward}
              low={low}
              high={high}
              selection={near(selection, home)}
              lineSelection={near(lineSelection, made)}
              editing={
                all.form?.editing && system.bars.some((bar) => bar.number === all.form!.editing!.bar)
                  ? all.form.editing
                  : null
              }
              form={all.form !== undefined}
              onBeat={all.form?.onBeat}
              onGroup={all.form?.onGroup}
              sung={sung}
              onWords={all.form?.onWords}
              first={at === 0}
              onSelect={onSelect}
              onSelectLine={onSelectLine}
            />
          </RowsTold.Provider>
        )
      })}
    </div>
  )
})

/** What is sung in each bar that has words or notes. */
function sungByBar({ lyrics, melody }: Props['tune']): ReadonlyMap<number, SungBar> {
  const words = groupedBy(lyrics, ({ bar }) => bar)
  const notes = groupedBy(melody, ({ bar }) => bar)
  return new Map(
    [...new Set([...words.keys(), ...notes.keys()])].map((bar) => [
      bar,
      {
        lyrics: words.get(bar) ?? [],
        onsets: [...new Set((notes.get(bar) ?? []).map(({ beat }) => beat))].sort((a, b) => a - b),
      },
    ]),
  )
}

type AllShown = Required<
  Pick<MusicShown, 'reading' | 'newLine' | 'voicings' | 'threads' | 'beside' | 'gutter'>
> & { form: MusicShown['form']; Row: MusicShown['Row'] | undefined } & {
  /** Bars that stand side by side. */
  room: number
}

const withinOf =
  ({ bars }: System) =>
  <One,>(of: ReadonlyMap<number, One[]>) =>
    bars.flatMap(({ number }) => of.get(number) ?? [])

/**
 * The systems of a tune, to each its chords of both lines: the same objects in every room that
 * shows the same reading.
 */
function laidOutIn({ chart, chords, line }: TuneReading, room: number) {
  const homeOf = groupedBy(chords, ({ slot }) => slot.bar)
  const lineOf = groupedBy(line, ({ slot }) => slot.bar)
  return systemsOf(chart.bars, room).map((system) => {
    const within = withinOf(system)
    return { system, home: within(homeOf), made: within(lineOf) }
  })
}

/** What a room shows in each system. */
function inSystems(laidOut: ReturnType<typeof laidOutIn>, shown: AllShown) {
  const { voicings, threads, beside } = shown
  const besideOf = beside && groupedBy(beside.line, ({ slot }) => slot.bar)
  // The first chord behind each system, where its first bar has one.
  const nextOf = (at: number) => {
    const next = laidOut[at + 1]
    const first = next?.made[0]
    return first && first.slot.bar === firstOf(next.system.bars).number ? first : null
  }
  return {
    ...shown,
    systems: laidOut.map((one, at) => {
      const next = threads && nextOf(at)
      // Each system has the height that its own voices need.
      const sounding = [...one.made, ...(next ? [next] : [])].flatMap(({ key }) => voicings.get(key) ?? [])
      const [low, high] = rangeOfVoices(sounding)
      return {
        ...one,
        low,
        high,
        other:
          beside && besideOf
            ? { name: beside.name, isKept: beside.isKept, line: withinOf(one.system)(besideOf) }
            : null,
        onward: next ? (voicings.get(next.key) ?? null) : null,
      }
    }),
  }
}

/**
 * Whether what is shown differs at most in what searches find and pulling changes: not in what is
 * typed or chosen, and not as another step does.
 */
const onlyGripsDiffer = (a: AllShown, b: AllShown): boolean =>
  a.room === b.room &&
  a.reading === b.reading &&
  a.form === b.form &&
  a.newLine === b.newLine &&
  a.Row === b.Row &&
  a.gutter === b.gutter

/**
 * Whether a system is within the window, told without drawing anything again. Until the window says
 * so, the first ones are.
 */
function useInSight(box: RefObject<HTMLDivElement | null>, drawn: number): (at: number) => boolean {
  const seen = useRef<ReadonlySet<Element> | null>(null)
  useEffect(() => {
    const within = new Set<Element>()
    const watch = new IntersectionObserver((entries) => {
      for (const { target, isIntersecting } of entries)
        if (isIntersecting) within.add(target)
        else within.delete(target)
      seen.current = within
    })
    for (const system of box.current?.children ?? []) watch.observe(system)
    return () => watch.disconnect()
  }, [box, drawn])
  return (at) => {
    const system = box.current?.children[at]
    return seen.current && system ? seen.current.has(system) : at < AT_ONCE
  }
}

/** A selection as far as it concerns some chords in a row. */
function near(selection: ChordSelection, chords: readonly { index: number }[]): ChordSelection {
  const [from, to] = rangeOf(selection)
  return chords.length === 0 || to < firstOf(chords).index || from > lastOf(chords).index
    ? NO_SELECTION
    : selection
}

function rangeOfVoices(voicings: readonly Voicing[]): readonly [number, number] {
  const midis = voicings.flatMap((voicing) => voicing.midis)
  return midis.length > 0 ? [Math.min(...midis) - 1, Math.max(...midis) + 1] : [40, 64]
}
