import { z } from 'zod'
import { keepPlace } from '../../db/songbook'
import { withBook } from '../database.server'
import { ROOMS } from '../steps/rooms'
import type { Route } from './+types/tune.place'

const tunePlace = z.strictObject({
  step: z.enum(ROOMS.map(({ name }) => name)),
  slot: z
    .string()
    .regex(/^\d{1,3}:\d{1,3}(\.\d{1,6})?$/)
    .nullable(),
})

/** Keeps where a tune is left, so that it opens there. */
export async function action({ params, request }: Route.ActionArgs) {
  const place = tunePlace.safeParse(await request.json().catch(() => null))
  if (!place.success)
    return Response.json({ fault: 'This is no place in a tune. Accepted: {step, slot}.' }, { status: 400 })
  const kept = withBook((db) => keepPlace(db, params.tuneId, place.data))
  if (typeof kept !== 'boolean') return Response.json({ fault: kept.data.message }, { status: 503 })
  return new Response(null, { status: kept ? 204 : 404 })
}
