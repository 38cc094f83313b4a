import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { IDIOMS, type Idiom } from '../../../core/chart/chart'
import type { IdiomRead } from '../../../core/analysis/tuneIdiom'
import { BarWord } from '../../services/controls/ControlBar'

/** As the chords say. */
const READ = 'read'

/**
 * The style of the tune, which decides what is offered first: as its chords say, or as the player
 * does.
 */
export function IdiomWord({
  idiom: { idiom, reason },
  set,
  onSet,
}: {
  idiom: IdiomRead
  /** The one the chart names; null where it is read. */
  set: Idiom | null
  onSet: (idiom: Idiom | null) => void
}) {
  return (
    <BarWord name="Idiom" says={idiom} keeps>
      <p>{reason} It decides what is offered first and what a way through the tune does.</p>
      <TextField
        select
        label="Idiom of the tune"
        size="small"
        value={set ?? READ}
        onChange={(event) => onSet(IDIOMS.find((one) => one === event.target.value) ?? null)}
      >
        <MenuItem value={READ}>as its chords say</MenuItem>
        {IDIOMS.map((one) => (
          <MenuItem key={one} value={one}>
            {one}
          </MenuItem>
        ))}
      </TextField>
    </BarWord>
  )
}
