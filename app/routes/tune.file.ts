import { fileNameFrom } from '../../core/formats/fileName'
import { FORMATS, isFormat, SAVED_FORMATS } from '../../core/formats/names'
import { readPlayer } from '../../db/player'
import { readTune } from '../../db/tunes'
import { database } from '../database.server'
import { fileAnswer, madeOr, refusedFile } from '../features/paper/answers.server'
import { tooMuch } from '../features/paper/bound.server'
import { runJob } from '../services/workers/pool.server'
import type { Route } from './+types/tune.file'

/**
 * The tune as a file to be opened elsewhere; with `?swung` a MIDI file has the feel that is heard,
 * with `?voices` MusicXML and ABC have the comping as the voices that sound and not as slashes.
 */
export async function loader({ params: { format, tuneId }, request }: Route.LoaderArgs) {
  const asked = new URL(request.url).searchParams
  const swung = asked.has('swung')
  const comping = asked.has('voices') ? 'voices' : 'slashes'
  if (!isFormat(SAVED_FORMATS, format))
    return refusedFile(`There is no format "${format}". Accepted: ${SAVED_FORMATS.join(', ')}.`)
  const state = readTune(database(), tuneId)
  if (!state) return refusedFile('This tune is not in the songbook.')
  const { document } = state
  const { ending, type } = FORMATS[format].saved
  const named = (content: BodyInit) => fileAnswer(content, `${fileNameFrom(document.title)}.${ending}`, type)
  // A chart as it was typed.
  if (format === 'text') return named(document.text)
  const tooLong = tooMuch(document)
  if (tooLong !== null) return refusedFile(tooLong, 422)
  const player = readPlayer(database())
  return madeOr(async () => {
    const { content, encoding } = await runJob(
      'file',
      { document, player, format, swung, comping },
      { signal: request.signal },
    )
    return named(encoding === 'base64' ? new Uint8Array(Buffer.from(content, 'base64')) : content)
  })
}
