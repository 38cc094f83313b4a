import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import type { ReactNode } from 'react'

interface Props<Value extends string | number> {
  label: string
  value: Value
  /** What can be chosen, with what it is called; a third part says that it cannot be chosen now. */
  options: readonly (readonly [Value, ReactNode, disabled?: boolean])[]
  /** In px: a choice keeps its place whatever is chosen. */
  width: number
  onChoose: (value: Value) => void
}

/** One of several, in a list that opens. */
export function ChoiceField<Value extends string | number>({
  label,
  value,
  options,
  width,
  onChoose,
}: Props<Value>) {
  return (
    <TextField
      select
      size="small"
      label={label}
      value={value}
      sx={{ minWidth: width }}
      onChange={({ target }) => onChoose(target.value as unknown as Value)}
    >
      {options.map(([one, says, disabled]) => (
        <MenuItem key={one} value={one} disabled={disabled ?? false}>
          {says}
        </MenuItem>
      ))}
    </TextField>
  )
}
