import { z } from 'zod'
import { applyEdit } from '../../core/tune/tuneEdit'
import { newDocument } from '../../core/tune/document'
import { createTune } from '../../db/tunes'
import { withBook } from '../database.server'
import { runJob, WorkEnded } from '../services/workers/pool.server'
import type { Route } from './+types/files.tunes'

/**
 * The longest that is read of a file, in ms: a songbook of two thousand tunes takes a third of it.
 */
const MOST_MS = 20_000

const fileName = z.string().min(1).max(300)

/** Puts the tunes of one file, sent as the body, into the songbook. */
export async function action({ request }: Route.ActionArgs) {
  const name = fileName.safeParse(new URL(request.url).searchParams.get('name'))
  if (!name.success) return Response.json({ fault: 'The name of the file is missing.' }, { status: 400 })
  const bytes = new Uint8Array(await request.arrayBuffer())
  const read = await runJob(
    'tunesIn',
    { name: name.data, bytes },
    { signal: request.signal, mostMs: MOST_MS, handed: [bytes.buffer] },
  ).catch((error: unknown) => {
    if (error instanceof WorkEnded) return error
    throw error
  })
  if (read instanceof WorkEnded)
    return Response.json(
      { fault: `${name.data}: ${read.message} Nothing of it was brought in.` },
      { status: 422 },
    )
  if (!read.ok)
    return Response.json(
      { fault: `${read.fault.message} Accepted: ${read.fault.accepted}.` },
      { status: 400 },
    )
  const { tunes, refused } = read.value
  const made: { id: string; title: string; warnings: string[] }[] = []
  // One after the other, so that others are answered between them.
  for (const { title, text, melody, lyrics, grips = [], warnings } of tunes) {
    const id = withBook((db) =>
      createTune(
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
    )
    if (typeof id !== 'string')
      return Response.json(
        {
          fault: `${id.data.message}${made.length > 0 ? ` ${made.length} tunes were brought in before.` : ''}`,
        },
        { status: 503 },
      )
    made.push({ id, title, warnings })
    await new Promise((goOn) => setImmediate(goOn))
    if (request.signal.aborted) break
  }
  return Response.json({ tunes: made, refused })
}
