import Button from '@mui/material/Button'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { BarWord } from '../../services/controls/ControlBar'
import type { RhythmSetting } from './rhythmSettings'

/** The largest seed that is asked for: enough never to meet the same phrase again. */
const SEEDS = 10_000

/** Whether each phrase varies the figure. */
export function PhrasesWord({ rhythm: { seed, phrase }, onSet }: RhythmSetting) {
  return (
    <BarWord
      name="Phrases"
      term="phrases"
      says={seed === 0 ? 'as the figure is' : `${phrase} bars, one thing varied`}
    >
      <ToggleButtonGroup
        exclusive
        size="small"
        value={seed === 0 ? 0 : phrase}
        aria-label="Phrases"
        onChange={(_, next: 0 | 2 | 4 | null) => {
          if (next === 0) onSet({ seed: 0 }, 'no variation')
          else if (next) onSet({ phrase: next, seed: seed || 1 }, `phrases of ${next} bars`)
        }}
      >
        <ToggleButton value={0}>As the figure is</ToggleButton>
        <ToggleButton value={2}>Two bars</ToggleButton>
        <ToggleButton value={4}>Four bars</ToggleButton>
      </ToggleButtonGroup>
      <Button
        size="small"
        disabled={seed === 0}
        onClick={() => onSet({ seed: (seed % SEEDS) + 1 }, 'another variation')}
      >
        Another one like it (O)
      </Button>
      <p className="quiet">
        One thing is changed in each phrase and its end is filled; the same each time it is played.
      </p>
    </BarWord>
  )
}
