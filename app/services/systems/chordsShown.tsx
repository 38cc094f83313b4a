import { slotKey, type Chart, type ChartProblem } from '../../../core/chart/chart'
import type { ChordSymbol } from '../../../core/chord/symbol'
import { pitchClass } from '../../../core/pitch/note'
import type { Decision, LineChord } from '../../../core/tune/decisions'
import { madeChord, type TuneChord, type TuneReading } from '../../../core/tune/tuneReading'
import type { Voicing } from '../../../core/voicing/voicing'
import { ChordName } from '../notation/ChordName'
import { engraved, engravedWords } from '../../../core/chord/engraved'
import { GripDiagram } from '../notation/GripDiagram'
import type { MusicShown } from '../room/room'

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

export function HomeChord({ chord, reading: { chart } }: { chord: TuneChord; reading: TuneReading }) {
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

export function NewChord({
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
        {chord.played && (
          <span className="played-as">
            as <ChordName chord={chord.played} />
          </span>
        )}
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
