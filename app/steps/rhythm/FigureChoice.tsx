import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { figuresFor } from '../../../core/rhythm/figures'
import type { Rhythm } from '../../../core/tune/rhythmSchema'

interface Props {
  label: string
  /** What stands there where nothing is chosen. */
  else: string
  meter: string
  /** Undefined where nothing is chosen, null where the guitar rests. */
  value: Rhythm['figure'] | undefined
  onChoose: (figure: string | null) => void
}

/**
 * Another figure for a part of the tune: one of the table, rest, or what stands around it. A figure
 * of the player's own stays until another is chosen.
 */
export function FigureChoice({ label, else: other, meter, value, onChoose }: Props) {
  const figures = figuresFor(meter)
  const own = typeof value === 'object' && value !== null
  const elsewhere = typeof value === 'string' && !figures.some(({ name }) => name === value)
  return (
    <TextField
      select
      size="small"
      label={label}
      value={valueOf(value)}
      sx={{ minWidth: 190 }}
      slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
      onChange={({ target }) => onChoose(target.value === '' ? null : target.value)}
    >
      <MenuItem value="">{other}</MenuItem>
      <MenuItem value="silent">the guitar rests</MenuItem>
      {own && <MenuItem value={OWN}>your own</MenuItem>}
      {elsewhere && <MenuItem value={value}>{value}</MenuItem>}
      {figures.map(({ name }) => (
        <MenuItem key={name} value={name}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  )
}

const OWN = 'own'
function valueOf(value: Props['value']): string {
  if (value === undefined) return ''
  if (value === null) return 'silent'
  return typeof value === 'string' ? value : OWN
}
