import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { useMemo, useState } from 'react'
import { importChart, LONGEST_IMPORT, type ImportFormat } from '../../../core/formats/importChart'

const FORMATS: readonly { value: ImportFormat; label: string; example: string }[] = [
  { value: 'text', label: 'Chords', example: 'C - Am - F - G\nor chords over lyrics, or bars: | C | Am F |' },
  { value: 'chordpro', label: 'ChordPro', example: '{title: …}\n[G]words with [D7]chords' },
  { value: 'numerals', label: 'Numerals', example: 'key: Bb\n| I | vi7 | ii7 | V7 |\nor numbers: 1 - 6- - 4 - 5' },
]

/** Takes in what a player has elsewhere, shows the chart it makes and what was left out, and puts it in when told to. */
export function ImportDialog({ onClose, onText }: { onClose: () => void; onText: (text: string) => void }) {
  const [format, setFormat] = useState<ImportFormat>('text')
  const [content, setContent] = useState('')
  const { text, warnings } = useMemo(() => importChart(content, format), [content, format])
  return (
    <Dialog open onClose={onClose} maxWidth="md" fullWidth aria-labelledby="import-title">
      <DialogTitle id="import-title" component="h2">Bring in chords</DialogTitle>
      <DialogContent>
        <ToggleButtonGroup exclusive size="small" value={format} aria-label="What it is" onChange={(_, next: ImportFormat | null) => next && setFormat(next)}>
          {FORMATS.map(({ value, label }) => <ToggleButton key={value} value={value}>{label}</ToggleButton>)}
        </ToggleButtonGroup>
        <div className="import-columns">
          <label>Paste here
            <textarea value={content} maxLength={LONGEST_IMPORT} spellCheck={false} placeholder={FORMATS.find((one) => one.value === format)!.example} onChange={(event) => setContent(event.target.value)} />
          </label>
          <label>The chart it makes
            <textarea value={text} readOnly />
          </label>
        </div>
        <div aria-live="polite">
          {warnings.length > 0 && <h3>Left out or guessed ({warnings.length})</h3>}
          <ul className="import-warnings">
            {warnings.map(({ line, column, message }) => <li key={`${line}:${column}:${message}`}>Line {line}, column {column}: {message}</li>)}
          </ul>
        </div>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Leave it</Button>
        <Button variant="contained" color="primary" disabled={text.trim() === ''} onClick={() => { onText(text); onClose() }}>Put it in place of the chart</Button>
      </DialogActions>
    </Dialog>
  )
}
