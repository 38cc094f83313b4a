import Button from '@mui/material/Button'
import type { ReactNode } from 'react'
import { ErrorBoundary } from 'react-error-boundary'

interface Props {
  /** What it is, as the player calls it: "the music", "the drawer". */
  what: string
  /** What it is drawn from: when that is another, it is tried again by itself. */
  of: unknown
  children: ReactNode
}

/**
 * A part of the page whose faults are its own: it says what is wrong with it, and everything around
 * it goes on.
 */
export function Guarded({ what, of, children }: Props) {
  return (
    <ErrorBoundary
      resetKeys={[of]}
      fallbackRender={({ error, resetErrorBoundary }) => (
        <p className="notice" role="alert">
          Something went wrong in {what}: {error instanceof Error ? error.message : 'it cannot be drawn'}.
          What you made is kept.{' '}
          <Button size="small" onClick={resetErrorBoundary}>
            Draw it again
          </Button>
        </p>
      )}
    >
      {children}
    </ErrorBoundary>
  )
}
