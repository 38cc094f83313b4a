import { randomUUID } from 'node:crypto'
import { z } from 'zod'
import { fromCsv, toCsv } from '../../core/practice/csv'
import { everyPass, keepPasses } from '../../db/practice'
import { database, withBook } from '../database.server'
import { refusedFile } from '../features/paper/answers.server'
import type { Route } from './+types/log.file'

/** The whole log as CSV. */
export function loader() {
  const csv = toCsv(everyPass(database()).map(({ day: _, deletedAt: __, ...pass }) => pass))
  return new Response(csv, {
    headers: {
      'Content-Type': 'text/csv; charset=utf-8',
      'Content-Disposition': 'attachment; filename="practice-log.csv"',
    },
  })
}

const firstLine = z.coerce.number().int().min(2).max(10_000_000).catch(2)

/** A piece of a log, as CSV: what was new of it, and what could not be read. */
export async function action({ request }: Route.ActionArgs) {
  const first = firstLine.parse(new URL(request.url).searchParams.get('line'))
  const { passes, problems } = fromCsv(await request.text(), randomUUID, first)
  const kept = withBook((db) => keepPasses(db, passes))
  return typeof kept === 'number' ? Response.json({ kept, problems }) : refusedFile(kept.data.message, 503)
}
