/**
 * The one shape in which the core refuses something: what was wrong, where, and what would be
 * accepted. Nothing in the core throws on a player's input; it returns one of these.
 */
export interface Fault {
  /** Stable word for programs, such as `bad-chord`. */
  code: string
  /** One sentence for the player. */
  message: string
  /** What would have been accepted instead. */
  accepted?: string
  /** Zero-based offset of the trouble in the text that was given. */
  at?: number
  /** The piece of text that could not be used. */
  text?: string
}

export type Result<T> = { ok: true; value: T } | { ok: false; fault: Fault }

export const good = <T>(value: T): Result<T> => ({ ok: true, value })
export const bad = (fault: Fault): Result<never> => ({ ok: false, fault })

/** The value, or an `Error` carrying the fault's message: for inputs the program itself wrote. */
export function must<T>(result: Result<T>): T {
  if (result.ok) return result.value
  throw new Error(result.fault.message)
}

/** What a library threw, in words: some throw an error, some a text. */
export const faultWords = (thrown: unknown): string => {
  const words = thrown instanceof Error ? thrown.message : typeof thrown === 'string' && thrown
  return words || 'it breaks off.'
}
