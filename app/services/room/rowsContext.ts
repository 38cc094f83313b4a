import { createContext, useContext } from 'react'

/** What a room tells its own rows between the lines. */
export interface RowsTold {
  /** Whose rows it is for. */
  to: object
  value: unknown
}

/**
 * Put around each system by who draws them, so that a row is drawn again when what it is told
 * changes, and the system around it is not.
 */
export const RowsTold = createContext<RowsTold | null>(null)

/**
 * A way to tell something to the rows of one room. While the rows of another room still stand, they
 * are told nothing.
 */
export function rowsTold<Value>() {
  const to = {}
  return {
    tell: (value: Value): RowsTold => ({ to, value }),
    /** In a row; null before anything was told. */
    useTold: (): Value | null => {
      const told = useContext(RowsTold)
      return told?.to === to ? (told.value as Value) : null
    },
  }
}
