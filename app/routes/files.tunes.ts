import { z } from 'zod'
import { importFile } from '../../core/formats/importFile'
import { applyEdit } from '../../core/tune/edit'
import { newDocument } from '../../core/tune/document'
import { createTune } from '../../db/tunes'
import { withBook } from '../database.server'
import type { Route } from './+types/files.tunes'

const fileName = z.string().min(1).max(300)

/** Puts the tunes of one file, sent as the body, into the songbook. */
export async function action({ request }: Route.ActionArgs) {
  const name = fileName.safeParse(new URL(request.url).searchParams.get('name'))
  if (!name.success) return Response.json({ fault: 'The name of the file is missing.' }, { status: 400 })
  const read = importFile(name.data, new Uint8Array(await request.arrayBuffer()))
  if (!read.ok)
    return Response.json(
      { fault: `${read.fault.message} Accepted: ${read.fault.accepted}.` },
      { status: 400 },
    )
  const { tunes, refused } = read.value
  const made = withBook((db) =>
    tunes.map(({ title, text, melody, lyrics, grips = [], warnings }) => ({
      id: createTune(
        db,
        applyEdit(newDocument(title, text), {
          kind: 'bring-in',
          text,
          melody,
          lyrics,
          drawn: grips,
          did: 'brought in',
        }),
      ),
      title,
      warnings,
    })),
  )
  return Array.isArray(made)
    ? Response.json({ tunes: made, refused })
    : Response.json({ fault: made.data.message }, { status: 503 })
}
