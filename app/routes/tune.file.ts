import { exportScore, type ScoreFormat } from '../../core/formats/exportChart'
import { readPlayer } from '../../db/player'
import { readTune } from '../../db/tunes'
import { database } from '../database.server'
import { withEveryGrip } from '../../core/tune/problem'
import { readTuneDocument } from '../../core/tune/reading'
import { scoreOf } from '../../core/tune/score'
import { fileNameFrom } from '../services/sound/saveSound'
import type { Route } from './+types/tune.file'

const FILES: Readonly<Record<ScoreFormat, { ending: string; type: string }>> = {
  musicxml: { ending: 'musicxml', type: 'application/vnd.recordare.musicxml+xml; charset=utf-8' },
  midi: { ending: 'mid', type: 'audio/midi' },
  abc: { ending: 'abc', type: 'text/vnd.abc; charset=utf-8' },
}

/** The tune as a file to be opened elsewhere: MusicXML, MIDI or ABC; with `?swung` a MIDI file has the feel that is heard, with `?voices` MusicXML and ABC have the
 * comping as the voices that sound and not as slashes. */
export function loader({ params, request }: Route.LoaderArgs) {
  const asked = new URL(request.url).searchParams
  const swung = asked.has('swung')
  const comping = asked.has('voices') ? 'voices' : 'slashes'
  const file = Object.hasOwn(FILES, params.format) ? FILES[params.format as ScoreFormat] : null
  const refuse = (message: string) =>
    new Response(`${message}\n`, { status: 404, headers: { 'Content-Type': 'text/plain; charset=utf-8' } })
  if (!file)
    return refuse(`There is no format "${params.format}". Accepted: ${Object.keys(FILES).join(', ')}.`)
  const state = readTune(database(), params.tuneId)
  if (!state) return refuse('This tune is not in the songbook.')
  const player = readPlayer(database())
  const whole = withEveryGrip(state.document, readTuneDocument(state.document, 'case', player), player)
  const { content, encoding } = exportScore(
    scoreOf(whole, player, 'case', { swung, comping }),
    params.format as ScoreFormat,
  )
  const name = `${fileNameFrom(state.document.title)}.${file.ending}`
  return new Response(encoding === 'base64' ? new Uint8Array(Buffer.from(content, 'base64')) : content, {
    headers: {
      'Content-Type': file.type,
      'Content-Disposition': `attachment; filename="tune.${file.ending}"; filename*=UTF-8''${encodeURIComponent(name)}`,
    },
  })
}
