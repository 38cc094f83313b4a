import { theOne } from '../../../core/lists'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { BarWord } from '../../services/controls/ControlBar'
import { VOICES, type VoiceHeard } from '../../services/sound/voiceHeard'

interface Props {
  /** How many there are. */
  lines: number
  chosen: number
  /** Another one that is heard in turn with it. */
  beside: number | null
  onBeside: (at: number | null) => void
  voice: VoiceHeard
  onVoice: (voice: VoiceHeard) => void
}

/** Which voices are heard, and with which other line in turn. */
export function HearWord({ lines, chosen, beside, onBeside, voice, onVoice }: Props) {
  return (
    <BarWord name="Hear" term="voices-heard" says={theOne(VOICES, ({ name }) => name === voice).label}>
      <ToggleButtonGroup
        exclusive
        size="small"
        value={voice}
        aria-label="Voices heard"
        onChange={(_, next: VoiceHeard | null) => next && onVoice(next)}
      >
        {VOICES.map(({ name, label, title }) => (
          <ToggleButton key={name} value={name} title={title}>
            {label}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <TextField
        select
        size="small"
        label="Compare by ear with"
        value={beside !== null && beside < lines && beside !== chosen ? String(beside) : ''}
        onChange={(event) => onBeside(event.target.value === '' ? null : Number(event.target.value))}
        sx={{ minWidth: 190 }}
      >
        <MenuItem value="">no other line</MenuItem>
        {Array.from({ length: lines }, (_, at) => at).map(
          (at) =>
            at !== chosen && (
              <MenuItem key={at} value={String(at)}>
                Line {at + 1}
              </MenuItem>
            ),
        )}
      </TextField>
    </BarWord>
  )
}
