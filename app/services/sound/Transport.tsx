import FileDownloadOutlined from '@mui/icons-material/FileDownloadOutlined'
import PlayArrow from '@mui/icons-material/PlayArrow'
import Stop from '@mui/icons-material/Stop'
import Button from '@mui/material/Button'
import IconButton from '@mui/material/IconButton'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import Tooltip from '@mui/material/Tooltip'
import { memo, useRef, useState } from 'react'
import { TEMPO_RANGE } from '../../../core/chart/parseChart'
import type { Version } from './schedule'
import { COUNT_INS, SPEEDS, type CountIn, type Hearing } from './SoundContext'
import { useOnChange } from '../words/stable'

interface HowHeardProps {
  hearing: Hearing
  /** Name of the version shown beside the new line, if one is. */
  beside: string | null
  onHearing: (hearing: Hearing) => void
  tempo: number
  onTempo: (tempo: number) => void
}

interface Props extends HowHeardProps {
  playing: boolean
  /** What would be heard, in words; or why nothing can be. */
  says: string
  ready: boolean
  trouble: string | null
  onPlay: () => void
  onStop: () => void
  onSave: () => Promise<void>
}

const COUNT_WORDS: Readonly<Record<CountIn, string>> = { 0: 'none', 1: 'one bar', 2: 'two bars' }

/** Plain, new or both in turn; loop; count-in; tempo. */
export const Transport = memo(function Transport({
  playing,
  says,
  ready,
  trouble,
  onPlay,
  onStop,
  onSave,
  ...how
}: Props) {
  return (
    <footer className="transport" aria-label="Transport">
      <Button
        variant="contained"
        color={playing ? 'secondary' : 'primary'}
        startIcon={playing ? <Stop /> : <PlayArrow />}
        disabled={!playing && !ready}
        onClick={playing ? onStop : onPlay}
        className="play-button"
      >
        {playing ? 'Stop' : 'Play'}
      </Button>
      <HowHeard {...how} />
      <span className="transport-says" role="status" aria-label="What is played">
        {trouble ?? says}
      </span>
      <SaveSound ready={ready} onSave={onSave} />
    </footer>
  )
})

/**
 * What is heard and how. Its fields are the most costly things of the page to draw: what is said
 * beside them changes with every chord gone to, they do not.
 */
const HowHeard = memo(function HowHeard({ hearing, beside, onHearing, tempo, onTempo }: HowHeardProps) {
  return (
    <>
      <ToggleButtonGroup
        exclusive
        size="small"
        value={hearing.version}
        aria-label="Version heard"
        onChange={(_, version: Version | null) => version && onHearing({ ...hearing, version })}
      >
        <ToggleButton value="plain">Plain</ToggleButton>
        <ToggleButton value="new">New</ToggleButton>
        <ToggleButton value="both">Both in turn</ToggleButton>
        {beside && <ToggleButton value="turn">New, then {beside}</ToggleButton>}
      </ToggleButtonGroup>
      <ToggleButton
        size="small"
        value="loop"
        selected={hearing.loop}
        onChange={() => onHearing({ ...hearing, loop: !hearing.loop })}
      >
        Loop
      </ToggleButton>
      <TextField
        select
        className="speed"
        label="Count-in"
        value={hearing.countIn}
        onChange={(event) => onHearing({ ...hearing, countIn: Number(event.target.value) as CountIn })}
      >
        {COUNT_INS.map((bars) => (
          <MenuItem key={bars} value={bars}>
            {COUNT_WORDS[bars]}
          </MenuItem>
        ))}
      </TextField>
      <TempoField tempo={tempo} onTempo={onTempo} />
      <TextField
        select
        className="speed"
        label="Heard at"
        value={hearing.speed}
        slotProps={{
          select: { SelectDisplayProps: { title: 'The tempo at which it is heard; the tune keeps its own' } },
        }}
        onChange={(event) => onHearing({ ...hearing, speed: Number(event.target.value) })}
      >
        {SPEEDS.map((speed) => (
          <MenuItem key={speed} value={speed}>
            {speed === 100 ? 'tempo' : `${speed}%, ${Math.round((tempo * speed) / 100)}`}
          </MenuItem>
        ))}
      </TextField>
    </>
  )
})

const SaveSound = memo(function SaveSound({ ready, onSave }: Pick<Props, 'ready' | 'onSave'>) {
  const [saving, setSaving] = useState(false)
  const save = async () => {
    setSaving(true)
    await onSave().finally(() => setSaving(false))
  }
  return (
    <Tooltip describeChild title="Save what would be heard as a sound file (WAV)">
      <span>
        <IconButton aria-label="Save as sound file" disabled={!ready || saving} onClick={() => void save()}>
          <FileDownloadOutlined />
        </IconButton>
      </span>
    </Tooltip>
  )
})

/** A number that more could follow is taken after this pause. */
const TYPING_PAUSE_MS = 900

/** A tempo is taken when it is whole; out of range it stays as typed, with what is accepted. */
function TempoField({ tempo, onTempo }: { tempo: number; onTempo: (tempo: number) => void }) {
  const [typed, setTyped] = useState(String(tempo))
  useOnChange(tempo, (now) => setTyped(String(now)))
  const pause = useRef<ReturnType<typeof setTimeout>>(undefined)
  const [low, high] = TEMPO_RANGE
  const isTempo = (value: number) => Number.isInteger(value) && value >= low && value <= high
  const wrong = !isTempo(Number(typed))
  const take = (text: string) => {
    if (isTempo(Number(text)) && Number(text) !== tempo) onTempo(Number(text))
  }
  return (
    <TextField
      className="tempo"
      type="number"
      label={wrong ? `${low} to ${high}` : 'Tempo'}
      value={typed}
      error={wrong}
      slotProps={{ htmlInput: { min: low, max: high, step: 1, 'aria-label': 'Tempo in beats a minute' } }}
      onChange={(event) => {
        setTyped(event.target.value)
        clearTimeout(pause.current)
        const text = event.target.value
        // The field's own arrows give no kind of input, typing does: 20 may be on the way to 200,
        // and is taken when no more comes.
        const whole = !(event.nativeEvent as InputEvent).inputType || Number(text) * 10 > high
        if (whole) take(text)
        else pause.current = setTimeout(() => take(text), TYPING_PAUSE_MS)
      }}
      onBlur={() => {
        clearTimeout(pause.current)
        take(typed)
      }}
      onKeyDown={(event) => event.key === 'Enter' && take(typed)}
    />
  )
}
