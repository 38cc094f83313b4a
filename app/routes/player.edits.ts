import { data } from 'react-router'
import { z } from 'zod'
import { forgetLiking, keepPlayer } from '../../db/player'
import { database } from '../database.server'
import { playerSettings } from '../features/player/settings'
import type { Route } from './+types/player.edits'

/** Some settings, or a rule whose count is forgotten. */
const request = z.union([
  z.strictObject({ change: playerSettings.partial() }),
  z.strictObject({ forget: z.string().min(1).max(40) }),
])

export async function action({ request: sent }: Route.ActionArgs) {
  const wanted = request.safeParse(await sent.json().catch(() => null))
  if (!wanted.success) return data({ message: `This setting could not be read: ${z.prettifyError(wanted.error)}` }, 400)
  if ('change' in wanted.data) keepPlayer(database(), wanted.data.change as Parameters<typeof keepPlayer>[1])
  else forgetLiking(database(), wanted.data.forget === 'all' ? undefined : wanted.data.forget)
  return { kept: true }
}
