import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { LOOSEST } from '../../../core/rhythm/loose'
import { SWING_RANGE } from '../../../core/rhythm/swing'
import { BEHIND_MS, type Rhythm } from '../../../core/tune/rhythmSchema'
import { BarWord } from '../../services/controls/ControlBar'
import type { RhythmSetting } from './rhythmSettings'
import { SettingSlider } from './SettingSlider'

/**
 * How uneven its eighths are, and how exactly it is on the beat. @param ratio long eighth to short
 */
export function FeelWord({ rhythm, ratio, onSet }: RhythmSetting & { ratio: number }) {
  const { feel } = rhythm
  const loose = rhythm.loose ?? 0
  return (
    <BarWord
      name="Feel"
      term="feel"
      says={`${ratio === 1 ? 'straight' : `swing ${ratio.toFixed(1)} : 1`}${rhythm.behindMs === 0 ? '' : `, ${behindInWords(rhythm.behindMs)}`}${loose === 0 ? '' : ', loose'}`}
    >
      <ToggleButtonGroup
        exclusive
        size="small"
        value={typeof feel === 'number' ? null : feel}
        aria-label="Feel"
        onChange={(_, next: Exclude<Rhythm['feel'], number> | null) =>
          next && onSet({ feel: next }, `feel: ${next}`)
        }
      >
        <ToggleButton value="figure" title="As the figure is usually played">
          As the figure
        </ToggleButton>
        <ToggleButton value="straight">Straight</ToggleButton>
        <ToggleButton value="swing" title="Less uneven the faster it is">
          Swing by tempo
        </ToggleButton>
        <ToggleButton value="shuffle" title="2 : 1 at every tempo">
          Shuffle
        </ToggleButton>
      </ToggleButtonGroup>
      <div className="rhythm-band">
        <SettingSlider
          name="Set by hand"
          value={ratio}
          min={SWING_RANGE[0]}
          max={3}
          step={0.05}
          says={(value) => `${value.toFixed(2)} : 1`}
          onSet={(value) => onSet({ feel: value }, `swing ${value.toFixed(2)} : 1`)}
        />
        <SettingSlider
          name="Guitar"
          value={rhythm.behindMs}
          min={-BEHIND_MS}
          max={BEHIND_MS}
          step={5}
          says={behindInWords}
          onSet={(value) => onSet({ behindMs: value }, `guitar ${behindInWords(value)}`)}
        >
          {behindInWords(rhythm.behindMs)}
        </SettingSlider>
        <SettingSlider
          name="Looseness"
          value={Math.round(loose * 100)}
          min={0}
          max={100}
          step={5}
          onSet={(value) => onSet({ loose: value / 100 }, `looseness ${value}`)}
        >
          {loose === 0 ? 'exact' : `up to ${Math.round(loose * LOOSEST.ms)} ms beside the beat`}
        </SettingSlider>
      </div>
    </BarWord>
  )
}

function behindInWords(ms: number): string {
  if (ms === 0) return 'on the beat'
  return ms > 0 ? `${ms} ms laid back` : `${-ms} ms ahead`
}
