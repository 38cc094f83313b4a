import { data } from 'react-router'
import { z } from 'zod'
import { countLiking } from '../../db/player'
import { copyTune, editTune, readTune, stepHistory, type WriteOutcome } from '../../db/tunes'
import { database, withBook } from '../database.server'
import { refusalInWords } from '../../core/refusal'
import type { Route } from './+types/tune.edits'
import { tuneEdit } from '../../core/tune/tuneEdit'

/**
 * What a tab sends: one edit, one step of history, or its edits to be kept as a copy. With the
 * revision it saw, and an id by which a repetition is known.
 */
const of = { id: z.uuid().optional(), base: z.uuid() }
/** Edits that can wait in one tab. */
const MOST_WAITING = 10_000
export const writeRequest = z.union([
  z.strictObject({ ...of, edit: tuneEdit }),
  z.strictObject({ ...of, step: z.enum(['undo', 'redo']) }),
  z.strictObject({ ...of, copy: z.array(tuneEdit).max(MOST_WAITING) }),
])

export function loader({ params }: Route.LoaderArgs) {
  return readTune(database(), params.tuneId) ?? missing()
}

/**
 * 200 with the new state; 409 with the present state when another tab wrote first; 400, 404 or 503
 * with a message.
 */
export async function action({ request, params }: Route.ActionArgs) {
  const body: unknown = await request.json().catch(() => null)
  const wanted = writeRequest.safeParse(body)
  if (!wanted.success)
    return data(
      { message: `This change could not be read: ${refusalInWords(refined(wanted.error, body), body)}` },
      400,
    )
  return withBook((db) => {
    const write = wanted.data
    if ('copy' in write) {
      const outcome = copyTune(db, params.tuneId, { id: write.id, base: write.base, edits: write.copy })
      if (outcome.kind === 'copied') return { copied: outcome.id }
      if (outcome.kind === 'refused') return data({ message: outcome.message }, 400)
      return missing()
    }
    const outcome: WriteOutcome =
      'edit' in write
        ? editTune(db, params.tuneId, write, write.edit)
        : stepHistory(db, params.tuneId, write, write.step)
    switch (outcome.kind) {
      case 'written':
        if (
          'edit' in write &&
          write.edit.kind === 'choose' &&
          write.edit.choice &&
          !write.edit.choice.by &&
          write.edit.choice.rule !== 'plain'
        )
          countLiking(db, write.edit.choice.rule)
        return outcome.state
      case 'repeated':
        return { ...outcome.state, made: outcome.made }
      case 'conflict':
        return data(outcome.state, 409)
      case 'refused':
        return data({ message: outcome.message }, 400)
      case 'missing':
        return missing()
    }
  })
}

/** Of the three kinds of request, the troubles of the one that was meant. */
function refined(error: z.ZodError, body: unknown): z.ZodError {
  const kind =
    body !== null && typeof body === 'object'
      ? ['edit', 'step', 'copy'].findIndex((name) => name in body)
      : -1
  const issue = error.issues[0]
  const inner = issue?.code === 'invalid_union' && kind >= 0 ? issue.errors[kind] : undefined
  return inner?.length ? ({ ...error, issues: inner } as unknown as z.ZodError) : error
}

const missing = () =>
  data(
    {
      message:
        'This tune is not in the songbook; it may have been deleted in another tab. Bring it back there (Songbook, Deleted tunes), and this is saved.',
    },
    404,
  )
