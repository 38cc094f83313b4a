import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import ToggleButton from '@mui/material/ToggleButton'
import { BASS_KINDS } from '../../../core/rhythm/bassLine'
import { BAND_PARTS, TIMES, type BandPart, type Rhythm } from '../../../core/tune/rhythmSchema'
import { BarWord } from '../../services/controls/ControlBar'
import type { RhythmSetting } from './rhythmSettings'
import { SettingSlider } from './SettingSlider'

const BASS_WORDS: Readonly<Record<Rhythm['bass'], string>> = {
  none: 'no bass',
  roots: 'roots',
  fifths: 'roots and fifths',
  two: 'two-feel',
  walking: 'walking',
  pedal: 'pedal',
}
const TIME_WORDS: Readonly<Record<Rhythm['time'], string>> = {
  none: 'no click',
  'every beat': 'click on every beat',
  'two and four': 'click on two and four',
  one: 'click on one',
  brushes: 'brushes',
}
const PART_WORDS: Readonly<Record<BandPart, string>> = { guitar: 'Guitar', bass: 'Bass', time: 'Time' }

/** Who plays along: what the bass does, what marks the time, and how loud each is. */
export function BandWord({ rhythm, onSet }: RhythmSetting) {
  const { bass, band, time, levels, muted } = rhythm
  const bandSays = [BASS_WORDS[bass], time === 'none' ? '' : TIME_WORDS[time]].filter(Boolean).join(', ')
  return (
    <BarWord name="Band" term="band" says={bandSays}>
      <TextField
        select
        size="small"
        label="Bass"
        value={bass}
        sx={{ minWidth: 150 }}
        onChange={({ target }) =>
          onSet(
            { bass: target.value as Rhythm['bass'] },
            `bass: ${BASS_WORDS[target.value as Rhythm['bass']]}`,
          )
        }
      >
        {(['none', ...BASS_KINDS] as const).map((one) => (
          <MenuItem key={one} value={one}>
            {BASS_WORDS[one]}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        select
        size="small"
        label="Bass plays from"
        value={band}
        sx={{ minWidth: 150 }}
        onChange={({ target }) =>
          onSet({ band: target.value as Rhythm['band'] }, `bass on the ${target.value} chords`)
        }
      >
        <MenuItem value="new">the new chords</MenuItem>
        <MenuItem value="plain">the plain chords</MenuItem>
      </TextField>
      <TextField
        select
        size="small"
        label="Time"
        value={time}
        sx={{ minWidth: 180 }}
        onChange={({ target }) =>
          onSet({ time: target.value as Rhythm['time'] }, TIME_WORDS[target.value as Rhythm['time']])
        }
      >
        {TIMES.map((one) => (
          <MenuItem key={one} value={one}>
            {TIME_WORDS[one]}
          </MenuItem>
        ))}
      </TextField>
      <div className="rhythm-band">
        {BAND_PARTS.map((part) => (
          <SettingSlider
            key={part}
            name={PART_WORDS[part]}
            value={Math.round(levels[part] * 100)}
            min={0}
            max={100}
            step={5}
            disabled={muted.includes(part)}
            onSet={(value) =>
              onSet({ levels: { ...levels, [part]: value / 100 } }, `${PART_WORDS[part].toLowerCase()} level`)
            }
          >
            <Mute
              name={PART_WORDS[part]}
              mute={muted.includes(part)}
              onMute={(mute) =>
                onSet(
                  { muted: mute ? [...muted, part] : muted.filter((one) => one !== part) },
                  `${PART_WORDS[part].toLowerCase()} ${mute ? 'silent' : 'heard'}`,
                )
              }
            />
          </SettingSlider>
        ))}
      </div>
    </BarWord>
  )
}

/** Whether one of the band is heard. */
function Mute({ name, mute, onMute }: { name: string; mute: boolean; onMute: (mute: boolean) => void }) {
  return (
    <ToggleButton
      size="small"
      value="mute"
      selected={mute}
      aria-label={`${name}: ${mute ? 'Silent' : 'Heard'}`}
      onChange={() => onMute(!mute)}
    >
      {mute ? 'Silent' : 'Heard'}
    </ToggleButton>
  )
}
