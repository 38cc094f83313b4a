import { z } from 'zod'
import { TEMPO_RANGE } from '../../../core/chart/parseChart'
import { parseKey } from '../../../core/pitch/key'

export const setName = z
  .string()
  .trim()
  .min(1, 'a name of 1 to 80 letters')
  .max(80, 'a name of 1 to 80 letters')
export const setNote = z.string().trim().max(2_000, 'a note of at most 2,000 letters')

/** A field that is empty, or not there, stands for what the tune says. */
const orOwn = <Schema extends z.ZodType>(schema: Schema) =>
  z.preprocess(
    (value) => (value === undefined || (typeof value === 'string' && value.trim() === '') ? null : value),
    schema.nullable(),
  )

/** How a tune is played in a set. */
export const howInSet = z.object({
  key: orOwn(
    z
      .string()
      .max(6)
      .refine((text) => parseKey(text).ok, 'a key such as Bb or F#m'),
  ),
  tempo: orOwn(z.coerce.number().int().min(TEMPO_RANGE[0]).max(TEMPO_RANGE[1])),
  version: orOwn(z.string().max(40)),
  note: z.string().trim().max(200, 'a note of at most 200 letters'),
})
