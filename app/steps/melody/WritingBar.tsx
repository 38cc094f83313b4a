import Button from '@mui/material/Button'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { placeName } from '../../../core/chart/chart'
import { ControlBar } from '../../services/controls/ControlBar'
import { LENGTHS } from './pen'
import type { usePlayingIn } from './usePlayingIn'
import type { Writing } from './useWriting'

/** The bar while notes are written: what the next one will be, with the key of each. */
export function WritingBar({
  writing: { pen, change, place, atEnd, putRest, says },
  neck,
  onNeck,
  range,
}: {
  /** From the lowest open string to the highest fret, in words. */
  range: string
  writing: Writing
  neck: boolean
  onNeck: (shown: boolean) => void
}) {
  return (
    <ControlBar label="Writing notes">
      <Button
        size="small"
        variant="contained"
        color="secondary"
        title="Escape, or E"
        onClick={() => change({ on: false })}
      >
        {atEnd ? 'Writing, at the end of the tune' : `Writing on ${placeName(place)}`}
      </Button>
      <ToggleButtonGroup
        exclusive
        size="small"
        value={pen.quarters}
        aria-label="Length of a note"
        onChange={(_, quarters: number | null) => quarters && change({ quarters })}
      >
        {LENGTHS.map(({ quarters, name, key }) => (
          <ToggleButton key={name} value={quarters} title={`Key ${key}`}>
            {name} <kbd>{key}</kbd>
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <ToggleButton
        size="small"
        value="dot"
        selected={pen.dotted}
        title="Half as long again"
        onChange={() => change({ dotted: !pen.dotted })}
      >
        Dotted <kbd>.</kbd>
      </ToggleButton>
      <ToggleButton
        size="small"
        value="triplet"
        selected={pen.triplet}
        title="Three in the time of two"
        onChange={() => change({ triplet: !pen.triplet })}
      >
        Triplet <kbd>T</kbd>
      </ToggleButton>
      <Button size="small" onClick={putRest}>
        Rest <kbd>R</kbd>
      </Button>
      <button type="button" className="tool" aria-pressed={neck} onClick={() => onNeck(!neck)}>
        Neck
      </button>
      <span className="quiet" role="status">
        {says ?? 'A to G put notes in; a touch, ← →, Home, End and Page keys move the place.'}
      </span>
      <span className="quiet">
        The last note: <kbd>↑</kbd> <kbd>↓</kbd> a half step, <kbd>Shift ↑</kbd> <kbd>Shift ↓</kbd> an octave.
        The guitar: {range}.
      </span>
    </ControlBar>
  )
}

interface PlayingProps {
  playing: ReturnType<typeof usePlayingIn>
  begin: { bar: number; beat: number }
  /** Names of the open strings, the lowest first. */
  tuning: readonly string[]
}

/** The bar while a melody is played in: where on the neck the keys lie. */
export function PlayingBar({ playing, begin, tuning }: PlayingProps) {
  const {
    where: { string, fret },
  } = playing
  const strings = tuning
    .slice(string, string + 4)
    .map((open) => open.replace(/\d/, ''))
    .join(' ')
  return (
    <ControlBar label="Playing in">
      <Button size="small" variant="contained" color="secondary" onClick={playing.finish}>
        Stop and put it down (Space)
      </Button>
      <span role="status">
        {playing.counted ? 'Playing in' : 'Count-in; then play'} from {placeName(begin)}: {playing.count}{' '}
        notes. Four rows of keys are the strings {strings}, the lowest below; along a row each key is a fret,
        from {fret === 0 ? 'the open string' : `fret ${fret}`}. ← → move along the neck, ↑ ↓ to other strings.
      </span>
    </ControlBar>
  )
}
