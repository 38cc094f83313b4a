import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import type { Bass } from '../../../core/tune/document'
import type { TuneEdit } from '../../../core/tune/tuneEdit'
import { BarWord } from '../../services/controls/ControlBar'

const BASS_LABELS: Readonly<Record<Bass, { label: string; title: string }>> = {
  chord: {
    label: 'Guitar plays the bass',
    title: 'The lowest note of each grip is the chord’s bass: for playing alone or in a duo',
  },
  any: {
    label: 'Bass player has it',
    title: 'Any chord tone may be lowest and the root may be left out: a bass player has it',
  },
}

/** Who has the bass. */
export function BassWord({ bass, onEdit }: { bass: Bass; onEdit: (edit: TuneEdit) => void }) {
  return (
    <BarWord name="Bass" term="bass" says={BASS_LABELS[bass].label}>
      <ToggleButtonGroup
        exclusive
        size="small"
        value={bass}
        aria-label="Who plays the bass"
        onChange={(_, next: Bass | null) => next && onEdit({ kind: 'bass', bass: next })}
      >
        {(Object.keys(BASS_LABELS) as Bass[]).map((one) => (
          <ToggleButton key={one} value={one} title={BASS_LABELS[one].title}>
            {BASS_LABELS[one].label}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
    </BarWord>
  )
}
