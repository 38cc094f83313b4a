import { firstOf, lastOf, theOne } from '../../../core/lists'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { memo, useState } from 'react'
import { barName, placeName } from '../../../core/chart/chart'
import { pitchNear } from '../../../core/melody/entry'
import type { Key } from '../../../core/pitch/key'
import { pitchName } from '../../../core/pitch/note'
import type { Voicing } from '../../../core/voicing/voicing'
import { readCondition } from '../../../core/tune/conditions'
import type { LineChord } from '../../../core/tune/decisions'
import { MOST_CONDITIONS, type Condition } from '../../../core/tune/document'
import { engravedWords } from '../../../core/chord/engraved'
import { usePlayerSettings } from '../../services/player/PlayerContext'

type ConditionKind = Condition['kind']
const KINDS: readonly { kind: ConditionKind; label: string; accepts: string }[] = [
  { kind: 'top', label: 'this note on top', accepts: 'a pitch such as E4' },
  { kind: 'sounds', label: 'this note held', accepts: 'a pitch such as G3' },
  { kind: 'silent', label: 'this string silent', accepts: 'a string, 1 the highest' },
  { kind: 'open', label: 'this string open', accepts: 'a string, 1 the highest' },
  { kind: 'frets', label: 'between these frets', accepts: 'two frets such as 5 9' },
  { kind: 'range', label: 'between these notes', accepts: 'two pitches such as D3 C5' },
]

interface Props {
  conditions: readonly Condition[]
  /** First and last selected chord of the new line. */
  from: LineChord
  to: LineChord
  grip: Voicing | null
  strings: number
  songKey: Key
  /** The string whose note is taken hold of. */
  taken: number | null
  onAdd: (condition: Condition) => void
  onRemove: (at: number) => void
}

/** What the lines have to keep to in the selected stretch, and all that was asked for so far. */
export const ConditionsPanel = memo(function ConditionsPanel({
  conditions,
  from,
  to,
  grip,
  strings,
  songKey,
  taken,
  onAdd,
  onRemove,
}: Props) {
  const {
    settings: { instrument },
  } = usePlayerSettings()
  const [kind, setKind] = useState<ConditionKind>('top')
  const [typed, setTyped] = useState<string | null>(null)
  const value = typed ?? suggestion(kind, grip, strings, songKey, taken)
  const condition = readCondition(kind, value, strings)
  const { accepts } = theOne(KINDS, (one) => one.kind === kind)
  const full = conditions.length >= MOST_CONDITIONS
  return (
    <section aria-label="Conditions">
      <h3>Lead the line with</h3>
      <form
        className="grip-filters"
        onSubmit={(event) => {
          event.preventDefault()
          if (condition && !full) {
            onAdd({ ...condition, from: from.key, to: to.key } as Condition)
            setTyped(null)
          }
        }}
      >
        <TextField
          select
          size="small"
          label="Condition"
          value={kind}
          sx={{ width: 150 }}
          onChange={(event) => {
            setKind(event.target.value as ConditionKind)
            setTyped(null)
          }}
        >
          {KINDS.map((one) => (
            <MenuItem key={one.kind} value={one.kind}>
              {one.label}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          size="small"
          label={condition || value === '' ? 'Which' : accepts}
          error={!condition && value !== ''}
          value={value}
          sx={{ width: 100 }}
          onChange={(event) => setTyped(event.target.value)}
        />
        <Button type="submit" size="small" disabled={!condition || full}>
          Ask for it{' '}
          {from.key === to.key
            ? `in ${barName(from.slot.bar)}`
            : `from ${barName(from.slot.bar)} to ${barName(to.slot.bar)}`}
        </Button>
      </form>
      {full && (
        <p className="fault">A chart has at most {MOST_CONDITIONS} conditions: take one away first.</p>
      )}
      <ul className="plain-list">
        {conditions.map((one, at) => (
          <li key={at}>
            {engravedWords(inWords(one, instrument.tuning, songKey))}, {placeInWords(one)}{' '}
            <button type="button" className="plain-button" onClick={() => onRemove(at)}>
              take away
            </button>
          </li>
        ))}
      </ul>
    </section>
  )
})

const place = (key: string) => {
  const [bar, beat] = key.split(':').map(Number)
  return { bar: bar!, beat: beat! }
}
const placeInWords = ({ from, to }: Condition) =>
  from === to ? placeName(place(from)) : `${placeName(place(from))} to ${placeName(place(to))}`

/** A pitch as the key of the tune spells it. */
const inKey = (midi: number, key: Key): string => pitchName(pitchNear(midi, key, true))

function inWords(condition: Condition, tuning: readonly string[], songKey: Key): string {
  const nameOf = (midi: number) => inKey(midi, songKey)
  const stringOf = (string: number) =>
    `string ${tuning.length - string} (${tuning[string]?.replace(/\d/, '') ?? ''})`
  switch (condition.kind) {
    case 'top':
      return `${nameOf(condition.midi)} on top`
    case 'sounds':
      return `${nameOf(condition.midi)} held`
    case 'silent':
      return `${stringOf(condition.string)} silent`
    case 'open':
      return `${stringOf(condition.string)} open`
    case 'frets':
      return `frets ${condition.low} to ${condition.high}`
    case 'range':
      return `notes from ${nameOf(condition.low)} to ${nameOf(condition.high)}`
  }
}

/** What stands there now, so that keeping it is one touch. */
function suggestion(
  kind: ConditionKind,
  grip: Voicing | null,
  strings: number,
  songKey: Key,
  taken: number | null,
): string {
  const nameOf = (midi: number) => inKey(midi, songKey)
  if (!grip) return ''
  const note = grip.strings.find(({ string }) => string === taken)
  switch (kind) {
    case 'top':
      return nameOf(lastOf(grip.midis))
    case 'sounds':
      return nameOf(note?.midi ?? lastOf(grip.midis))
    case 'silent':
    case 'open':
      return note ? String(strings - note.string) : ''
    case 'frets': {
      const held = grip.frets.filter((fret): fret is number => fret !== null && fret > 0)
      return held.length > 0 ? `${Math.min(...held)} ${Math.min(...held) + 4}` : '1 5'
    }
    case 'range':
      return `${nameOf(firstOf(grip.midis))} ${nameOf(lastOf(grip.midis))}`
  }
}
