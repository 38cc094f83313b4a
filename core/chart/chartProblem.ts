import type { ChartProblem } from './chart'
import type { Token } from './tokens'

/** What could not be read, where it stands, and what would be accepted. */
export const problem = (token: Token, code: string, message: string, accepted: string): ChartProblem => ({
  code,
  message,
  accepted,
  line: token.line,
  column: token.column,
  text: token.text,
})
