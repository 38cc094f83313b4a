import { database } from '../database.server'
import { readTune } from '../../db/tunes'
import { refusedFile } from '../features/paper/answers.server'
import { streamedFile } from '../features/files/streamed.server'
import type { Route } from './+types/files.backup'

/**
 * All of the book as one file; with `history` every step of undo is in it, with `tune` one tune
 * alone.
 */
export function loader({ request }: Route.LoaderArgs) {
  const asked = new URL(request.url).searchParams
  const tune = asked.get('tune')
  const db = database()
  if (tune !== null && !readTune(db, tune)) return refusedFile('This tune is not in the songbook any more.')
  const day = new Date().toISOString().slice(0, 10)
  return streamedFile(`${tune ? 'tune' : 'heron'}-${day}.heron.zip`, request.signal, 'backup', {
    book: db.$client.name,
    asked: { history: asked.has('history'), ...(tune ? { tunes: [tune] } : {}) },
  })
}
