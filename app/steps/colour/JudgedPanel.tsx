import { firstOf, itemAt } from '../../../core/lists'
import Button from '@mui/material/Button'
import { useMemo, useState } from 'react'
import { barName, placeName } from '../../../core/chart/chart'
import { engravedWords } from '../../../core/chord/engraved'
import type { Judgement } from '../../../core/reharm/judging/judge'
import { mendAt, type Mend } from '../../../core/reharm/judging/mend'
import type { TuneDocument } from '../../../core/tune/document'
import type { TuneEdit } from '../../../core/tune/tuneEdit'
import type { TuneReading } from '../../../core/tune/tuneReading'
import { chordIndexAt, choiceOfMend, madeOf, melodyJudged } from './judged'
import { ChordName } from '../../services/notation/ChordName'

interface Props {
  document: TuneDocument
  reading: TuneReading
  judged: Judgement
  onEdit: (edit: TuneEdit) => void
  onSelect: (index: number) => void
}

/**
 * The new line heard as a whole: what it does, what could be said against it, and what would mend
 * that.
 */
export function JudgedPanel({ document, reading, judged, onEdit, onSelect }: Props) {
  const { faults, does } = judged
  const made = useMemo(() => JSON.stringify(madeOf(reading)), [reading])
  return (
    <section className="panel judged" aria-label="Second opinion">
      {faults.length === 0 && does.length === 0 && (
        <p className="quiet">Nothing is changed yet that could be said anything of.</p>
      )}
      {does.length > 0 && (
        <ul className="judged-does">
          {does.map(({ name, why, places }) => (
            <li key={name}>
              <b>{firstOf(name).toUpperCase() + name.slice(1)}</b> in {barsInWords(places)}.{' '}
              <span className="quiet">{why}</span>
            </li>
          ))}
        </ul>
      )}
      {faults.length > 0 && (
        <table className="trail" aria-label="What could be said against it">
          <tbody>
            {faults.map((fault) => (
              <FaultRow
                key={`${fault.bar}:${fault.beat}:${fault.what}`}
                fault={fault}
                made={made}
                document={document}
                reading={reading}
                onEdit={onEdit}
                onSelect={onSelect}
              />
            ))}
          </tbody>
        </table>
      )}
      {faults.length === 0 && does.length > 0 && <p>Nothing is said against it.</p>}
      <p className="quiet">
        An opinion by what players of this style prefer, and no rule: what you like stays as it is.
      </p>
    </section>
  )
}

/** Bars that are named of what comes often. */
const MOST_BARS = 6
function barsInWords(places: readonly { bar: number }[]): string {
  const bars = [...new Set(places.map(({ bar }) => bar))].sort((a, b) => a - b)
  if (bars.length === 1) return barName(firstOf(bars))
  return `bars ${bars.slice(0, MOST_BARS).join(', ')}${bars.length > MOST_BARS ? ' and more' : ''}`
}

interface FaultRowProps extends Omit<Props, 'judged'> {
  fault: Judgement['faults'][number]
  /** The new line as text: what was asked of another is not answered for it. */
  made: string
}

function FaultRow({ fault, made, document, reading, onEdit, onSelect }: FaultRowProps) {
  const [asked, setAsked] = useState<{ of: string; mend: Mend | null } | null>(null)
  const mend = asked?.of === made ? asked : null
  const index = chordIndexAt(reading, fault)
  const place = reading.chords[index]
  return (
    <tr>
      <td>
        <button type="button" className="plain-button" onClick={() => onSelect(index)}>
          {place ? placeName({ ...place.slot, bar: fault.bar, beat: fault.beat }) : barName(fault.bar)}
        </button>
      </td>
      <td>
        <b>{fault.what}</b>
      </td>
      <td>{engravedWords(fault.why)}</td>
      <td className="row-tools">
        {!mend && (
          <Button
            size="small"
            onClick={() =>
              setAsked({
                of: made,
                mend: mendAt(document.text, madeOf(reading), fault, melodyJudged(document)),
              })
            }
          >
            What would mend it?
          </Button>
        )}
        {mend && !mend.mend && (
          <span role="status">Nothing tried here is better by itself; a neighbour may be.</span>
        )}
        {mend?.mend && (
          <span role="status">
            {(
              mend.mend.change?.puts.map(({ chord }) => chord) ??
              reading.chords
                .slice(mend.mend.index, mend.mend.index + mend.mend.span)
                .flatMap(({ slot }) => (slot.symbol?.kind === 'chord' ? [slot.symbol.chord] : []))
            ).map((chord, at) => (
              <span className="reason-chord" key={at}>
                <ChordName chord={chord} />
              </span>
            ))}{' '}
            {!mend.mend.change && 'as the chart has it '}
            <Button
              size="small"
              onClick={() =>
                onEdit({
                  kind: 'choose',
                  slot: itemAt(reading.chords, mend.mend!.index).key,
                  choice: choiceOfMend(mend.mend!, document, reading, Date.now()),
                })
              }
            >
              Take it
            </Button>
          </span>
        )}
      </td>
    </tr>
  )
}
