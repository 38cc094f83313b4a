import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { TEMPO_RANGE } from '../../../core/chart/parseChart'
import { useOnChange } from '../../services/words/stable'

/** The tempo that is wanted of what is on the stage. */
export function GoalField({ goal, onGoal }: { goal: number; onGoal: (goal: number) => void }) {
  const [typed, setTyped] = useState(String(goal))
  useOnChange(goal, (now) => setTyped(String(now)))
  const [low, high] = TEMPO_RANGE
  const value = Number(typed)
  const wrong = !Number.isFinite(value) || value < low || value > high
  const take = () => {
    if (!wrong && value !== goal) onGoal(value)
  }
  return (
    <TextField
      size="small"
      type="number"
      label={wrong ? `${low} to ${high}` : 'Goal'}
      error={wrong}
      value={typed}
      className="goal"
      slotProps={{ htmlInput: { min: low, max: high, 'aria-label': 'Goal in beats a minute' } }}
      onChange={({ target }) => setTyped(target.value)}
      onBlur={take}
      onKeyDown={(event) => event.key === 'Enter' && take()}
    />
  )
}
