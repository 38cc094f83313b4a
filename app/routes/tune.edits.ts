import { data } from 'react-router'
import { z } from 'zod'
import { countLiking } from '../../db/player'
import { duplicateTune, editTune, readTune, stepHistory, type WriteOutcome } from '../../db/tunes'
import { database } from '../database.server'
import { tuneDocument, tuneEdit } from '../features/tune/document'
import type { Route } from './+types/tune.edits'

/** What a tab sends: one edit, one step of history, or its own state to be kept as a copy. Always with the revision it saw. */
const base = z.uuid()
export const writeRequest = z.union([
  z.strictObject({ base, edit: tuneEdit }),
  z.strictObject({ base, step: z.enum(['undo', 'redo']) }),
  z.strictObject({ copy: tuneDocument }),
])

export function loader({ params }: Route.LoaderArgs) {
  return readTune(database(), params.tuneId) ?? missing()
}

/** 200 with the new state; 409 with the present state when another tab wrote first; 400 or 404 with a message. */
export async function action({ request, params }: Route.ActionArgs) {
  const body: unknown = await request.json().catch(() => null)
  const wanted = writeRequest.safeParse(body)
  if (!wanted.success) {
    const issue = wanted.error.issues[0]!
    return data({ message: `This change could not be read: ${z.prettifyError(wanted.error)}`, where: issue.path.join('.') }, 400)
  }
  const write = wanted.data
  if ('copy' in write) {
    const id = duplicateTune(database(), params.tuneId, write.copy)
    return id ? { copied: id } : missing()
  }
  const outcome: WriteOutcome = 'edit' in write
    ? editTune(database(), params.tuneId, write.base, write.edit)
    : stepHistory(database(), params.tuneId, write.base, write.step)
  switch (outcome.kind) {
    case 'written':
      if ('edit' in write && write.edit.kind === 'choose' && write.edit.choice && !write.edit.choice.by && write.edit.choice.rule !== 'plain') countLiking(database(), write.edit.choice.rule)
      return outcome.state
    case 'conflict': return data(outcome.state, 409)
    case 'missing': return missing()
  }
}

const missing = () => data({ message: 'This tune is not in the songbook; it may have been deleted in another tab. Undo that there, and try again.' }, 404)
