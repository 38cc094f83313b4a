import Button from '@mui/material/Button'
import type { ReactNode } from 'react'

interface Props {
  onKeep: () => void
  onBack: () => void
  children: ReactNode
}

/**
 * What is tried and not kept yet: the same on every step. Enter keeps it and Escape goes back, as
 * the room's keys have it.
 */
export function TriedNotice({ onKeep, onBack, children }: Props) {
  return (
    <div className="trying">
      <p role="status">{children}</p>
      <span className="trying-acts">
        <Button size="small" variant="contained" color="primary" onClick={onKeep} title="Enter">
          Keep
        </Button>
        <Button size="small" onClick={onBack} title="Escape">
          Back
        </Button>
      </span>
    </div>
  )
}
