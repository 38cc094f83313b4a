import { firstOf, itemAt, lastOf, theOne } from '../../../core/lists'
import { memo, type CSSProperties } from 'react'
import type { Analysis } from '../../../core/analysis/chordReading'
import { barName, type Bar } from '../../../core/chart/chart'
import type { Key } from '../../../core/pitch/key'
import type { LineChord } from '../../../core/tune/decisions'
import { groupedBy } from '../../../core/grouped'
import { madeChord, type TuneChord, type TuneReading } from '../../../core/tune/tuneReading'
import type { Voicing } from '../../../core/voicing/voicing'
import type { Editing } from '../notation/BeatInput'
import { Brackets } from '../notation/Brackets'
import { across, columnsOf, slotEnd, unitsOf, type System } from '../notation/systemLayout'
import { NOTHING_SUNG, SungWords, WordsField, type SungBar } from '../notation/SungWords'
import { Threads, type ThreadChord } from '../notation/Threads'
import type { FormShown, MusicShown, Pulling } from '../room/room'
import type { ChordSelection } from '../selection/selection'
import { useSoundingIn } from '../sound/SoundContext'
import { HomeBar, LineBank, Slots, type OnSelect } from './Banks'
import { HomeChord, NewChord } from './chordsShown'

/** No chord is selected. */
export const NO_SELECTION: ChordSelection = { anchor: -1, focus: -1 }

interface SystemProps extends Pick<MusicShown, 'newLine' | 'Row'> {
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
  /** Words and notes of the melody, by bar. */
  sung: ReadonlyMap<number, SungBar>
  /** Takes the words typed under a bar; undefined where they are only shown. */
  onWords: FormShown['onWords']
  gutter: number
  /** The first system of the tune. */
  first: boolean
  onSelect: OnSelect
  onSelectLine: OnSelect
}

const firstAndLast = (chords: readonly { index: number }[]): [number, number] => [
  chords[0]?.index ?? 0,
  chords.at(-1)?.index ?? -1,
]

/** One system. Drawn again only when something in it has changed. */
export const SystemView = memo(function SystemView({
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
  sung,
  onWords,
  Row,
  gutter,
  first,
  onSelect,
  onSelectLine,
}: SystemProps) {
  const { bars } = system
  const voices = threads ? threadChords(system, line, voicings) : []
  const columns: CSSProperties = { gridTemplateColumns: columnsOf(system) }
  const made = useSoundingIn('new', ...firstAndLast(line))
  const other = useSoundingIn('beside', ...firstAndLast(beside?.line ?? []))
  return (
    <section
      className="system"
      aria-label={systemName(bars)}
      style={{ '--gutter': `${gutter}px` } as CSSProperties}
    >
      {form && onGroup && <Brackets groups={reading.analysis.groups} system={system} onSelect={onGroup} />}
      <HomeBank
        system={system}
        chords={chords}
        reading={reading}
        selection={selection}
        form={form}
        editing={editing}
        onBeat={onBeat}
        sung={sung}
        onWords={onWords}
        onSelect={onSelect}
      />
      {voices.length > 0 && threads && (
        <Threads
          taken={threads.taken}
          onTake={threads.onTake}
          onDrag={threads.onDrag}
          sounded={threads.sounded?.(system)}
          chords={voices}
          wide={unitsOf(system)}
          onward={onward && { voicing: onward }}
          range={[low, high]}
          selected={line.find((chord) => chord.index === lineSelection.focus)?.key ?? null}
          onSelect={(key) => onSelectLine(theOne(line, (chord) => chord.key === key).index, false)}
        />
      )}
      {Row && <Row system={system} first={first} />}
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
          name={`${beside.isKept ? 'Kept' : 'Not taken yet'}: ${beside.name}`}
          className="bank bank-beside"
          columns={columns}
          bars={bars}
          line={beside.line}
          selection={NO_SELECTION}
          sounding={other}
          onSelect={(index, stretch) =>
            onSelect(theOne(beside.line, (one) => one.index === index).home, stretch)
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

/** The plain chart with its numerals and its words; from step to step it is mostly the same. */
const HomeBank = memo(function HomeBank({
  system,
  chords,
  reading,
  selection,
  form,
  editing,
  onBeat,
  sung,
  onWords,
  onSelect,
}: Pick<
  SystemProps,
  | 'system'
  | 'chords'
  | 'reading'
  | 'selection'
  | 'form'
  | 'editing'
  | 'onBeat'
  | 'sung'
  | 'onWords'
  | 'onSelect'
>) {
  const { bars } = system
  const chordsOf = groupedBy(chords, ({ slot }) => slot.bar)
  const sounding = useSoundingIn('plain', ...firstAndLast(chords))
  const hasWords =
    onWords !== undefined || bars.some(({ number }) => (sung.get(number)?.lyrics.length ?? 0) > 0)
  return (
    <div
      className="bank bank-home"
      role="group"
      aria-label="Home line"
      style={{ gridTemplateColumns: columnsOf(system) }}
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
            chords={chordsOf.get(bar.number) ?? []}
            selection={selection}
            sounding={sounding}
            onSelect={onSelect}
            repeats={bar.repeats}
            onBeat={onBeat}
          >
            {(chord) => <HomeChord chord={chord} reading={reading} />}
          </Slots>
        </HomeBar>
      ))}
      {hasWords &&
        bars.map((bar, at) => (
          <div key={bar.number} className="words-row" style={{ gridRow: 2, gridColumn: at + 1 }}>
            {onWords ? (
              <WordsField bar={bar} sung={sung.get(bar.number) ?? NOTHING_SUNG} onTake={onWords} />
            ) : (
              <SungWords bar={bar} sung={sung.get(bar.number) ?? NOTHING_SUNG} />
            )}
          </div>
        ))}
    </div>
  )
})

/** The same picture: everything that is drawn is equal, though a key press has made it anew. */
function sameSystem(a: SystemProps, b: SystemProps): boolean {
  const plain: readonly (keyof SystemProps)[] = [
    'newLine',
    'low',
    'high',
    'form',
    'editing',
    'threads',
    'Row',
    'gutter',
    'first',
    'onSelect',
    'onSelectLine',
    'onGroup',
    'onBeat',
    'onWords',
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
    sung,
    onWords,
    reading: { analysis, chart },
  } = props
  // Where words are only shown, the notes do not matter.
  const sungIn = (one: SungBar | undefined) => one && (onWords ? one : one.lyrics)
  const [first, last] = [firstOf(bars).number, lastOf(bars).number]
  const picture = JSON.stringify([
    edges,
    chart.capo,
    bars.map(({ slots, source: _, ...bar }) => [bar, slots.length, sungIn(sung.get(bar.number))]),
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
  return at > 0 ? itemAt(regions, at).key : null
}

const systemName = (bars: readonly Bar[]): string => {
  const [first, last] = [firstOf(bars).number, lastOf(bars).number]
  return first === last ? barName(first) : `${first === 0 ? 'Pickup' : `Bars ${first}`} to ${last}`
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
            to: across(system, at, slotEnd(one.slot)),
            chord,
            voicing,
          },
        ]
      : []
  })
}
