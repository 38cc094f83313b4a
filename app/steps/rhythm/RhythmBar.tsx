import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { meterName, type Chart } from '../../../core/chart/chart'
import { BASS_KINDS } from '../../../core/rhythm/bassLine'
import { RESTARTS } from '../../../core/rhythm/hit'
import { LOOSEST } from '../../../core/rhythm/loose'
import { SWING_RANGE } from '../../../core/rhythm/swing'
import { swingOf } from '../../../core/tune/accompaniment'
import type { TuneEdit } from '../../../core/tune/edit'
import { BAND_PARTS, BEHIND_MS, TIMES, type BandPart, type Rhythm } from '../../../core/tune/rhythmSchema'
import { Bar, Word } from '../../services/controls/Bar'
import { FigureChoice } from './FigureChoice'
import { HandPanel, handInWords, type LateShown } from './HandPanel'
import { SettingSlider } from './SettingSlider'

interface Props {
  rhythm: Rhythm
  chart: Chart
  tempo: number
  hasMelody: boolean
  /** First and last bar of the selection. */
  selectedBars: readonly [number, number]
  hand: LateShown
  tapping: boolean
  onTap: () => void
  onSet: (set: Extract<TuneEdit, { kind: 'rhythm' }>['set'], did: string) => void
  onEdit: (edit: TuneEdit) => void
}

/** @param own what a figure is called that has no name */
export function figureInWords(figure: Rhythm['figure'], own = 'your own'): string {
  if (figure === null) return 'each chord once'
  return typeof figure === 'string' ? figure : own
}

const RESTART_WORDS: Readonly<Record<Rhythm['restart'], string>> = {
  tune: 'at the beginning only',
  section: 'at each section',
  bar: 'in each bar',
}
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

/** The largest seed that is asked for: enough never to meet the same phrase again. */
const SEEDS = 10_000

/** What the tune is accompanied with, in words that open. */
export function RhythmBar({
  rhythm,
  chart,
  tempo,
  hasMelody,
  selectedBars: [from, to],
  hand,
  tapping,
  onTap,
  onSet,
  onEdit,
}: Props) {
  const { figure, density, feel, seed, phrase, listens, bass, band, time, levels, muted, restart, sections } =
    rhythm
  const ratio = swingOf(rhythm, tempo, chart.meter)
  const loose = rhythm.loose ?? 0
  const percent = Math.round(density * 100)
  const names = [...new Set(chart.bars.flatMap(({ section }) => (section ? [section] : [])))]
  const bandSays = [BASS_WORDS[bass], time === 'none' ? '' : TIME_WORDS[time]].filter(Boolean).join(', ')
  return (
    <Bar label="How it is accompanied">
      <Word name="Figure" term="figure" says={figureInWords(figure)}>
        <TextField
          select
          size="small"
          label="Begins again"
          value={restart}
          onChange={({ target }) =>
            onSet(
              { restart: target.value as Rhythm['restart'] },
              `figure begins again ${RESTART_WORDS[target.value as Rhythm['restart']]}`,
            )
          }
          sx={{ minWidth: 190 }}
        >
          {RESTARTS.map((one) => (
            <MenuItem key={one} value={one}>
              {RESTART_WORDS[one]}
            </MenuItem>
          ))}
        </TextField>
        {names.map((name) => (
          <FigureChoice
            key={name}
            label={`Section ${name}`}
            else="the tune’s figure"
            meter={meterName(chart.meter)}
            value={sections[name]}
            onChoose={(next) => onEdit({ kind: 'rhythm-section', section: name, figure: next })}
          />
        ))}
        <FigureChoice
          label={from === to ? `This bar (${from})` : `Bars ${from} to ${to}`}
          else="as the rest"
          meter={meterName(chart.meter)}
          value={figureOfBars(rhythm, from, to)}
          onChoose={(next) => onEdit({ kind: 'rhythm-bars', from, to, figure: next })}
        />
        <Button size="small" aria-pressed={tapping} onClick={onTap}>
          {tapping ? 'Stop tapping' : 'Tap a figure in: T, then Space'}
        </Button>
        <p className="quiet">The figures stand at the right: ↑ ↓ sound them on this tune, Enter keeps.</p>
      </Word>
      <Word
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
      </Word>
      <Word
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
      </Word>
      <Word
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
      </Word>
      <Word name="Band" term="band" says={bandSays}>
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
                onSet(
                  { levels: { ...levels, [part]: value / 100 } },
                  `${PART_WORDS[part].toLowerCase()} level`,
                )
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
      </Word>
      <Word name="Hand" term="at-ease-to-112" says={handInWords(hand.late, tempo)}>
        <HandPanel {...hand} tempo={tempo} />
      </Word>
    </Bar>
  )
}

function behindInWords(ms: number): string {
  if (ms === 0) return 'on the beat'
  return ms > 0 ? `${ms} ms laid back` : `${-ms} ms ahead`
}

/** The figure that all of some bars have of their own; undefined where they have none, or differ. */
function figureOfBars({ bars }: Rhythm, from: number, to: number): Rhythm['figure'] | undefined {
  const own = Array.from({ length: to - from + 1 }, (_, at) => bars[String(from + at)])
  return own.every((one) => one === own[0]) ? own[0] : undefined
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
