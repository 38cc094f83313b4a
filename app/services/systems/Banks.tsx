import { type CSSProperties, type ReactNode } from 'react'
import { wholeBeat } from '../../../core/chart/beats'
import { type Bar, type Slot } from '../../../core/chart/chart'
import type { Key } from '../../../core/pitch/key'
import type { LineChord } from '../../../core/tune/decisions'
import { groupedBy } from '../../../core/grouped'
import { barInWords, BarHead, barLines } from '../notation/BarHead'
import { BeatInput, type Editing } from '../notation/BeatInput'
import type { FormShown } from '../room/room'
import { isWithin, type ChordSelection } from '../selection/selection'

/** A chord was touched; with `stretch` all from the one selected before. */
export type OnSelect = (index: number, stretch: boolean) => void

interface LineBankProps {
  name: string
  className: string
  columns: CSSProperties
  bars: readonly Bar[]
  line: readonly LineChord[]
  selection: ChordSelection
  sounding: number | null
  onSelect: OnSelect
  children: (chord: LineChord) => ReactNode
}

/** A bank of what is made: the new line, or a version beside it. */
export function LineBank({
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
        <div className="bar" key={bar.number} role="group" aria-label={barInWords(bar)}>
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

interface HomeBarProps {
  bar: Bar
  movesTo: Key | null
  editing: Editing | null
  onBeat: FormShown['onBeat']
  children: ReactNode
}

/**
 * A bar of the home line with the signs of the form, and the places of its beats where it can be
 * typed into.
 */
export function HomeBar({ bar, movesTo, editing, onBeat, children }: HomeBarProps) {
  return (
    <div className={`bar ${barLines(bar)}`} role="group" aria-label={barInWords(bar)}>
      <BarHead bar={bar} movesTo={movesTo} />
      {children}
      {onBeat && <Beats bar={bar} onBeat={onBeat} />}
      {editing && <BeatInput bar={bar} editing={editing} />}
    </div>
  )
}

/**
 * A foot under the bar for each beat: a touch of it types there. Keys reach the same by Enter and
 * the arrows.
 */
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
  onSelect: OnSelect
  onBeat?: FormShown['onBeat']
  children: (chord: Chord) => ReactNode
}

/** The chords of a bar, each as wide as it is long. */
export function Slots<Chord extends { key: string; index: number; slot: Slot }>({
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
          aria-current={sounding === chord.index || undefined}
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
