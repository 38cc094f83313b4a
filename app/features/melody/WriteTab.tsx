import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { byOctaves, GRIDS, octavesToSing, type Grid } from '../../../core/melody/melody'
import { placeName } from '../../../core/chart/chart'
import type { Limits } from '../../../core/voicing/limits'
import type { MelodyView } from './useMelody'
import type { usePlayingIn } from './usePlayingIn'
import { LENGTHS } from './pen'
import type { Writing } from './useWriting'

interface Props {
  view: Pick<MelodyView, 'notes' | 'beyond'>
  writing: Writing
  /** Takes the pen up where there is room. */
  onPen: () => void
  playing: ReturnType<typeof usePlayingIn>
  limits: Limits
  neck: boolean
  onNeck: (shown: boolean) => void
  onBringIn: () => void
}

const GRID_NAMES: Readonly<Record<Grid, string>> = { 1: 'beats', 2: 'halves of a beat', 3: 'thirds of a beat', 4: 'quarters of a beat', 6: 'sixths of a beat' }

/** Putting the melody in: pen, grid, playing in, files, octaves. */
export function WriteTab({ view: { notes, beyond }, writing: { pen, change, place, begin, says, atEnd, write, ontoGrid, offGrid, putRest }, onPen, playing, limits, neck, onNeck, onBringIn }: Props) {
  const sings = octavesToSing(notes, limits)
  const octaves = (by: number) => write(byOctaves(notes, by), by < 0 ? 'melody an octave lower' : 'melody an octave higher')
  if (playing.on)
    return (
      <div className="melody-row" role="status">
        <Button variant="contained" color="secondary" onClick={playing.finish}>Stop and put it down (Space)</Button>
        <span>{playing.counted ? 'Playing in' : 'Count-in; then play'} from {placeName(begin)}: {playing.count} notes. The keys A S D F G H J K L are C D E F G A B C D, W E T Y U O the black keys between; Z and X go an octave down and up.</span>
      </div>
    )
  return (
    <>
      <div className="melody-row">
        <ToggleButton size="small" value="write" selected={pen.on} onChange={() => (pen.on ? change({ on: false }) : onPen())} title="Keys put notes in; so do clicks on the staff (E)">{pen.on ? atEnd ? 'Writing, at the end of the tune' : `Writing on ${placeName(place)}` : 'Write notes (E)'}</ToggleButton>
        <ToggleButtonGroup exclusive size="small" value={pen.quarters} aria-label="Length of a note" onChange={(_, quarters: number | null) => quarters && change({ quarters })}>
          {LENGTHS.map(({ quarters, name, key }) => <ToggleButton key={name} value={quarters} title={`Key ${key} while writing`}>{name}</ToggleButton>)}
        </ToggleButtonGroup>
        <ToggleButton size="small" value="dot" selected={pen.dotted} title="Half as long again (.)" onChange={() => change({ dotted: !pen.dotted })}>Dotted</ToggleButton>
        <ToggleButton size="small" value="triplet" selected={pen.triplet} title="Three in the time of two (T)" onChange={() => change({ triplet: !pen.triplet })}>Triplet</ToggleButton>
        {pen.on && <Button size="small" onClick={putRest} title="R">Rest</Button>}
        <ToggleButton size="small" value="neck" selected={neck} onChange={() => onNeck(!neck)}>Neck</ToggleButton>
      </div>
      <div className="melody-row">
        <TextField select size="small" label="Grid" value={pen.grid} sx={{ minWidth: 150 }} onChange={(event) => change({ grid: Number(event.target.value) as Grid })}>
          {GRIDS.map((grid) => <MenuItem key={grid} value={grid}>{GRID_NAMES[grid]}</MenuItem>)}
        </TextField>
        {offGrid > 0 && <Button size="small" onClick={ontoGrid}>Put {offGrid} {offGrid === 1 ? 'note' : 'notes'} on the grid</Button>}
        <Button size="small" onClick={() => void playing.start()}>Play it in</Button>
        <Button size="small" onClick={onBringIn}>ABC or a file</Button>
        {notes.length > 0 && <Button size="small" onClick={() => octaves(-1)}>Octave down</Button>}
        {notes.length > 0 && <Button size="small" onClick={() => octaves(1)}>Octave up</Button>}
        {sings !== 0 && <Button size="small" onClick={() => octaves(sings)}>To where the guitar sings ({sings > 0 ? 'up' : 'down'} {Math.abs(sings)})</Button>}
        {notes.length > 0 && <Button size="small" onClick={() => write([], 'melody taken out')}>Take the melody out</Button>}
      </div>
      {pen.on && says && <p className="quiet" role="status">{says}</p>}
      {beyond > 0 && <p className="quiet">{beyond} {beyond === 1 ? 'note stands' : 'notes stand'} beyond the bars of the chart: {beyond === 1 ? 'it is' : 'they are'} kept, and come back when the chart is long enough.</p>}
    </>
  )
}
