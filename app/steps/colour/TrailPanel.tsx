import { firstOf } from '../../../core/lists'
import Button from '@mui/material/Button'
import { placeName } from '../../../core/chart/chart'
import { ChordName } from '../../services/notation/ChordName'
import { engravedWords } from '../../../core/chord/engraved'
import type { Decision } from '../../../core/tune/decisions'
import { plainChord, type TuneReading } from '../../../core/tune/tuneReading'
import { whenInWords } from '../../services/words/written'
import { reasonsOf } from '../../../core/tune/reasons'

interface Props {
  reading: TuneReading
  onLiftOut: (decision: Decision) => void
  onSelect: (index: number) => void
}

/**
 * What was chosen, the latest first: which rule, where, why and when. Each can be lifted out alone.
 */
export function TrailPanel({ reading, onLiftOut, onSelect }: Props) {
  const trail = reasonsOf(reading)
    .filter(({ decision }) => decision.by !== 'control')
    .sort((a, b) => b.decision.at - a.decision.at)
  return (
    <section className="panel" aria-label="Trail">
      {trail.length === 0 && (
        <p className="quiet">
          Nothing is chosen yet. Keep a change from the drawer, or take a way through the tune: it stands here
          with its reason.
        </p>
      )}
      {trail.length > 0 && (
        <table className="trail">
          <tbody>
            {trail.map(({ decision, homes, byWhom }) => (
              <tr key={decision.key}>
                <td>
                  <button type="button" className="plain-button" onClick={() => onSelect(decision.index)}>
                    {placeName(firstOf(homes).slot)}
                  </button>
                </td>
                <td>
                  {homes.map((home) => (
                    <span className="reason-chord" key={home.key}>
                      <ChordName chord={plainChord(home)!} />
                    </span>
                  ))}{' '}
                  →{' '}
                  {decision.puts.map(({ chord }, at) => (
                    <span className="reason-chord" key={at}>
                      <ChordName chord={chord} />
                    </span>
                  ))}
                </td>
                <td>
                  <b>{engravedWords(decision.because.name)}</b> {engravedWords(decision.because.why)}
                </td>
                <td className="quiet">
                  {byWhom}
                  {decision.at > 0 && (
                    <>
                      <br />
                      {whenInWords(decision.at)}
                    </>
                  )}
                </td>
                <td>
                  <Button size="small" onClick={() => onLiftOut(decision)}>
                    Back to the plain chord
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  )
}
