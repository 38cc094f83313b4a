import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { byOctaves, GRIDS, octavesToSing, type Grid } from '../../../core/melody/melody'
import type { Limits } from '../../../core/voicing/gripLimits'
import type { MelodyView } from './useMelody'
import type { usePlayingIn } from './usePlayingIn'
import type { Writing } from './useWriting'

interface Props {
  view: Pick<MelodyView, 'notes' | 'beyond'>
  writing: Writing
  playing: ReturnType<typeof usePlayingIn>
  limits: Limits
  onBringIn: () => void
}

const GRID_NAMES: Readonly<Record<Grid, string>> = {
  1: 'beats',
  2: 'halves of a beat',
  3: 'thirds of a beat',
  4: 'quarters of a beat',
  6: 'sixths of a beat',
}

/** Putting the melody in other than by the pen: grid, playing in, files, octaves. */
export function WriteTab({
  view: { notes, beyond },
  writing: { pen, change, write, ontoGrid, offGrid },
  playing,
  limits,
  onBringIn,
}: Props) {
  const sings = octavesToSing(notes, limits)
  const octaves = (by: number) =>
    write(byOctaves(notes, by), by < 0 ? 'melody an octave lower' : 'melody an octave higher')
  return (
    <>
      <div className="melody-row">
        <TextField
          select
          size="small"
          label="Grid"
          value={pen.grid}
          sx={{ minWidth: 150 }}
          onChange={(event) => change({ grid: Number(event.target.value) as Grid })}
        >
          {GRIDS.map((grid) => (
            <MenuItem key={grid} value={grid}>
              {GRID_NAMES[grid]}
            </MenuItem>
          ))}
        </TextField>
        {offGrid > 0 && (
          <Button size="small" onClick={ontoGrid}>
            Put {offGrid} {offGrid === 1 ? 'note' : 'notes'} on the grid
          </Button>
        )}
        <Button size="small" onClick={() => void playing.start()}>
          Play it in
        </Button>
        <Button size="small" onClick={onBringIn}>
          ABC or a file
        </Button>
        {notes.length > 0 && (
          <Button size="small" onClick={() => octaves(-1)}>
            Octave down
          </Button>
        )}
        {notes.length > 0 && (
          <Button size="small" onClick={() => octaves(1)}>
            Octave up
          </Button>
        )}
        {sings !== 0 && (
          <Button size="small" onClick={() => octaves(sings)}>
            To where the guitar sings ({sings > 0 ? 'up' : 'down'} {Math.abs(sings)})
          </Button>
        )}
        {notes.length > 0 && (
          <Button size="small" onClick={() => write([], 'melody taken out')}>
            Take the melody out
          </Button>
        )}
      </div>
      {beyond > 0 && (
        <p className="quiet">
          {beyond} {beyond === 1 ? 'note stands' : 'notes stand'} beyond the bars of the chart:{' '}
          {beyond === 1 ? 'it is' : 'they are'} kept, and come back when the chart is long enough.
        </p>
      )}
    </>
  )
}
