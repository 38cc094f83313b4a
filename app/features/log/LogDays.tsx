import { firstOf } from '../../../core/lists'
import { Form } from 'react-router'
import { useState } from 'react'
import { GRADES } from '../../../core/practice/grade'
import { dateOf } from '../../../core/practice/days'
import { engravedWords } from '../../../core/chord/engraved'
import { writtenAs } from '../../services/words/written'
import type { LogDay, PassRow } from '../../../db/practice'

/** The days of the log, the newest first and open. */
export function LogDays({ days }: { days: readonly LogDay[] }) {
  return days.map(({ day, passes }, at) => {
    const minutes = passes.reduce((sum, { seconds }) => sum + seconds, 0) / 60
    return (
      <details key={day} open={at === 0} className="log-day" aria-label={logDayInWords(day)}>
        <summary>
          <b>{logDayInWords(day)}</b> {Math.round(minutes)} minutes, {passes.length}{' '}
          {passes.length === 1 ? 'pass' : 'passes'}
        </summary>
        <ul className="plain-list">
          {things(passes).map((same) => (
            <Thing key={firstOf(same).id} passes={same} />
          ))}
        </ul>
      </details>
    )
  })
}

const wholeDay = writtenAs({ dateStyle: 'full', timeZone: 'UTC' })
export const logDayInWords = (day: number): string => wholeDay(new Date(dateOf(day)))

/** Passes of a day by what was practised, in the order in which it was begun. */
function things(passes: readonly PassRow[]): PassRow[][] {
  const by = new Map<string, PassRow[]>()
  for (const pass of passes) {
    const key = `${pass.tuneId} ${pass.kind} ${pass.item}`
    const known = by.get(key)
    if (known) known.push(pass)
    else by.set(key, [pass])
  }
  return [...by.values()]
}

function Thing({ passes }: { passes: readonly PassRow[] }) {
  const [open, setOpen] = useState(false)
  const [first] = passes
  const tempos = passes.flatMap(({ tempo }) => (tempo === null ? [] : [tempo]))
  const [low, high] = [Math.min(...tempos), Math.max(...tempos)]
  const notes = passes.filter(({ note }) => note !== '')
  return (
    <li className="log-thing">
      <button type="button" className="plain-button" aria-expanded={open} onClick={() => setOpen(!open)}>
        {engravedWords(first!.item)}
      </button>{' '}
      <span className="quiet">{first!.title}</span>{' '}
      {tempos.length > 0 && (
        <span>{low === high ? Math.round(low) : `${Math.round(low)} to ${Math.round(high)}`}</span>
      )}{' '}
      <span className="stage-marks log-marks">
        <span className="visually-hidden">{passes.map(({ grade }) => grade).join(', ')}</span>
        {passes.map(({ id, grade, hurt }) => (
          <i key={id} className={hurt ? 'failed hurts' : grade} aria-hidden />
        ))}
      </span>
      {notes.map(({ id, note }) => (
        <p key={id} className="log-note">
          {note}
        </p>
      ))}
      {open && (
        <ul className="plain-list log-passes">
          {passes.map((pass) => (
            <PassForm key={pass.id} pass={pass} />
          ))}
        </ul>
      )}
    </li>
  )
}

/** One pass, to be corrected or taken out. */
function PassForm({ pass: { id, at, zone, grade, tempo, note, key } }: { pass: PassRow }) {
  const time = new Intl.DateTimeFormat('en-GB', { timeStyle: 'short', timeZone: zone }).format(at)
  return (
    <li>
      <Form method="post" className="log-pass">
        <input type="hidden" name="id" value={id} />
        <span>{time}</span>
        <label>
          Grade{' '}
          <select name="grade" defaultValue={grade}>
            {GRADES.map((one) => (
              <option key={one}>{one}</option>
            ))}
          </select>
        </label>
        <label>
          Tempo <input name="tempo" type="number" min={20} max={400} step="any" defaultValue={tempo ?? ''} />
        </label>
        {key && <span>in {engravedWords(key)}</span>}
        <label>
          Note <input name="note" maxLength={2_000} defaultValue={note} />
        </label>
        <button type="submit" name="intent" value="correct">
          Correct
        </button>
        <button type="submit" name="intent" value="take-out">
          Take out
        </button>
      </Form>
    </li>
  )
}
