import { z } from 'zod'
import { TEMPO_RANGE } from '../../core/chart/parseChart'
import { parseKey } from '../../core/pitch/key'
import { layoutsOf } from '../../db/layouts'
import { readPlayer } from '../../db/player'
import { readTune } from '../../db/tunes'
import { database } from '../database.server'
import { madeOr, refusedFile } from '../features/paper/answers.server'
import { tooMuchToDraw } from '../features/paper/bound.server'
import { sheetPages, tuneAsked, withGrips } from '../features/paper/sheetPages.server'
import { ownNameOf } from '../features/paper/ownLayouts'
import { isShown, SHOWN_ON_STAND, STAND_LAYOUTS, layoutOnStand } from '../features/stand/shown'
import { numeralsFromCookies } from '../services/notation/numeralCookie'
import { tuneHeard } from '../services/sound/tuneHeard'
import type { Route } from './+types/stand.pages'

/** Sides of a window on the stand, in points at the size that was chosen. */
const SIDES = [60, 3_000] as const
const side = z.coerce.number().min(SIDES[0]).max(SIDES[1])
const query = z.object({
  tune: z.uuid(),
  version: z.string().max(40).nullable().default(null),
  key: z
    .string()
    .max(6)
    .refine((text) => parseKey(text).ok, 'a key such as Bb or F#m')
    .nullable()
    .default(null),
  tempo: z.coerce.number().int().min(TEMPO_RANGE[0]).max(TEMPO_RANGE[1]).nullable().default(null),
  note: z.string().max(200).default(''),
  shown: z.union([
    z.enum(SHOWN_ON_STAND),
    z
      .string()
      .max(60)
      .refine((choice) => ownNameOf(choice) !== null, 'a kind of page, or own: and the name of a layout'),
  ]),
  width: side,
  height: side,
})

/**
 * A tune on the stand: its pages for a window upright and across, and how it is heard, so that
 * neither a turn of the tablet nor playing asks the server again.
 */
export async function loader({ request }: Route.LoaderArgs) {
  const asked = query.safeParse(Object.fromEntries(new URL(request.url).searchParams))
  if (!asked.success) return refusedFile(`This cannot be shown: ${z.prettifyError(asked.error)}`, 400)
  const { tune, shown, width, height, note, ...how } = asked.data
  const state = readTune(database(), tune)
  if (!state) return refusedFile('This tune is not in the songbook any more.')
  const player = readPlayer(database())
  const document = tuneAsked(state.document, how) ?? tuneAsked(state.document, { ...how, version: null })!
  const tooLong = tooMuchToDraw(document)
  if (tooLong !== null) return refusedFile(tooLong, 422)
  const own = ownNameOf(shown)
  const kept = own === null ? undefined : layoutsOf(database(), tune).find(({ name }) => name === own)
  const layout = kept ? layoutOnStand(kept.layout) : STAND_LAYOUTS[isShown(shown) ? shown : 'grips'].layout
  const school = numeralsFromCookies(request.headers.get('cookie'))
  // Looked for once, for both ways of the window and for what is heard.
  return madeOr(async () => {
    const whole = await withGrips(document, player, request.signal)
    const pages = async (window: { width: number; height: number }) =>
      (await sheetPages(whole, { layout, player, school, fill: false, note, window, signal: request.signal }))
        .pages
    return Response.json({
      title: document.title,
      pages: await pages({ width, height }),
      turned: await pages({ width: height, height: width }),
      heard: tuneHeard(whole, player),
    })
  })
}
