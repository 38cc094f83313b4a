import { z } from 'zod'
import { FORMATS, isFormat, SONGBOOK_FORMATS } from '../../core/formats/names'
import { database } from '../database.server'
import { streamedFile } from '../features/files/streamed.server'
import { refusedFile } from '../features/paper/answers.server'
import { MOST_ROWS } from '../features/songbook/entries'
import { fieldsOf } from '../services/forms/formFields'
import type { Route } from './+types/files.songbook'

/**
 * Every tune of the songbook as a file of its own, in one zip. Grips that were not found yet are
 * left out.
 */
export const loader = ({ params: { format }, request }: Route.LoaderArgs) => zipOf(format, request)

const chosen = z
  .string()
  .transform((all) => all.split(' '))
  .pipe(z.array(z.uuid()).min(1).max(MOST_ROWS))

/** The same of the tunes that were chosen, or a backup of these alone. */
export async function action({ params: { format }, request }: Route.ActionArgs) {
  const ids = chosen.safeParse((await fieldsOf(request)).ids)
  if (!ids.success)
    return refusedFile(`No tunes were named. Accepted: 1 to ${MOST_ROWS} tunes of the songbook.`)
  if (format !== 'backup') return zipOf(format, request, ids.data)
  const asked = { history: true, tunes: ids.data }
  return streamedFile('tunes.zip', request.signal, 'backup', { book: database().$client.name, asked })
}

function zipOf(format: string, { signal }: Request, tunes?: readonly string[]): Response {
  if (!isFormat(SONGBOOK_FORMATS, format) || format === 'text')
    return refusedFile(
      `There is no format "${format}" for a songbook. Accepted: ${SONGBOOK_FORMATS.join(', ')}.`,
    )
  const book = database().$client.name
  const { ending } = FORMATS[format].saved
  return streamedFile(`songbook-${format}.zip`, signal, 'songbook', { book, format, ending, tunes })
}
