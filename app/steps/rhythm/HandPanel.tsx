import Button from '@mui/material/Button'
import { useState } from 'react'
import { placeName } from '../../../core/chart/chart'
import { atEase, type HandTempo, type Help } from '../../../core/rhythm/handTempo'
import type { LineChord } from '../../../core/tune/decisions'
import { madeChord } from '../../../core/tune/tuneReading'
import { engravedWords } from '../../../core/chord/engraved'

export interface LateShown {
  late: HandTempo | null
  /** The chords that have grips, in order. */
  grips: readonly LineChord[]
  onHelp: (help: Help, into: LineChord) => void
  onGo: (chord: LineChord) => void
}

/** Changes that are named before the others are asked for. */
const SHOWN = 5

/** How fast the hand is at ease, in a few words. */
export function tempoOfHandInWords(late: HandTempo | null, tempo: number): string {
  if (!late) return 'grips first'
  if (late.changes.length === 0) return 'nothing to change'
  const { comfortable } = late
  return `${atEase(comfortable)}${comfortable < tempo ? `, late at ${Math.round(tempo)}` : ''}`
}

/** Where the hand is late, the most limiting change first, each with the help that gains most. */
export function HandPanel({ late, grips, onHelp, onGo, tempo }: LateShown & { tempo: number }) {
  const [all, setAll] = useState(false)
  if (!late) return <p className="quiet">The grips are looked for first: the Lines step finds them.</p>
  if (late.changes.length === 0)
    return <p className="quiet">No grip changes: there is nothing to be late for.</p>
  const shown = all ? late.changes : late.changes.slice(0, SHOWN)
  return (
    <>
      <ol className="plain-list late-list">
        {shown.map((change) => {
          const [from, into] = [grips[change.index], grips[change.to]]
          if (!from || !into) return null
          return (
            <li key={`${change.index} ${change.to}`}>
              <button type="button" className="plain-button" onClick={() => onGo(into)}>
                {engravedWords(`${madeChord(from)!.canonical} to ${madeChord(into)!.canonical}`)}
              </button>
              , {placeName(into.slot)}:{' '}
              <span className={change.comfortable < tempo ? 'late' : ''}>{atEase(change.comfortable)}</span>
              {change.mm > 1 && `, ${Math.round(change.mm)} mm along the neck`}
              {change.help.slice(0, 2).map((help) => (
                <Button key={help.text} size="small" onClick={() => onHelp(help, into)}>
                  {engravedWords(help.text.replace(/\.$/, ''))}
                </Button>
              ))}
            </li>
          )
        })}
      </ol>
      {!all && late.changes.length > SHOWN && (
        <Button size="small" onClick={() => setAll(true)}>
          All {late.changes.length}
        </Button>
      )}
    </>
  )
}
