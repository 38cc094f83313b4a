import { data } from 'react-router'
import { z } from 'zod'
import { parseChord } from '../../core/chord/parseChord'
import { putInBook, shapesInBook } from '../../db/grips'
import { database, withBook } from '../database.server'
import { refusalInWords } from '../../core/refusal'
import type { Route } from './+types/grips.kept'

const wanted = z.strictObject({
  symbol: z
    .string()
    .max(80)
    .refine((text) => parseChord(text).ok, 'a chord symbol such as Am9'),
  frets: z
    .array(z.int().min(0).max(36).nullable())
    .min(4, 'a grip of 4 to 8 strings')
    .max(8, 'a grip of 4 to 8 strings'),
  instrument: z.string().max(80),
})

/** What is in the grip book, in short. */
export const loader = () => ({ kept: shapesInBook(database()) })

/** A grip put into the book from a tune: 200 with what is in it then; 400 or 503 with a message. */
export async function action({ request }: Route.ActionArgs) {
  const body: unknown = await request.json().catch(() => null)
  const grip = wanted.safeParse(body)
  if (!grip.success) return data({ message: refusalInWords(grip.error, body) }, 400)
  return withBook((db) => ({ put: putInBook(db, grip.data), kept: shapesInBook(db) }))
}
