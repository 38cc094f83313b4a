import { toMusicXml } from '../../core/formats/musicxml'
import { readPlayer } from '../../db/player'
import { readTune } from '../../db/tunes'
import { database } from '../database.server'
import { scoreOf } from '../features/sheet/score'
import { fileNameFrom } from '../features/sound/saveSound'
import type { Route } from './+types/musicxml'

/** The tune as a MusicXML file to be opened elsewhere. */
export function loader({ params }: Route.LoaderArgs) {
  const state = readTune(database(), params.tuneId)
  if (!state) return new Response('This tune is not in the songbook.\n', { status: 404, headers: { 'Content-Type': 'text/plain; charset=utf-8' } })
  const name = `${fileNameFrom(state.document.title)}.musicxml`
  return new Response(toMusicXml(scoreOf(state.document, readPlayer(database()))), {
    headers: {
      'Content-Type': 'application/vnd.recordare.musicxml+xml; charset=utf-8',
      'Content-Disposition': `attachment; filename="tune.musicxml"; filename*=UTF-8''${encodeURIComponent(name)}`,
    },
  })
}
