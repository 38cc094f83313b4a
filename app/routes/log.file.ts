import { toCsv } from '../../core/practice/csv'
import { everyPass } from '../../db/practice'
import { database } from '../database.server'

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
