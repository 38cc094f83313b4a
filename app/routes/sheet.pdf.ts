import { layoutsOf } from '../../db/layouts'
import { readPlayer } from '../../db/player'
import { readTune } from '../../db/tunes'
import { database } from '../database.server'
import { layoutAsked } from '../features/paper/asked'
import { tooMuchToDraw } from '../features/paper/bound.server'
import { madeOr, pdfAnswer, refusedFile } from '../features/paper/answers.server'
import { sheetPages, tuneAsked } from '../features/paper/sheetPages.server'
import { numeralsFromCookies } from '../services/notation/numerals'
import { inWorker } from '../services/workers/pool.server'
import type { Route } from './+types/sheet.pdf'

/** A tune's sheet as a PDF: `layout` names a layout of every tune or one the tune keeps; the other words of the address change it. */
export async function loader({ params, request }: Route.LoaderArgs) {
  const state = readTune(database(), params.tuneId)
  if (!state) return refusedFile('This tune is not in the songbook.')
  const asked = new URL(request.url).searchParams
  const { layout } = layoutAsked(asked, layoutsOf(database(), params.tuneId))
  const document = tuneAsked(state.document, {
    version: asked.get('version') || null,
    key: null,
    tempo: null,
  })
  if (!document) return refusedFile('This version is not kept with the tune any more.')
  const tooLong = tooMuchToDraw(document)
  if (tooLong !== null) return refusedFile(tooLong, 422)
  return madeOr(async () => {
    const { signal } = request
    const sheet = await sheetPages(document, {
      layout,
      player: readPlayer(database()),
      school: numeralsFromCookies(request.headers.get('cookie')),
      fill: true,
      signal,
    })
    return pdfAnswer(
      await inWorker('pdf', { title: document.title, sheets: [sheet] }, { signal }),
      document.title,
    )
  })
}
