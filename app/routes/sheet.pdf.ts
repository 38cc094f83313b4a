import { layoutsOf } from '../../db/layouts'
import { readPlayer } from '../../db/player'
import { readTune } from '../../db/tunes'
import { database } from '../database.server'
import { layoutAsked } from '../features/paper/sheetAddress'
import { tooMuchToDraw } from '../features/paper/bound.server'
import { madeOr, pdfAnswer, refusedFile } from '../features/paper/answers.server'
import { keepPrinted, printedLately } from '../features/paper/printed.server'
import { sheetPages, tuneAsked } from '../features/paper/sheetPages.server'
import { because, streamLines } from '../services/forms/ndjson.server'
import { numeralsFromCookies } from '../services/notation/numeralCookie'
import { runJob } from '../services/workers/pool.server'
import type { Route } from './+types/sheet.pdf'

/**
 * With `watch` the answer tells line by line (NDJSON) how far it is, and at last `{ready}`, the
 * word by which the PDF is fetched. A tune's sheet as a PDF: `layout` names a layout of every tune
 * or one the tune keeps; the other words of the address change it.
 */
export async function loader({ params, request }: Route.LoaderArgs) {
  const ready = printedLately(new URL(request.url).searchParams.get('ready') ?? '')
  if (ready) return pdfAnswer(ready.pdf, ready.name)
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
  const made = async (signal: AbortSignal, tell: (done: number, of: number) => void) => {
    const sheet = await sheetPages(document, {
      layout,
      player: readPlayer(database()),
      school: numeralsFromCookies(request.headers.get('cookie')),
      fill: true,
      signal,
    })
    // Half of the way is drawing the pages.
    const of = 2 * sheet.pages.length
    tell(sheet.pages.length, of)
    const pdf = await runJob(
      'pdf',
      { title: document.title, sheets: [sheet] },
      { signal, onProgress: (done) => tell(sheet.pages.length + done, of) },
    )
    return { pdf, name: document.title }
  }
  if (!asked.has('watch'))
    return madeOr(async () => pdfAnswer((await made(request.signal, () => {})).pdf, document.title))
  return streamLines(
    async (tell, signal) => {
      tell({ done: 0, of: 1 })
      tell({ ready: keepPrinted(await made(signal, (done, of) => tell({ done, of }))) })
    },
    (error) => because('The PDF could not be made', error),
  )
}
