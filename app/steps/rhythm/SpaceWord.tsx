import ToggleButton from '@mui/material/ToggleButton'
import { BarWord } from '../../services/controls/ControlBar'
import type { RhythmSetting } from './rhythmSettings'
import { SettingSlider } from './SettingSlider'

/** How many of its hits are played, and whether they leave room for the melody. */
export function SpaceWord({ rhythm, hasMelody, onSet }: RhythmSetting & { hasMelody: boolean }) {
  const { density, listens } = rhythm
  const percent = Math.round(density * 100)
  return (
    <BarWord
      name="Space"
      term="density"
      says={`${percent === 100 ? 'every hit' : `${percent} of 100 hits`}${listens && hasMelody ? ', answers the melody' : ''}`}
    >
      <div className="rhythm-band">
        <SettingSlider
          name="Density"
          value={percent}
          min={0}
          max={100}
          step={5}
          onSet={(value) => onSet({ density: value / 100 }, `density ${value}`)}
        >
          ghosts go first, the chords&rsquo; first hits last
        </SettingSlider>
      </div>
      <ToggleButton
        size="small"
        value="listens"
        selected={listens}
        disabled={!hasMelody}
        onChange={() =>
          onSet({ listens: !listens }, listens ? 'guitar plays through' : 'guitar answers the melody')
        }
      >
        Answer the melody in its gaps
      </ToggleButton>
    </BarWord>
  )
}
