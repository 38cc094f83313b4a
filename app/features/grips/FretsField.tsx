import TextField from '@mui/material/TextField'
import { useState } from 'react'
import type { Frets } from '../../../core/neck/instrument'
import { readFrets } from '../../../core/neck/readFrets'

/** Frets as text, lowest string first: `x 3 2 0 1 0` or `x32010`. */
export function FretsField({ frets, onFrets }: { frets: Frets; onFrets: (frets: Frets) => void }) {
  const [typed, setTyped] = useState(
    frets.some((fret) => fret !== null) ? frets.map((fret) => fret ?? 'x').join(' ') : '',
  )
  const [left, setLeft] = useState(false)
  const read = typed.trim() === '' ? null : readFrets(typed, frets.length)
  const send = () => {
    setLeft(true)
    if (read?.ok && read.value.join() !== frets.join()) onFrets(read.value)
  }
  const wrong = left && read !== null && !read.ok
  return (
    <TextField
      size="small"
      label="Frets, lowest string first"
      error={wrong}
      helperText={wrong ? `${read.fault.message} Accepted: ${read.fault.accepted!}.` : undefined}
      value={typed}
      placeholder="x 3 2 0 1 0"
      sx={{ width: 230 }}
      onChange={(event) => {
        setTyped(event.target.value)
        setLeft(false)
      }}
      onBlur={send}
      onKeyDown={(event) => event.key === 'Enter' && send()}
    />
  )
}
