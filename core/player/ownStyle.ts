import { z } from 'zod'
import { STYLE_NAMES, TERM_NAMES, type StyleName, type Term } from '../leading/weights'

/** A term that came later counts for nothing in a style kept before. */
const weight = z.number().min(0).max(100).default(0)
/** A style of the player's own: its weights, and the named style whose limits its grips keep to. */
export const ownStyle = z.strictObject({
  name: z.string().trim().min(1, 'a name of 1 to 40 letters').max(40, 'a name of 1 to 40 letters'),
  base: z.enum(STYLE_NAMES as [StyleName, ...StyleName[]]),
  weights: z
    .strictObject(Object.fromEntries(TERM_NAMES.map((term) => [term, weight])) as Record<Term, typeof weight>)
    .refine((table) => Object.values(table).some((one) => one > 0), 'weights of which one is above 0'),
})
export type OwnStyle = z.infer<typeof ownStyle>
