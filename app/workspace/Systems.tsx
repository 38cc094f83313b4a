import {
  memo,
  startTransition,
  useDeferredValue,
  useEffect,
  useMemo,
  useRef,
  useState,
  type CSSProperties,
  type ReactNode,
  type RefObject,
} from 'react'
import type { Analysis } from '../../core/analysis/reading'
import { wholeBeat } from '../../core/chart/beats'
import { barName, slotKey, type Bar, type Chart, type ChartProblem, type Slot } from '../../core/chart/chart'
import type { ChordSymbol } from '../../core/chord/symbol'
import type { Key } from '../../core/pitch/key'
import { pitchClass } from '../../core/pitch/note'
import type { Decision, LineChord } from '../../core/tune/decisions'
import { groupedBy } from '../../core/tune/grouped'
import { madeChord, type TuneChord, type TuneReading } from '../../core/tune/reading'
import type { Voicing } from '../../core/voicing/voicing'
import { BarHead, barLines } from '../services/notation/BarHead'
import { BeatInput, type Editing } from '../services/notation/BeatInput'
import { Brackets } from '../services/notation/Brackets'
import { ChordName, engraved, engravedWords } from '../services/notation/ChordName'
import { GripDiagram } from '../services/notation/GripDiagram'
import { across, columnsOf, endOf, systemsOf, type System } from '../services/notation/layout'
import { Threads, type ThreadChord } from '../services/notation/Threads'
import type { FormShown, MusicShown, Pulling } from '../services/room/room'
import type { Bank } from '../services/selection/SelectionContext'
import { isWithin, rangeOf, type ChordSelection } from '../services/selection/selection'
import { useSoundingIn } from '../services/sound/SoundContext'

interface Props {
  shown: MusicShown
  /** Of the home line, and of the new one. */
  selection: ChordSelection
  lineSelection: ChordSelection
  /** The bank that the arrow keys go through. */
  cursor: Bank | null
  onSelect: (index: number, stretch: boolean) => void
  /** A chord of the new line. */
  onSelectLine: (index: number, stretch: boolean) => void
}

/** Systems drawn at once, and with each turn after that, so that a long tune never holds the page up. */
const AT_ONCE = 3
const MORE = 2

/** How many of so many systems are drawn by now; in any case those up to the one that is worked on. */
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

/** The tune in two banks, four bars to a system: the home line above, what is being made below, the threads between. */
export const Systems = memo(function Systems({
  shown,
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
    Between,
    gutter = 0,
  } = shown
  const now = useMemo(
    () => inSystems({ reading, beside, voicings, form, newLine, threads, Between, gutter }),
    [reading, beside, voicings, form, newLine, threads, Between, gutter],
  )
  // What nobody sees is drawn when what is seen stands there, so that a change of step does not wait for it.
  const late = useDeferredValue(now)
  const { chords, line } = reading
  const focus = (cursor === 'line' ? line[lineSelection.focus] : chords[selection.focus])?.slot.bar
  const focused = now.systems.findIndex(({ system }) => system.bars.some(({ number }) => number === focus))
  const drawn = useDrawn(now.systems.length, focused + 1)
  const box = useRef<HTMLDivElement>(null)
  const inSight = useInSight(box, drawn)
  return (
    <div className="systems" ref={box}>
      {now.systems.slice(0, drawn).map(({ system: { bars } }, at) => {
        const number = bars[0]!.number
        const seen = at === focused || inSight(at) || late.systems[at]?.system.bars[0]!.number !== number
        const { systems, ...all } = seen ? now : late
        const { system, home, made, other, onward } = systems[at]!
        // Only what concerns this system is handed to it, so that the others need not be drawn again.
        return (
          <SystemView
            key={number}
            {...all}
            system={system}
            chords={home}
            line={made}
            beside={other}
            onward={onward}
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
            first={at === 0}
            onSelect={onSelect}
            onSelectLine={onSelectLine}
          />
        )
      })}
    </div>
  )
})

type AllShown = Required<
  Pick<MusicShown, 'reading' | 'newLine' | 'voicings' | 'threads' | 'beside' | 'gutter'>
> &
  Pick<MusicShown, 'form' | 'Between'>

/** What a room shows, laid out in systems: to each its chords of every line. */
function inSystems(shown: AllShown) {
  const { reading, voicings, threads, beside } = shown
  const homeOf = groupedBy(reading.chords, ({ slot }) => slot.bar)
  const lineOf = groupedBy(reading.line, ({ slot }) => slot.bar)
  const besideOf = beside && groupedBy(beside.line, ({ slot }) => slot.bar)
  const [low, high] = rangeOfVoices([...voicings.values()])
  const systems = systemsOf(reading.chart.bars)
  return {
    ...shown,
    low,
    high,
    systems: systems.map((system, at) => {
      const within = <One,>(of: ReadonlyMap<number, One[]>) =>
        system.bars.flatMap(({ number }) => of.get(number) ?? [])
      const next = lineOf.get(systems[at + 1]?.bars[0]?.number ?? -1)?.[0]
      return {
        system,
        home: within(homeOf),
        made: within(lineOf),
        other: beside && besideOf ? { name: beside.name, line: within(besideOf) } : null,
        onward: threads && next ? (voicings.get(next.key) ?? null) : null,
      }
    }),
  }
}

/** Whether a system is within the window, told without drawing anything again. Until the window says so, the first ones are. */
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

const NOTHING: ChordSelection = { anchor: -1, focus: -1 }
/** A selection as far as it concerns some chords in a row. */
function near(selection: ChordSelection, chords: readonly { index: number }[]): ChordSelection {
  const [from, to] = rangeOf(selection)
  return chords.length === 0 || to < chords[0]!.index || from > chords.at(-1)!.index ? NOTHING : selection
}

function rangeOfVoices(voicings: readonly Voicing[]): readonly [number, number] {
  const midis = voicings.flatMap((voicing) => voicing.midis)
  return midis.length > 0 ? [Math.min(...midis) - 1, Math.max(...midis) + 1] : [40, 64]
}

interface SystemProps extends Pick<MusicShown, 'newLine' | 'Between'> {
  system: System
  chords: TuneChord[]
  line: LineChord[]
  reading: TuneReading
  voicings: ReadonlyMap<string, Voicing>
  /** First grip of the next system, so that threads lead on over the edge. */
  onward: Voicing | null
  low: number
  high: number
  selection: ChordSelection
  lineSelection: ChordSelection
  threads: Pulling | null
  beside: MusicShown['beside']
  /** Brackets, moves of the key and the feet of beats are shown. */
  form: boolean
  editing: Editing | null
  onBeat: FormShown['onBeat']
  onGroup: FormShown['onGroup'] | undefined
  gutter: number
  /** The first system of the tune. */
  first: boolean
  onSelect: Props['onSelect']
  onSelectLine: Props['onSelectLine']
}

const firstAndLast = (chords: readonly { index: number }[]): [number, number] => [
  chords[0]?.index ?? 0,
  chords.at(-1)?.index ?? -1,
]

/** One system. Drawn again only when something in it has changed. */
const SystemView = memo(function SystemView({
  system,
  chords,
  line,
  reading,
  voicings,
  onward,
  low,
  high,
  newLine,
  threads,
  selection,
  lineSelection,
  beside,
  form,
  editing,
  onBeat,
  onGroup,
  Between,
  gutter,
  first,
  onSelect,
  onSelectLine,
}: SystemProps) {
  const { bars } = system
  const homeOf = groupedBy(chords, ({ slot }) => slot.bar)
  const voices = threads ? threadChords(system, line, voicings) : []
  const columns: CSSProperties = { gridTemplateColumns: columnsOf(system) }
  const home = useSoundingIn('plain', ...firstAndLast(chords))
  const made = useSoundingIn('new', ...firstAndLast(line))
  const other = useSoundingIn('beside', ...firstAndLast(beside?.line ?? []))
  return (
    <section className="system" aria-label={systemName(bars)}>
      {form && onGroup && <Brackets groups={reading.analysis.groups} system={system} onSelect={onGroup} />}
      <div
        className="bank bank-home"
        role="group"
        aria-label="Home line"
        style={gutter > 0 ? { ...columns, marginLeft: gutter } : columns}
      >
        {bars.map((bar) => (
          <HomeBar
            key={bar.number}
            bar={bar}
            movesTo={form ? keyMovedTo(reading.analysis, bar) : null}
            onBeat={onBeat}
            editing={editing?.bar === bar.number ? editing : null}
          >
            <Slots
              bar={bar}
              chords={homeOf.get(bar.number) ?? []}
              selection={selection}
              sounding={home}
              onSelect={onSelect}
              repeats={bar.repeats}
              onBeat={onBeat}
            >
              {(chord) => <HomeChord chord={chord} reading={reading} />}
            </Slots>
          </HomeBar>
        ))}
      </div>
      {voices.length > 0 && threads && (
        <Threads
          {...threads}
          chords={voices}
          onward={onward && { voicing: onward }}
          range={[low, high]}
          selected={line.find((chord) => chord.index === lineSelection.focus)?.key ?? null}
          onSelect={(key) => onSelectLine(line.find((chord) => chord.key === key)!.index, false)}
        />
      )}
      {Between && <Between system={system} first={first} />}
      {newLine !== 'none' && (
        <LineBank
          name="New line"
          className="bank bank-new"
          columns={columns}
          bars={bars}
          line={line}
          selection={lineSelection}
          sounding={made}
          onSelect={onSelectLine}
        >
          {(chord) => (
            <NewChord
              chord={chord}
              shows={newLine}
              asked={chord.index === lineSelection.focus}
              voicing={voicings.get(chord.key)}
              capo={reading.chart.capo}
            />
          )}
        </LineBank>
      )}
      {beside && (
        <LineBank
          name={`Kept: ${beside.name}`}
          className="bank bank-beside"
          columns={columns}
          bars={bars}
          line={beside.line}
          selection={NOTHING}
          sounding={other}
          onSelect={(index, stretch) =>
            onSelect(beside.line.find((one) => one.index === index)!.home, stretch)
          }
        >
          {(chord) => (
            <NewChord
              chord={chord}
              shows="none"
              asked={false}
              voicing={undefined}
              capo={reading.chart.capo}
            />
          )}
        </LineBank>
      )}
    </section>
  )
}, sameSystem)

interface LineBankProps {
  name: string
  className: string
  columns: CSSProperties
  bars: readonly Bar[]
  line: readonly LineChord[]
  selection: ChordSelection
  sounding: number | null
  onSelect: Props['onSelect']
  children: (chord: LineChord) => ReactNode
}

/** A bank of what is made: the new line, or a version beside it. */
function LineBank({
  name,
  className,
  columns,
  bars,
  line,
  selection,
  sounding,
  onSelect,
  children,
}: LineBankProps) {
  const lineOf = groupedBy(line, ({ slot }) => slot.bar)
  return (
    <div className={className} role="group" aria-label={name} style={columns}>
      {bars.map((bar) => (
        <div className="bar" key={bar.number}>
          <Slots
            bar={bar}
            chords={lineOf.get(bar.number) ?? []}
            selection={selection}
            sounding={sounding}
            onSelect={onSelect}
          >
            {children}
          </Slots>
        </div>
      ))}
    </div>
  )
}

/** The same picture: everything that is drawn is equal, though a key press has made it anew. */
function sameSystem(a: SystemProps, b: SystemProps): boolean {
  const plain: readonly (keyof SystemProps)[] = [
    'newLine',
    'low',
    'high',
    'form',
    'editing',
    'threads',
    'Between',
    'gutter',
    'first',
    'onSelect',
    'onSelectLine',
    'onGroup',
    'onBeat',
  ]
  if (plain.some((prop) => a[prop] !== b[prop])) return false
  const sameSelection = (one: ChordSelection, other: ChordSelection) =>
    one.anchor === other.anchor && one.focus === other.focus
  if (
    !sameSelection(a.selection, b.selection) ||
    !sameSelection(a.lineSelection, b.lineSelection) ||
    a.onward?.frets.join() !== b.onward?.frets.join()
  )
    return false
  return pictureOf(a) === pictureOf(b)
}

const pictures = new WeakMap<SystemProps, string>()

/** All that is drawn of a system, as text to compare. */
function pictureOf(props: SystemProps): string {
  const known = pictures.get(props)
  if (known !== undefined) return known
  const {
    newLine,
    form,
    threads,
    system: { bars, edges },
    chords,
    line,
    beside,
    voicings,
    reading: { analysis, chart },
  } = props
  const [first, last] = [bars[0]!.number, bars.at(-1)!.number]
  const picture = JSON.stringify([
    edges,
    chart.capo,
    bars.map(({ slots, source: _, ...bar }) => [bar, slots.length]),
    chords.map(({ slot, reading, index, key, played }) => [
      key,
      index,
      slot.text,
      slot.beats,
      reading?.roman,
      reading?.diatonic,
      reading?.function,
      played?.canonical,
    ]),
    newLine === 'none' && !threads
      ? 0
      : line.map((chord) => [
          ...lineInWords(chord),
          newLine === 'reasons' ? chord.decision?.because.why : voicings.get(chord.key)?.frets,
        ]),
    beside && [beside.name, beside.line.map(lineInWords)],
    bars.map((bar) => keyMovedTo(analysis, bar)),
    form ? analysis.groups.filter((group) => group.to.bar >= first && group.from.bar <= last) : 0,
    chart.problems
      .filter((problem) => problem.bar !== undefined && problem.bar >= first && problem.bar <= last)
      .map((problem) => [problem.bar, problem.beat, problem.code, problem.message]),
  ])
  pictures.set(props, picture)
  return picture
}

const lineInWords = ({ key, index, home, slot, decision, first, fixed, sounding, elsewhere }: LineChord) => [
  key,
  index,
  home,
  slot.text,
  slot.beats,
  slot.held,
  decision?.rule,
  decision?.by,
  first,
  fixed,
  sounding?.meant.canonical,
  sounding?.byPlayer,
  elsewhere,
]

/** The key that begins in a bar, where the tune leaves home or comes back. */
function keyMovedTo({ regions }: Analysis, bar: Bar): Key | null {
  const at = regions.findIndex((region) => region.from.bar === bar.number)
  return at > 0 ? regions[at]!.key : null
}

const systemName = (bars: readonly Bar[]): string => {
  const [first, last] = [bars[0]!.number, bars.at(-1)!.number]
  return first === last ? barName(first) : `${first === 0 ? 'Pickup' : `Bars ${first}`} to ${last}`
}

interface HomeBarProps {
  bar: Bar
  movesTo: Key | null
  editing: Editing | null
  onBeat: FormShown['onBeat']
  children: ReactNode
}

/** A bar of the home line with the signs of the form, and the places of its beats where it can be typed into. */
function HomeBar({ bar, movesTo, editing, onBeat, children }: HomeBarProps) {
  return (
    <div className={`bar ${barLines(bar)}`}>
      <BarHead bar={bar} movesTo={movesTo} />
      {children}
      {onBeat && <Beats bar={bar} onBeat={onBeat} />}
      {editing && <BeatInput bar={bar} editing={editing} />}
    </div>
  )
}

/** A foot under the bar for each beat: a touch of it types there. Keys reach the same by Enter and the arrows. */
function Beats({ bar, onBeat }: { bar: Bar; onBeat: NonNullable<FormShown['onBeat']> }) {
  return (
    <span className="beats" aria-hidden>
      {Array.from({ length: bar.beats }, (_, at) => (
        <button
          key={at}
          type="button"
          tabIndex={-1}
          title={`Type on beat ${bar.from + at}`}
          onClick={() => onBeat(bar.number, bar.from + at)}
        />
      ))}
    </span>
  )
}

interface SlotsProps<Chord extends { key: string; index: number; slot: Slot }> {
  bar: Bar
  chords: readonly Chord[]
  selection: ChordSelection
  /** The chord that sounds in this bank now. */
  sounding: number | null
  /** The bar was written as a repeat of the one before. */
  repeats?: boolean
  onSelect: Props['onSelect']
  onBeat?: FormShown['onBeat']
  children: (chord: Chord) => ReactNode
}

/** The chords of a bar, each as wide as it is long. */
function Slots<Chord extends { key: string; index: number; slot: Slot }>({
  bar,
  chords,
  selection,
  sounding,
  repeats,
  onSelect,
  onBeat,
  children,
}: SlotsProps<Chord>) {
  const silent = (bar.slots[0]?.beat ?? bar.from) - bar.from
  return (
    <div className="slots">
      {silent > 0 && <span style={{ flexGrow: silent }} />}
      {chords.map((chord) => (
        <button
          key={chord.key}
          type="button"
          style={{ flexGrow: chord.slot.beats }}
          data-slot={chord.index}
          tabIndex={selection.focus === chord.index ? 0 : -1}
          className={[
            'slot',
            isWithin(selection, chord.index) && 'selected',
            selection.focus === chord.index && 'focus',
            sounding === chord.index && 'sounding',
          ]
            .filter(Boolean)
            .join(' ')}
          aria-pressed={selection.focus === chord.index}
          onClick={(event) => onSelect(chord.index, event.shiftKey)}
          onDoubleClick={onBeat && (() => onBeat(bar.number, wholeBeat(chord.slot.beat)))}
        >
          {repeats && (
            <span className="repeat-sign" title="The bar before, again">
              %
            </span>
          )}
          {children(chord)}
        </button>
      ))}
    </div>
  )
}

const problemsRead = new WeakMap<Chart, ReadonlyMap<string, ChartProblem>>()
/** Problems of a chart by the place of their slot. */
function problemsOf(chart: Chart): ReadonlyMap<string, ChartProblem> {
  const known =
    problemsRead.get(chart) ??
    new Map(
      chart.problems.flatMap((one) =>
        one.bar === undefined || one.beat === undefined
          ? []
          : [[slotKey({ bar: one.bar, beat: one.beat }), one] as const],
      ),
    )
  problemsRead.set(chart, known)
  return known
}

function HomeChord({ chord, reading: { chart } }: { chord: TuneChord; reading: TuneReading }) {
  const { slot, reading, played } = chord
  if (slot.symbol?.kind === 'chord' && reading)
    return (
      <>
        <span className={slot.held ? 'held' : ''}>
          <ChordName chord={slot.symbol.chord} />
        </span>
        {played && (
          <span className="played-as">
            as <ChordName chord={played} />
          </span>
        )}
        <span className={reading.diatonic ? 'numeral' : 'numeral outside'}>{engraved(reading.roman)}</span>
        {!reading.diatonic && <span className="cause">{reading.function}</span>}
      </>
    )
  if (slot.symbol) return <span className="silence">N.C.</span>
  const problem = problemsOf(chart).get(slotKey(slot))
  return (
    <span className="unread" title={problem?.message}>
      {slot.text.slice(0, 24)}
      {slot.text.length > 24 && '…'}
      <small>{problem?.message ?? 'not read'}</small>
    </span>
  )
}

/** Degrees that a grip sounds beyond its chord, as a line adds them. */
const addedBy = ({ strings }: Voicing, { tones, bass }: ChordSymbol): string[] => [
  ...new Set(
    strings
      .filter(
        ({ note }) =>
          !tones.some((tone) => pitchClass(tone.note) === pitchClass(note)) &&
          !(bass && pitchClass(bass) === pitchClass(note)),
      )
      .map(({ degree }) => degree),
  ),
]

const PUT_IN_BY: Readonly<Record<Decision['by'], string>> = { control: '', hand: 'by hand', tune: '' }

function NewChord({
  chord,
  shows,
  asked,
  voicing,
  capo,
}: {
  chord: LineChord
  shows: MusicShown['newLine']
  asked: boolean
  voicing: Voicing | undefined
  capo: number
}) {
  const { decision, slot, first } = chord
  const made = madeChord(chord)
  if (!decision || !made) return <span className="silence">–</span>
  const byWhom = first ? PUT_IN_BY[decision.by] : ''
  return (
    <>
      <span
        className={[decision.rule !== 'plain' && 'changed', slot.held && 'held', 'made']
          .filter(Boolean)
          .join(' ')}
      >
        <ChordName chord={made} />
        {shows === 'grips' && !chord.sounding && voicing && addedBy(voicing, made).length > 0 && (
          <span className="quiet" title="Tensions that the line adds to the chord">
            +{engraved(addedBy(voicing, made).join(' '))}
          </span>
        )}
        {byWhom && (
          <span className="by-hand" title="Chosen by hand">
            {byWhom}
          </span>
        )}
        {chord.sounding && (
          <span
            className="by-hand"
            title={
              chord.sounding.byPlayer
                ? `The grip sounds ${chord.sounding.named?.canonical ?? 'something else'}`
                : `The grip was put in for ${chord.sounding.meant.canonical}`
            }
          >
            {chord.sounding.byPlayer
              ? `with ${engraved(chord.sounding.foreign.join(' ') || 'tones missing')}`
              : `for ${engraved(chord.sounding.meant.canonical)}`}
          </span>
        )}
      </span>
      {shows === 'reasons' && first && decision.rule !== 'plain' && (asked || decision.by !== 'control') && (
        <span className="why">{engravedWords(decision.because.why)}</span>
      )}
      {shows === 'grips' && (
        <span className="slot-grip">
          {voicing ? (
            <GripDiagram voicing={voicing} capo={capo} scale={slot.beats >= 2 ? 1.25 : 1} />
          ) : (
            <span
              className="silence"
              title="The search is not done, or no grip fits what is asked for: the line above the systems says which"
            >
              no grip here
            </span>
          )}
          {chord.fixed && <span className="by-hand">your grip</span>}
          {chord.elsewhere && (
            <span
              className="by-hand"
              title="The grip you chose is for other open strings and cannot be played on these"
            >
              yours: other tuning
            </span>
          )}
        </span>
      )}
    </>
  )
}

function threadChords(
  system: System,
  line: readonly LineChord[],
  voicings: ReadonlyMap<string, Voicing>,
): ThreadChord[] {
  return line.flatMap((one): ThreadChord[] => {
    const voicing = voicings.get(one.key)
    const chord = madeChord(one)
    const at = system.bars.findIndex((bar) => bar.number === one.slot.bar)
    return voicing && chord
      ? [
          {
            key: one.key,
            from: across(system, at, one.slot.beat),
            to: across(system, at, endOf(one.slot)),
            chord,
            voicing,
          },
        ]
      : []
  })
}
