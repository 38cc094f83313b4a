import { data } from 'react-router'
import { z } from 'zod'
import { createTune, newDocument, readTune } from '../../db/tunes'
import { readPlayer } from '../../db/player'
import { text, title } from '../../core/tune/document'
import { readTuneDocument } from '../../core/tune/tuneReading'
import { refusalInWords } from '../../core/refusal'
import { database, withBook } from '../database.server'
import { tooMuch } from '../features/paper/bound.server'
import { fieldsOf } from '../services/forms/formFields'
import { bothHeard } from '../services/sound/tuneHeard'
import type { Route } from './+types/first'

/** Bars of a tune that are enough to tell plain from new. */
const BARS_HEARD = 8

const heardAsked = z.object({ tune: z.uuid() })

/** The beginning of a tune, plain and then new, to be played at one touch. */
export function loader({ request }: Route.LoaderArgs) {
  const asked = heardAsked.safeParse(Object.fromEntries(new URL(request.url).searchParams))
  const state = asked.success ? readTune(database(), asked.data.tune) : null
  if (!state) return data({ message: 'This tune is not in the songbook.' }, 404)
  const tooLong = tooMuch(state.document)
  if (tooLong !== null) return data({ message: tooLong }, 422)
  return Response.json(bothHeard(state.document, readPlayer(database()), BARS_HEARD))
}

const first = z.object({ title, text: text.trim().min(1, 'chords such as | Dm7 | G7 | C |') })

/** A first tune of the player's own: where it is, or why its chords could not be read. */
export async function action({ request }: Route.ActionArgs) {
  const form = await fieldsOf(request)
  const wanted = first.safeParse(form)
  if (!wanted.success) return Response.json({ message: refusalInWords(wanted.error, form) }, { status: 400 })
  const document = newDocument(wanted.data.title, wanted.data.text)
  if (!readTuneDocument(document).chords.some(({ reading }) => reading))
    return Response.json(
      { message: 'No chord could be read of that. Write them as on paper, in bars: | Dm7 | G7 | C | % |' },
      { status: 400 },
    )
  return withBook((db) => Response.json({ tune: createTune(db, document) }))
}
