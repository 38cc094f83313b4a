import Button from '@mui/material/Button'
import { SearchProgress } from '../../services/room/SearchProgress'
import type { AskedState } from '../../services/workers/useAnswer'

/** Different ways looked for at one distance. */
export const WAYS_WANTED = 3

interface Props {
  state: AskedState
  /** How many ways there are. */
  found: number
  /** Why there are none, where that is known. */
  none: string | null
  onStop: () => void
  /** Takes away what a way has put there; null where there is nothing of it. */
  onPlain: (() => void) | null
}

/** How far the search for ways is, and what came of it. */
export function WaysState({ state, found, none, onStop, onPlain }: Props) {
  return (
    <div className="lines-state" role="status" aria-label="Search">
      {state.kind === 'searching' && (
        <>
          <SearchProgress progress={state.progress} label="Search for ways" />
          <span>Looking for ways</span>
          <Button size="small" onClick={onStop}>
            Stop
          </Button>
        </>
      )}
      {state.kind === 'stopped' && 'Stopped; what was found stays. Move the slider to look again.'}
      {state.kind === 'fault' && <span className="fault">{state.message}</span>}
      {state.kind === 'found' &&
        found > 0 &&
        found < WAYS_WANTED &&
        `There ${found === 1 ? 'is' : 'are'} no more than ${found} unlike each other at this distance.`}
      {state.kind === 'found' && found === 0 && (none ?? 'Nothing can be changed here.')}
      {onPlain && (
        <Button size="small" onClick={onPlain}>
          Put the plain chords back
        </Button>
      )}
    </div>
  )
}
