import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import Slider from '@mui/material/Slider'
import TextField from '@mui/material/TextField'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { meterName, type Chart } from '../../../core/chart/chart'
import { BASS_KINDS } from '../../../core/rhythm/bassLine'
import { figuresFor } from '../../../core/rhythm/figures'
import { RESTARTS } from '../../../core/rhythm/hit'
import { swingOf } from '../../../core/tune/accompaniment'
import type { TuneEdit } from '../../../core/tune/edit'
import { BAND_PARTS, BEHIND_MS, TIMES, type BandPart, type Rhythm } from '../../../core/tune/rhythmSchema'
import { Bar, Word } from '../../services/controls/Bar'
import { HandPanel, handInWords, type LateShown } from './HandPanel'

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

export const figureInWords = (figure: Rhythm['figure']): string =>
  figure === null ? 'each chord once' : typeof figure === 'string' ? figure : 'your own'

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
  const percent = Math.round(density * 100)
  const names = [...new Set(chart.bars.flatMap(({ section }) => (section ? [section] : [])))]
  const bandSays = [BASS_WORDS[bass], time === 'none' ? '' : TIME_WORDS[time]].filter(Boolean).join(', ')
  return (
    <Bar label="How it is accompanied">
      <Word name="Figure" says={figureInWords(figure)}>
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
          <TextField
            key={name}
            select
            size="small"
            label={`Section ${name}`}
            value={name in sections ? sectionValue(sections[name]!) : ''}
            sx={{ minWidth: 190 }}
            onChange={({ target: { value } }) =>
              onEdit({ kind: 'rhythm-section', section: name, figure: value === '' ? null : value })
            }
          >
            <MenuItem value="">the tune&rsquo;s figure</MenuItem>
            <MenuItem value="silent">the guitar rests</MenuItem>
            {figuresFor(meterName(chart.meter)).map((one) => (
              <MenuItem key={one.name} value={one.name}>
                {one.name}
              </MenuItem>
            ))}
          </TextField>
        ))}
        <TextField
          select
          size="small"
          label={from === to ? `This bar (${from})` : `Bars ${from} to ${to}`}
          value={barsValue(rhythm, from, to)}
          sx={{ minWidth: 190 }}
          onChange={({ target: { value } }) =>
            onEdit({ kind: 'rhythm-bars', from, to, figure: value === '' ? null : value })
          }
        >
          <MenuItem value="">as the rest</MenuItem>
          <MenuItem value="silent">the guitar rests</MenuItem>
          {figuresFor(meterName(chart.meter)).map((one) => (
            <MenuItem key={one.name} value={one.name}>
              {one.name}
            </MenuItem>
          ))}
        </TextField>
        <Button size="small" aria-pressed={tapping} onClick={onTap}>
          {tapping ? 'Stop tapping' : 'Tap a figure in (T)'}
        </Button>
        <p className="quiet">The figures stand at the right: ↑ ↓ sound them on this tune, Enter keeps.</p>
      </Word>
      <Word
        name="Space"
        says={`${percent === 100 ? 'every hit' : `${percent} of 100 hits`}${listens && hasMelody ? ', answers the melody' : ''}`}
      >
        <div className="rhythm-band">
          <span id="density-label">Density</span>
          <Slider
            aria-labelledby="density-label"
            value={percent}
            min={0}
            max={100}
            step={5}
            valueLabelDisplay="auto"
            onChange={(_, value) => onSet({ density: Number(value) / 100 }, `density ${String(value)}`)}
          />
          <span className="quiet">ghosts go first, the chords&rsquo; first hits last</span>
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
        says={`${ratio === 1 ? 'straight' : `swing ${ratio.toFixed(1)} : 1`}${rhythm.behindMs === 0 ? '' : `, ${behindInWords(rhythm.behindMs)}`}`}
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
          <span id="swing-label">Set by hand</span>
          <Slider
            aria-labelledby="swing-label"
            value={ratio}
            min={1}
            max={3}
            step={0.05}
            valueLabelDisplay="auto"
            valueLabelFormat={(value) => `${value.toFixed(2)} : 1`}
            onChange={(_, value) => onSet({ feel: Number(value) }, `swing ${Number(value).toFixed(2)} : 1`)}
          />
          <span />
          <span id="behind-label">Guitar</span>
          <Slider
            aria-labelledby="behind-label"
            value={rhythm.behindMs}
            min={-BEHIND_MS}
            max={BEHIND_MS}
            step={5}
            valueLabelDisplay="auto"
            valueLabelFormat={behindInWords}
            getAriaValueText={behindInWords}
            onChange={(_, value) =>
              onSet({ behindMs: Number(value) }, `guitar ${behindInWords(Number(value))}`)
            }
          />
          <span className="quiet">{behindInWords(rhythm.behindMs)}</span>
        </div>
      </Word>
      <Word name="Phrases" says={seed === 0 ? 'as the figure is' : `${phrase} bars, one thing varied`}>
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
      <Word name="Band" says={bandSays}>
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
            <Level
              key={part}
              name={PART_WORDS[part]}
              level={levels[part]}
              mute={muted.includes(part)}
              onLevel={(level) =>
                onSet({ levels: { ...levels, [part]: level } }, `${PART_WORDS[part].toLowerCase()} level`)
              }
              onMute={(mute) =>
                onSet(
                  { muted: mute ? [...muted, part] : muted.filter((one) => one !== part) },
                  `${PART_WORDS[part].toLowerCase()} ${mute ? 'silent' : 'heard'}`,
                )
              }
            />
          ))}
        </div>
      </Word>
      <Word name="Hand" says={handInWords(hand.late, tempo)}>
        <HandPanel {...hand} tempo={tempo} />
      </Word>
    </Bar>
  )
}

const behindInWords = (ms: number): string =>
  ms === 0 ? 'on the beat' : ms > 0 ? `${ms} ms laid back` : `${-ms} ms ahead`

/** The figure that all of some bars have of their own; none where they differ. */
function barsValue({ bars }: Rhythm, from: number, to: number): string {
  const values = Array.from({ length: to - from + 1 }, (_, at) => {
    const own = bars[String(from + at)]
    return own === undefined ? '' : sectionValue(own)
  })
  return values.every((one) => one === values[0]) ? values[0]! : ''
}

const sectionValue = (figure: Rhythm['sections'][string]): string =>
  figure === null ? 'silent' : typeof figure === 'string' ? figure : ''

interface LevelProps {
  name: string
  level: number
  mute: boolean
  onLevel: (level: number) => void
  onMute: (mute: boolean) => void
}

function Level({ name, level, mute, onLevel, onMute }: LevelProps) {
  return (
    <>
      <span>{name}</span>
      <Slider
        aria-label={`${name} level`}
        value={Math.round(level * 100)}
        min={0}
        max={100}
        step={5}
        disabled={mute}
        onChange={(_, value) => onLevel(Number(value) / 100)}
      />
      <ToggleButton size="small" value="mute" selected={mute} onChange={() => onMute(!mute)}>
        {mute ? 'Silent' : 'Heard'}
      </ToggleButton>
    </>
  )
}
