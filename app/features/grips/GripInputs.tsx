import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { FretsField } from './FretsField'
import type { GripRead, ReadBy } from './useGripRead'

/**
 * What can be typed beside the neck: its label, the label where it cannot be read, and an example.
 */
const FIELDS: readonly { by: keyof ReadBy; label: string; wrong: string; such: string; width: number }[] = [
  { by: 'symbol', label: 'Chord', wrong: 'not a chord symbol', such: 'Am9', width: 150 },
  { by: 'key', label: 'In the key', wrong: 'not a key', such: 'Bb', width: 110 },
  { by: 'over', label: 'Over the root', wrong: 'not a note', such: 'D', width: 120 },
]

/** A grip by its frets, what it is read by, and how it sounds. */
export function GripInputs({ grip }: { grip: GripRead }) {
  const silent = grip.midis.length === 0
  return (
    <div className="grip-inputs">
      <FretsField key={grip.frets.join()} frets={grip.frets} onFrets={(next) => grip.take(next)} />
      {FIELDS.map(({ by, label, wrong, such, width }) => (
        <TextField
          key={by}
          size="small"
          label={grip.wrong[by] ? wrong : label}
          error={grip.wrong[by]}
          value={grip.by[by]}
          placeholder={(by === 'symbol' && grip.likeliest?.canonical) || such}
          onChange={(event) => grip.readBy({ [by]: event.target.value })}
          sx={{ width }}
        />
      ))}
      <Button disabled={silent} onClick={grip.strum}>
        Strum
      </Button>
      <Button disabled={silent} onClick={grip.noteByNote}>
        Note by note
      </Button>
      <Button disabled={silent} onClick={grip.clear}>
        Clear
      </Button>
    </div>
  )
}
