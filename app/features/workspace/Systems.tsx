import { memo, type ReactNode } from 'react'
import { slotKey, type Bar } from '../../../core/chart/chart'
import type { Voicing } from '../../../core/voicing/voicing'
import { ChordName, engraved, engravedWords } from '../notation/ChordName'
import { GripDiagram } from '../notation/GripDiagram'
import { Threads, type ThreadChord } from '../notation/Threads'
import { Brackets } from './Brackets'
import { isWithin, type Selection } from './selection'
import type { Step } from './steps'
import type { TuneChord, TuneReading } from './useTuneReading'

/** Bars in a system: the trade's four. */
export const BARS_IN_SYSTEM = 4

interface Props {
  step: Step
  reading: TuneReading
  voicings: ReadonlyMap<string, Voicing>
  selection: Selection
  sounding: { index: number; version: 'plain' | 'new' } | null
  onSelect: (index: number, stretch: boolean) => void
}

/** The tune in two banks, four bars to a system: the home line above, what is being made below, the threads between. */
export const Systems = memo(function Systems({ step, reading, voicings, selection, sounding, onSelect }: Props) {
  const { chart, chords } = reading
  const byKey = new Map(chords.map((chord) => [chord.key, chord]))
  const midis = [...voicings.values()].flatMap((voicing) => voicing.midis)
  const range = midis.length > 0 ? ([Math.min(...midis) - 1, Math.max(...midis) + 1] as const) : ([40, 64] as const)
  const systems = Array.from({ length: Math.ceil(chart.bars.length / BARS_IN_SYSTEM) }, (_, at) => chart.bars.slice(at * BARS_IN_SYSTEM, (at + 1) * BARS_IN_SYSTEM))
  const pick = { selection, sounding, onSelect }

  return (
    <div className={`systems step-${step}`}>
      {systems.map((bars) => {
        const chordsOfBar = (bar: Bar) => bar.slots.map((slot) => byKey.get(slotKey(slot))!)
        const threads = threadChords(bars, chordsOfBar, voicings)
        const onward = step === 'lines' ? firstVoicing(chart.bars[bars.at(-1)!.number], chordsOfBar, voicings) : null
        return (
          <section className="system" key={bars[0]!.number} aria-label={`Bars ${bars[0]!.number} to ${bars.at(-1)!.number}`}>
            {step === 'chart' && <Brackets groups={reading.analysis.groups} bars={bars} />}
            <Bank kind="home" bars={bars} label="Home line">
              {(bar) => <Slots bar={bar} chords={chordsOfBar(bar)} {...pick} version="plain">{(chord) => <HomeChord chord={chord} chart={reading} />}</Slots>}
            </Bank>
            {step === 'lines' && threads.length > 0 && (
              <Threads chords={threads} onward={onward} range={range} selected={chords[selection.focus]?.key ?? null} onSelect={(key) => onSelect(byKey.get(key)!.index, false)} />
            )}
            {step !== 'chart' && (
              <Bank kind="new" bars={bars} label="New line">
                {(bar) => (
                  <Slots bar={bar} chords={chordsOfBar(bar)} {...pick} version="new">
                    {(chord) => <NewChord chord={chord} step={step} voicing={voicings.get(chord.key)} />}
                  </Slots>
                )}
              </Bank>
            )}
          </section>
        )
      })}
    </div>
  )
})

function Bank({ kind, bars, label, children }: { kind: 'home' | 'new'; bars: Bar[]; label: string; children: (bar: Bar) => ReactNode }) {
  return (
    <div className={`bank bank-${kind}`} role="group" aria-label={label}>
      {bars.map((bar) => (
        <div className="bar" key={bar.number}>
          {kind === 'home' && (
            <span className="bar-number">
              {bar.opensSection && <b className="section-letter">{bar.section}</b>}
              {bar.number}
            </span>
          )}
          {children(bar)}
        </div>
      ))}
    </div>
  )
}

interface SlotsProps extends Pick<Props, 'selection' | 'sounding' | 'onSelect'> {
  bar: Bar
  chords: TuneChord[]
  version: 'plain' | 'new'
  children: (chord: TuneChord) => ReactNode
}

/** The chords of a bar, each as wide as it is long. */
function Slots({ bar, chords, version, selection, sounding, onSelect, children }: SlotsProps) {
  return (
    <div className="slots">
      {chords.map((chord) => (
        <button
          key={chord.key} type="button" style={{ flexGrow: chord.slot.beats }}
          className={['slot', isWithin(selection, chord.index) && 'selected', selection.focus === chord.index && 'focus',
            sounding?.index === chord.index && sounding.version === version && 'sounding'].filter(Boolean).join(' ')}
          aria-pressed={selection.focus === chord.index}
          onClick={(event) => onSelect(chord.index, event.shiftKey)}
        >
          {bar.repeats && version === 'plain' && <span className="repeat-sign" title="The bar before, again">%</span>}
          {children(chord)}
        </button>
      ))}
    </div>
  )
}

function HomeChord({ chord, chart: { chart } }: { chord: TuneChord; chart: TuneReading }) {
  const { slot, reading } = chord
  if (slot.symbol?.kind === 'chord' && reading)
    return (
      <>
        <ChordName chord={slot.symbol.chord} />
        <span className={reading.diatonic ? 'numeral' : 'numeral outside'}>{engraved(reading.roman)}</span>
        {!reading.diatonic && <span className="cause">{reading.function}</span>}
      </>
    )
  if (slot.symbol) return <span className="silence">N.C.</span>
  const problem = chart.problems.find((one) => one.bar === slot.bar && one.beat === slot.beat)
  return <span className="unread" title={problem?.message}>{slot.text}<small>{problem?.message ?? 'not read'}</small></span>
}

function NewChord({ chord, step, voicing }: { chord: TuneChord; step: Step; voicing: Voicing | undefined }) {
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
          {voicing ? <GripDiagram voicing={voicing} scale={chord.slot.beats >= 2 ? 1.25 : 1} /> : <span className="silence">no grip yet</span>}
          {chord.fixed && <span className="by-hand">fixed</span>}
        </span>
      )}
    </>
  )
}

function threadChords(bars: Bar[], chordsOfBar: (bar: Bar) => TuneChord[], voicings: ReadonlyMap<string, Voicing>): ThreadChord[] {
  return bars.flatMap((bar, at) => {
    const beats = bar.slots.reduce((sum, slot) => sum + slot.beats, 0)
    return chordsOfBar(bar).flatMap((chord): ThreadChord[] => {
      const voicing = voicings.get(chord.key)
      if (!voicing || !chord.made) return []
      const from = (at + (chord.slot.beat - 1) / beats) / BARS_IN_SYSTEM
      return [{ key: chord.key, from, to: from + chord.slot.beats / beats / BARS_IN_SYSTEM, chord: chord.made.chord, voicing }]
    })
  })
}

function firstVoicing(bar: Bar | undefined, chordsOfBar: (bar: Bar) => TuneChord[], voicings: ReadonlyMap<string, Voicing>): { voicing: Voicing } | null {
  const chord = bar && chordsOfBar(bar)[0]
  const voicing = chord && voicings.get(chord.key)
  return voicing ? { voicing } : null
}
