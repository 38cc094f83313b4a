import { data } from 'react-router'
import { z } from 'zod'
import { changePlayer, forgetLiking, readPlayer } from '../../db/player'
import { withBook } from '../database.server'
import { playerChange } from '../../core/player/playerSettings'
import { refusalInWords } from '../../core/refusal'
import type { Route } from './+types/player.edits'

/** Some settings, or a rule whose count is forgotten. */
const request = z.union([
  z.strictObject({ change: playerChange }),
  z.strictObject({ forget: z.string().min(1).max(40) }),
])

/** 200 with the settings as they are kept now; 400 or 503 with a message. */
export async function action({ request: sent }: Route.ActionArgs) {
  const body: unknown = await sent.json().catch(() => null)
  const wanted = request.safeParse(body)
  if (!wanted.success) {
    const change = playerChange.safeParse((body as { change?: unknown } | null)?.change)
    return data(
      {
        message: `This setting could not be read: ${refusalInWords(change.error ?? wanted.error, (body as { change?: unknown } | null)?.change)}`,
      },
      400,
    )
  }
  return withBook((db) => {
    if ('change' in wanted.data) {
      const outcome = changePlayer(db, wanted.data.change)
      return 'refused' in outcome ? data({ message: outcome.refused }, 400) : { settings: outcome.kept }
    }
    forgetLiking(db, wanted.data.forget === 'all' ? undefined : wanted.data.forget)
    return { settings: readPlayer(db) }
  })
}
