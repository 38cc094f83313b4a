import Button from '@mui/material/Button'
import type { AskedState } from '../workers/useAnswer'
import { SearchProgress } from './SearchProgress'

interface Props {
  state: AskedState
  /** What is looked for, for those who listen. */
  label: string
  onStop: () => void
  onAgain?: () => void
}

/** How far a search is, with a way to stop it; what was found before stays. */
export function SearchState({ state, label, onStop, onAgain }: Props) {
  return (
    <div className="lines-state" role="status" aria-label="Search">
      {state.kind === 'searching' && (
        <>
          <SearchProgress progress={state.progress} label={label} word="Searching, " />
          <Button size="small" onClick={onStop}>
            Stop<span className="search-word">&nbsp;the search</span>
          </Button>
        </>
      )}
      {state.kind === 'stopped' && (
        <>
          The search was stopped; what was found before stays.{' '}
          {onAgain && (
            <Button size="small" onClick={onAgain}>
              Search again
            </Button>
          )}
        </>
      )}
      {state.kind === 'fault' && <span className="fault">{state.message}</span>}
    </div>
  )
}
