import { FORMATS, isFormat, SONGBOOK_FORMATS } from '../../core/formats/names'
import { database } from '../database.server'
import { streamedFile } from '../features/files/streamed.server'
import { refusedFile } from '../features/paper/answers.server'
import type { Route } from './+types/files.songbook'

/** Every tune of the songbook as a file of its own, in one zip. Grips that were not found yet are left out. */
export function loader({ params: { format }, request }: Route.LoaderArgs) {
  if (!isFormat(SONGBOOK_FORMATS, format) || format === 'text')
    return refusedFile(
      `There is no format "${format}" for a songbook. Accepted: ${SONGBOOK_FORMATS.join(', ')}.`,
    )
  const book = database().$client.name
  const { ending } = FORMATS[format].saved
  return streamedFile(`songbook-${format}.zip`, request.signal, 'songbook', { book, format, ending })
}
