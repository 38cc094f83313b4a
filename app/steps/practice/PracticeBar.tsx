import { itemAt } from '../../../core/lists'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { KEY_ORDERS, type KeyOrder } from '../../../core/practice/keysPractised'
import { AREAS } from '../../../core/practice/items'
import { ControlBar, BarWord } from '../../services/controls/ControlBar'
import { GUITARS, type Guitar } from './passSchedule'
import { INTO_KEYS, type IntoKey } from './useElsewhere'

export const PRACTICE_MODES = ['ladder', 'loop', 'walk', 'memory', 'keys', 'areas'] as const
export type PracticeMode = (typeof PRACTICE_MODES)[number]
const MODE_WORDS: Readonly<Record<PracticeMode, { name: string; says: string }>> = {
  ladder: { name: 'Tempo ladder', says: 'up after clean passes, back after failed ones' },
  loop: { name: 'Loop with the band', says: 'round and round until you end it' },
  walk: { name: 'Rubato walk', says: 'phrase by phrase, without time' },
  memory: { name: 'From memory', says: 'the grips are hidden until you ask (R), or slip' },
  keys: { name: 'Through the keys', says: 'the passage in one key after the other' },
  areas: { name: 'Areas of the neck', says: 'the tune’s cadence in five places' },
}
export const MINUTES = [5, 10, 15, 20, 30, 45, 60] as const
const GUITAR_WORDS: Readonly<Record<Guitar, string>> = {
  silent: 'you play it',
  soft: 'softly under you',
  heard: 'heard',
}

export interface Practised {
  mode: PracticeMode
  minutes: number
  guitar: Guitar
  order: KeyOrder
  into: IntoKey
  area: number
}

/** What is practised and how, in words that open. */
export function PracticeBar({
  set,
  keyNow,
  onSet,
}: {
  set: Practised
  /** The key of the rotation that is reached. */
  keyNow: string
  onSet: (change: Partial<Practised>) => void
}) {
  const { mode, minutes, guitar, order, into, area } = set
  const [low, high] = itemAt(AREAS, area)
  return (
    <ControlBar label="How it is practised">
      <BarWord name="Mode" term="mode" says={MODE_WORDS[mode].name.toLowerCase()}>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={mode}
          aria-label="Mode"
          sx={{ flexWrap: 'wrap' }}
          onChange={(_, next: PracticeMode | null) => next && onSet({ mode: next })}
        >
          {PRACTICE_MODES.map((one) => (
            <ToggleButton key={one} value={one}>
              {MODE_WORDS[one].name}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <p className="quiet">
          {MODE_WORDS[mode].name}: {MODE_WORDS[mode].says}.
        </p>
      </BarWord>
      <BarWord name="Time" term="plan" says={`${minutes} minutes`}>
        <TextField
          select
          size="small"
          label="Minutes you have"
          value={minutes}
          sx={{ minWidth: 160 }}
          onChange={({ target }) => onSet({ minutes: Number(target.value) })}
        >
          {MINUTES.map((one) => (
            <MenuItem key={one} value={one}>
              {one} minutes
            </MenuItem>
          ))}
        </TextField>
      </BarWord>
      <BarWord name="Guitar" term="guitar" says={GUITAR_WORDS[guitar]}>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={guitar}
          aria-label="Guitar"
          onChange={(_, next: Guitar | null) => next && onSet({ guitar: next })}
        >
          {GUITARS.map((one) => (
            <ToggleButton key={one} value={one}>
              {GUITAR_WORDS[one]}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      </BarWord>
      {mode === 'keys' && (
        <BarWord
          name="Keys"
          term="keys"
          says={`${keyNow}, by ${order === 'random' ? 'chance' : order}, ${into}`}
        >
          <TextField
            select
            size="small"
            label="One key after the other by"
            value={order}
            sx={{ minWidth: 210 }}
            onChange={({ target }) => onSet({ order: target.value as KeyOrder })}
          >
            {KEY_ORDERS.map((one) => (
              <MenuItem key={one} value={one}>
                {one === 'random' ? 'shuffled' : one}
              </MenuItem>
            ))}
          </TextField>
          <ToggleButtonGroup
            exclusive
            size="small"
            value={into}
            aria-label="Grips in the other keys"
            onChange={(_, next: IntoKey | null) => next && onSet({ into: next })}
          >
            {INTO_KEYS.map((one) => (
              <ToggleButton key={one} value={one}>
                {one}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
        </BarWord>
      )}
      {mode === 'areas' && (
        <BarWord name="Area" term="area" says={`frets ${low} to ${high}`}>
          <ToggleButtonGroup
            exclusive
            size="small"
            value={area}
            aria-label="Area of the neck"
            onChange={(_, next: number | null) => next !== null && onSet({ area: next })}
          >
            {AREAS.map(([from, to], at) => (
              <ToggleButton key={from} value={at}>
                {from} to {to}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
        </BarWord>
      )}
    </ControlBar>
  )
}
