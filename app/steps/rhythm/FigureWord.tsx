import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { meterName, type Chart } from '../../../core/chart/chart'
import { RESTARTS } from '../../../core/rhythm/hit'
import type { TuneEdit } from '../../../core/tune/tuneEdit'
import type { Rhythm } from '../../../core/tune/rhythmSchema'
import { BarWord } from '../../services/controls/ControlBar'
import { FigureChoice } from './FigureChoice'
import { figureInWords, type RhythmSetting } from './rhythmSettings'

const RESTART_WORDS: Readonly<Record<Rhythm['restart'], string>> = {
  tune: 'at the beginning only',
  section: 'at each section',
  bar: 'in each bar',
}

interface Props extends RhythmSetting {
  chart: Chart
  /** First and last bar of the selection. */
  selectedBars: readonly [number, number]
  tapping: boolean
  onTap: () => void
  onEdit: (edit: TuneEdit) => void
}

/** The figure: of the tune, of a section, of the bars that are selected. */
export function FigureWord({
  rhythm,
  chart,
  selectedBars: [from, to],
  tapping,
  onTap,
  onSet,
  onEdit,
}: Props) {
  const { figure, restart, sections } = rhythm
  const names = [...new Set(chart.bars.flatMap(({ section }) => (section ? [section] : [])))]
  return (
    <BarWord name="Figure" term="figure" says={figureInWords(figure)}>
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
    </BarWord>
  )
}

/**
 * The figure that all of some bars have of their own; undefined where they have none, or differ.
 */
function figureOfBars({ bars }: Rhythm, from: number, to: number): Rhythm['figure'] | undefined {
  const own = Array.from({ length: to - from + 1 }, (_, at) => bars[String(from + at)])
  return own.every((one) => one === own[0]) ? own[0] : undefined
}
