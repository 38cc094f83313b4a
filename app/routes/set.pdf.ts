import { isTemplate, TEMPLATES } from '../../core/sheet/sheetLayout'
import { readPlayer } from '../../db/player'
import { database } from '../database.server'
import { pdfAnswer, refusedFile } from '../features/paper/answers.server'
import { ownChoice, ownNameOf } from '../features/paper/ownLayouts'
import { TooMuch } from '../features/paper/bound.server'
import { FIRST_LAYOUT } from '../features/paper/sheetAddress'
import { setPdf } from '../features/sets/setSheets.server'
import { keepPrinted, printedLately } from '../features/paper/printed.server'
import { because, streamLines } from '../services/forms/ndjson.server'
import { numeralsFromCookies } from '../services/notation/numeralCookie'
import { WorkEnded } from '../services/workers/pool.server'
import type { Route } from './+types/set.pdf'

/**
 * A set as one PDF. With `watch` the answer tells line by line (NDJSON) how far it is, `{done,
 * of}`, and at last `{ready}`, the address of the PDF; an answer that is not waited for ends the
 * work.
 */
export async function loader({ params, request }: Route.LoaderArgs) {
  const asked = new URL(request.url).searchParams
  const ready = printedLately(asked.get('ready') ?? '')
  if (ready) return pdfAnswer(ready.pdf, ready.name)
  const layout = asked.get('layout') ?? FIRST_LAYOUT
  const own = ownNameOf(layout)
  if (!isTemplate(layout) && own === null)
    return refusedFile(
      `There is no layout "${layout}" for sets. Accepted: ${Object.keys(TEMPLATES).join(', ')}, or ${ownChoice('NAME')} for one that its tunes keep.`,
    )
  const how = {
    layout: TEMPLATES[isTemplate(layout) ? layout : FIRST_LAYOUT].layout,
    own,
    player: readPlayer(database()),
    school: numeralsFromCookies(request.headers.get('cookie')),
  }
  if (!asked.has('watch')) {
    try {
      const made = await setPdf(database(), params.setId, { ...how, signal: request.signal })
      return made ? pdfAnswer(made.pdf, made.name) : refusedFile('This set is not there any more.')
    } catch (error) {
      if (error instanceof TooMuch) return refusedFile(error.message, 422)
      if (error instanceof WorkEnded) return refusedFile(error.message, 503)
      throw error
    }
  }
  return streamLines(
    async (tell, signal) => {
      const made = await setPdf(database(), params.setId, {
        ...how,
        signal,
        onDone: (done, of) => tell({ done, of }),
      })
      tell(made ? { ready: keepPrinted(made) } : { fault: 'This set is not there any more.' })
    },
    (error) => because('The PDF could not be made', error),
  )
}
