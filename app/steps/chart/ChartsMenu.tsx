import { itemAt } from '../../../core/lists'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import TextField from '@mui/material/TextField'
import { memo, useState, type FormEvent } from 'react'
import { MOST_CHARTS } from '../../../core/tune/document'
import type { TuneEdit } from '../../../core/tune/tuneEdit'

interface Props {
  /** Names of the tune's charts in their order. */
  names: readonly string[]
  /** The one shown. */
  at: number
  onEdit: (edit: TuneEdit) => void
}

/** The charts of one tune: a plain one and later ones, each with what was made of it. */
export const ChartsMenu = memo(function ChartsMenu({ names, at: shown, onEdit }: Props) {
  const [naming, setNaming] = useState<'chart-add' | 'chart-name' | null>(null)
  return (
    <div className="charts-menu" role="group" aria-label="Charts of this tune">
      <span className="quiet">Chart</span>
      {names.map((name, at) => (
        <button
          key={at}
          type="button"
          className="chart-tab"
          aria-pressed={at === shown}
          onClick={() => at !== shown && onEdit({ kind: 'chart-show', at })}
        >
          {name}
        </button>
      ))}
      <button
        type="button"
        className="tool"
        disabled={names.length >= MOST_CHARTS}
        title="A copy of this chart with all that was made of it, to change"
        onClick={() => setNaming('chart-add')}
      >
        New chart
      </button>
      <button type="button" className="tool" onClick={() => setNaming('chart-name')}>
        Rename
      </button>
      {names.length > 1 && (
        <button
          type="button"
          className="tool"
          title="Undo brings it back"
          onClick={() => onEdit({ kind: 'chart-remove' })}
        >
          Take out
        </button>
      )}
      {naming && (
        <NameDialog
          kind={naming}
          now={naming === 'chart-name' ? itemAt(names, shown) : `Chart ${names.length + 1}`}
          onClose={() => setNaming(null)}
          onName={(name) => {
            onEdit({ kind: naming, name })
            setNaming(null)
          }}
        />
      )}
    </div>
  )
})

interface NameProps {
  kind: 'chart-add' | 'chart-name'
  now: string
  onName: (name: string) => void
  onClose: () => void
}

function NameDialog({ kind, now, onName, onClose }: NameProps) {
  const [name, setName] = useState(now)
  const take = (event: FormEvent) => {
    event.preventDefault()
    if (name.trim() !== '') onName(name.trim())
  }
  return (
    <Dialog open onClose={onClose} aria-labelledby="chart-name-title">
      <form onSubmit={take}>
        <DialogTitle id="chart-name-title" component="h2">
          {kind === 'chart-add' ? 'New chart of this tune' : 'Name of this chart'}
        </DialogTitle>
        <DialogContent>
          {kind === 'chart-add' && (
            <p className="quiet">It begins as a copy of the one you see. Both stay.</p>
          )}
          <TextField
            autoFocus
            fullWidth
            label="Name"
            value={name}
            error={name.trim() === ''}
            helperText={name.trim() === '' ? '1 to 40 letters' : ' '}
            slotProps={{ htmlInput: { maxLength: 40 } }}
            onFocus={(event) => event.target.select()}
            onChange={(event) => setName(event.target.value)}
          />
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" color="primary" disabled={name.trim() === ''}>
            {kind === 'chart-add' ? 'Make it' : 'Rename'}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}
