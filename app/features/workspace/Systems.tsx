import { memo, useMemo, type CSSProperties, type ReactNode } from 'react'
import { barName, slotKey, type Bar } from '../../../core/chart/chart'
import type { Analysis, Group } from '../../../core/analysis/reading'
import type { Key } from '../../../core/pitch/key'
import type { Voicing } from '../../../core/voicing/voicing'
import { BeatInput, type Editing } from '../chart/BeatInput'
import { BarHead, barLines } from '../notation/BarHead'
import { ChordName, engraved, engravedWords } from '../notation/ChordName'
import { GripDiagram } from '../notation/GripDiagram'
import { Threads, type ThreadChord } from '../notation/Threads'
import { Brackets } from './Brackets'
import { across, columnsOf, endOf, systemsOf, type System } from './layout'
import { isWithin, type Selection } from './selection'
import type { Step } from './steps'
import type { TuneChord, TuneReading } from './useTuneReading'

interface Props {
  step: Step
  reading: TuneReading
  voicings: ReadonlyMap<string, Voicing>
  selection: Selection
  sounding: { index: number; version: 'plain' | 'new' } | null
  /** The beat that is being typed; null where the chart cannot be typed into here. */
  editing: Editing | null
  onSelect: (index: number, stretch: boolean) => void
  onGroup: (group: Group) => void
  /** A beat of a bar was asked for; absent where the chart cannot be edited. */
  onBeat?: (bar: number, beat: number) => void
}

/** The tune in two banks, four bars to a system: the home line above, what is being made below, the threads between. */
export const Systems = memo(function Systems({ step, reading, voicings, selection, sounding, editing, onSelect, onGroup, onBeat }: Props) {
  const { chart, chords } = reading
  const systems = useMemo(() => systemsOf(chart.bars), [chart])
  const byKey = useMemo(() => new Map(chords.map((chord) => [chord.key, chord])), [chords])
  const range = rangeOfVoices(voicings)
  return (
    <div className={`systems step-${step}`}>
      {systems.map((system, at) => {
        const inside = system.bars.flatMap((bar) => bar.slots.map((slot) => byKey.get(slotKey(slot))!))
        const first = inside[0]?.index ?? 0
        const last = inside.at(-1)?.index ?? -1
        const next = systems[at + 1]?.bars[0]?.slots[0]
        const near = (index: number) => index >= first && index <= last
        // Only what concerns this system is handed to it, so that the others need not be drawn again.
        return (
          <SystemView
            key={system.bars[0]!.number} step={step} system={system} chords={inside} reading={reading}
            voicings={voicings} onward={step === 'lines' && next ? voicings.get(slotKey(next)) ?? null : null} low={range[0]} high={range[1]}
            selection={isAway(selection, first, last) ? NOTHING : selection}
            sounding={sounding && near(sounding.index) ? sounding : null}
            editing={editing && system.bars.some((bar) => bar.number === editing.bar) ? editing : null}
            onSelect={onSelect} onGroup={onGroup} onBeat={onBeat}
          />
        )
      })}
    </div>
  )
})

const NOTHING: Selection = { anchor: -1, focus: -1 }
const isAway = ({ anchor, focus }: Selection, first: number, last: number) => Math.max(anchor, focus) < first || Math.min(anchor, focus) > last

function rangeOfVoices(voicings: ReadonlyMap<string, Voicing>): readonly [number, number] {
  const midis = [...voicings.values()].flatMap((voicing) => voicing.midis)
  return midis.length > 0 ? [Math.min(...midis) - 1, Math.max(...midis) + 1] : [40, 64]
}

interface SystemProps extends Omit<Props, 'voicings'> {
  system: System
  chords: TuneChord[]
  voicings: ReadonlyMap<string, Voicing>
  /** First grip of the next system, so that threads lead on over the edge. */
  onward: Voicing | null
  low: number
  high: number
}

/** One system. Drawn again only when something in it has changed. */
const SystemView = memo(function SystemView({ step, system, chords, reading, voicings, onward, low, high, selection, sounding, editing, onSelect, onGroup, onBeat }: SystemProps) {
  const { bars } = system
  const byKey = new Map(chords.map((chord) => [chord.key, chord]))
  const chordsOfBar = (bar: Bar) => bar.slots.map((slot) => byKey.get(slotKey(slot))!)
  const threads = step === 'lines' ? threadChords(system, chordsOfBar, voicings) : []
  const columns: CSSProperties = { gridTemplateColumns: columnsOf(system) }
  const pick = { selection, sounding, onSelect }
  return (
    <section className="system" aria-label={systemName(bars)}>
      {step === 'chart' && <Brackets groups={reading.analysis.groups} system={system} onSelect={onGroup} />}
      <div className="bank bank-home" role="group" aria-label="Home line" style={columns}>
        {bars.map((bar) => (
          <HomeBar key={bar.number} bar={bar} movesTo={step === 'chart' ? keyMovedTo(reading.analysis, bar) : null} onBeat={onBeat} editing={editing?.bar === bar.number ? editing : null}>
            <Slots bar={bar} chords={chordsOfBar(bar)} {...pick} version="plain" onBeat={onBeat}>{(chord) => <HomeChord chord={chord} reading={reading} />}</Slots>
          </HomeBar>
        ))}
      </div>
      {threads.length > 0 && (
        <Threads chords={threads} onward={onward && { voicing: onward }} range={[low, high]} selected={chords.find((chord) => chord.index === selection.focus)?.key ?? null} onSelect={(key) => onSelect(byKey.get(key)!.index, false)} />
      )}
      {step !== 'chart' && (
        <div className="bank bank-new" role="group" aria-label="New line" style={columns}>
          {bars.map((bar) => (
            <div className="bar" key={bar.number}>
              <Slots bar={bar} chords={chordsOfBar(bar)} {...pick} version="new">
                {(chord) => <NewChord chord={chord} step={step} voicing={voicings.get(chord.key)} capo={reading.chart.capo} />}
              </Slots>
            </div>
          ))}
        </div>
      )}
    </section>
  )
}, sameSystem)

/** The same picture: everything that is drawn is equal, though a key press has made it anew. */
function sameSystem(a: SystemProps, b: SystemProps): boolean {
  const plain: readonly (keyof SystemProps)[] = ['step', 'low', 'high', 'sounding', 'editing', 'onSelect', 'onGroup', 'onBeat']
  if (plain.some((prop) => a[prop] !== b[prop])) return false
  if (a.selection.anchor !== b.selection.anchor || a.selection.focus !== b.selection.focus || a.onward?.frets.join() !== b.onward?.frets.join()) return false
  return pictureOf(a) === pictureOf(b)
}

const pictures = new WeakMap<SystemProps, string>()

/** All that is drawn of a system, as text to compare. */
function pictureOf(props: SystemProps): string {
  const known = pictures.get(props)
  if (known !== undefined) return known
  const { step, system: { bars, edges }, chords, voicings, reading: { analysis, chart } } = props
  const [first, last] = [bars[0]!.number, bars.at(-1)!.number]
  const picture = JSON.stringify([
    edges, chart.capo,
    bars.map(({ slots, source: _, ...bar }) => [bar, slots.length]),
    chords.map(({ slot, reading, made, byHand, fixed, index, key, played }) => [
      key, index, slot.text, slot.beats, reading?.roman, reading?.diatonic, reading?.function, made?.chord.canonical, made?.why, byHand, fixed, played?.canonical,
      step === 'lines' ? voicings.get(key)?.frets : 0,
    ]),
    bars.map((bar) => keyMovedTo(analysis, bar)),
    step === 'chart' ? analysis.groups.filter((group) => group.to.bar >= first && group.from.bar <= last) : 0,
    chart.problems.filter((problem) => problem.bar !== undefined && problem.bar >= first && problem.bar <= last).map((problem) => [problem.bar, problem.beat, problem.code, problem.message]),
  ])
  pictures.set(props, picture)
  return picture
}

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
  onBeat: Props['onBeat']
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
function Beats({ bar, onBeat }: { bar: Bar; onBeat: NonNullable<Props['onBeat']> }) {
  return (
    <span className="beats" aria-hidden>
      {Array.from({ length: bar.beats }, (_, at) => (
        <button key={at} type="button" tabIndex={-1} title={`Type on beat ${bar.from + at}`} onClick={() => onBeat(bar.number, bar.from + at)} />
      ))}
    </span>
  )
}

interface SlotsProps extends Pick<Props, 'selection' | 'sounding' | 'onSelect' | 'onBeat'> {
  bar: Bar
  chords: TuneChord[]
  version: 'plain' | 'new'
  children: (chord: TuneChord) => ReactNode
}

/** The chords of a bar, each as wide as it is long. */
function Slots({ bar, chords, version, selection, sounding, onSelect, onBeat, children }: SlotsProps) {
  const silent = (bar.slots[0]?.beat ?? bar.from) - bar.from
  return (
    <div className="slots">
      {silent > 0 && <span style={{ flexGrow: silent }} />}
      {chords.map((chord) => (
        <button
          key={chord.key} type="button" style={{ flexGrow: chord.slot.beats }} data-slot={chord.index}
          className={['slot', isWithin(selection, chord.index) && 'selected', selection.focus === chord.index && 'focus',
            sounding?.index === chord.index && sounding.version === version && 'sounding'].filter(Boolean).join(' ')}
          aria-pressed={selection.focus === chord.index}
          onClick={(event) => onSelect(chord.index, event.shiftKey)}
          onDoubleClick={onBeat && (() => onBeat(bar.number, Math.floor(chord.slot.beat + 1e-6)))}
        >
          {bar.repeats && version === 'plain' && <span className="repeat-sign" title="The bar before, again">%</span>}
          {children(chord)}
        </button>
      ))}
    </div>
  )
}

function HomeChord({ chord, reading: { chart } }: { chord: TuneChord; reading: TuneReading }) {
  const { slot, reading, played } = chord
  if (slot.symbol?.kind === 'chord' && reading)
    return (
      <>
        <span className={slot.held ? 'held' : ''}><ChordName chord={slot.symbol.chord} /></span>
        {played && <span className="played-as">as <ChordName chord={played} /></span>}
        <span className={reading.diatonic ? 'numeral' : 'numeral outside'}>{engraved(reading.roman)}</span>
        {!reading.diatonic && <span className="cause">{reading.function}</span>}
      </>
    )
  if (slot.symbol) return <span className="silence">N.C.</span>
  const problem = chart.problems.find((one) => one.bar === slot.bar && one.beat === slot.beat)
  return <span className="unread" title={problem?.message}>{slot.text}<small>{problem?.message ?? 'not read'}</small></span>
}

function NewChord({ chord, step, voicing, capo }: { chord: TuneChord; step: Step; voicing: Voicing | undefined; capo: number }) {
  const { made, reading } = chord
  if (!made || !reading) return <span className="silence">–</span>
  const changed = made.rule !== 'plain'
  return (
    <>
      <span className={changed ? 'made changed' : 'made'}>
        <ChordName chord={made.chord} />
        {chord.byHand && <span className="by-hand" title="Chosen by hand">by hand</span>}
      </span>
      {step === 'colour' && <span className="why">{engravedWords(made.why)}</span>}
      {step === 'lines' && (
        <span className="slot-grip">
          {voicing ? <GripDiagram voicing={voicing} capo={capo} scale={chord.slot.beats >= 2 ? 1.25 : 1} /> : <span className="silence">no grip yet</span>}
          {chord.fixed && <span className="by-hand">fixed</span>}
        </span>
      )}
    </>
  )
}

function threadChords(system: System, chordsOfBar: (bar: Bar) => TuneChord[], voicings: ReadonlyMap<string, Voicing>): ThreadChord[] {
  return system.bars.flatMap((bar, at) => chordsOfBar(bar).flatMap((chord): ThreadChord[] => {
    const voicing = voicings.get(chord.key)
    if (!voicing || !chord.made) return []
    return [{ key: chord.key, from: across(system, at, chord.slot.beat), to: across(system, at, endOf(chord.slot)), chord: chord.made.chord, voicing }]
  }))
}
