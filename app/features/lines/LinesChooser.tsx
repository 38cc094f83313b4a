import Button from '@mui/material/Button'
import LinearProgress from '@mui/material/LinearProgress'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import type { Line } from '../../../core/leading/lead'
import { STYLES, STYLE_NAMES, type StyleName } from '../../../core/leading/weights'
import type { Bass } from '../tune/document'
import type { LinesState } from './useLines'

interface Props {
  lines: Line[]
  state: LinesState
  chosen: number
  bass: Bass
  style: StyleName
  onLine: (line: number) => void
  onBass: (bass: Bass) => void
  onStyle: (style: StyleName) => void
  onStop: () => void
  onAgain: () => void
  /** The neck is shown. */
  neck: boolean
  onNeck: (shown: boolean) => void
}

const STYLE_LABELS: Readonly<Record<StyleName, string>> = {
  smooth: 'Smooth', contrary: 'Contrary', tension: 'Tension', bass: 'Bass-led', top: 'Top-led', position: 'One position', drone: 'Drone', thin: 'Thin', rootless: 'Rootless',
}

/** The lines found, their totals side by side, and what they are led by. */
export function LinesChooser({ lines, state, chosen, bass, style, onLine, onBass, onStyle, onStop, onAgain, neck, onNeck }: Props) {
  return (
    <div className="lines-chooser">
      <div className="lines-settings">
        <ToggleButtonGroup exclusive size="small" value={style} aria-label="Style of the lines" onChange={(_, next: StyleName | null) => next && onStyle(next)}>
          {STYLE_NAMES.map((name) => <ToggleButton key={name} value={name} title={STYLES[name].says}>{STYLE_LABELS[name]}</ToggleButton>)}
        </ToggleButtonGroup>
        <ToggleButtonGroup exclusive size="small" value={bass} aria-label="Who plays the bass" onChange={(_, next: Bass | null) => next && onBass(next)}>
          <ToggleButton value="chord" title="The lowest note of each grip is the chord's bass: for playing alone or in a duo">Guitar plays the bass</ToggleButton>
          <ToggleButton value="any" title="Any chord tone may be lowest and the root may be left out: a bass player has it">Bass player has it</ToggleButton>
        </ToggleButtonGroup>
        <ToggleButton size="small" value="neck" selected={neck} onChange={() => onNeck(!neck)}>Neck (K)</ToggleButton>
      </div>
      <div className="line-cards" role="radiogroup" aria-label="Lines found">
        {lines.map((line, at) => (
          <button key={at} type="button" role="radio" aria-checked={at === chosen} className="line-card" onClick={() => onLine(at)}>
            <b>Line {at + 1}</b>
            <span>{line.measures.motion} semitones</span>
            <span>{line.steps.reduce((sum, step) => sum + step.held, 0)} notes held</span>
            <span>hand {Math.round(line.measures.hand)} mm</span>
            <span>effort {(line.measures.grip / line.voicings.length).toFixed(1)}</span>
          </button>
        ))}
      </div>
      <div className="lines-state" aria-live="polite">
        {state.kind === 'searching' && (
          <>
            <LinearProgress variant="determinate" value={(100 * state.done) / state.of} aria-label="Search for lines" />
            <span>Searching, {Math.round((100 * state.done) / state.of)}%</span>
            <Button size="small" onClick={onStop}>Stop the search</Button>
          </>
        )}
        {state.kind === 'stopped' && <>The search was stopped; the lines found before stay. <Button size="small" onClick={onAgain}>Search again</Button></>}
        {state.kind === 'fault' && <span className="fault">{state.message}</span>}
      </div>
    </div>
  )
}
