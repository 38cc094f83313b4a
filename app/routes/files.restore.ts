import { createWriteStream, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { z } from 'zod'
import { BackupFault } from '../../core/backup/format'
import { bringIn } from '../../db/backup/restore'
import { faultInWords } from '../../db/connect'
import { database } from '../database.server'
import { refusedFile } from '../features/paper/answers.server'
import { runJob } from '../services/workers/pool.server'
import { because, streamLines } from '../services/forms/ndjson.server'
import type { Route } from './+types/files.restore'

const query = z.object({
  different: z.enum(['beside', 'leave']).catch('beside'),
  player: z.enum(['keep', 'take']).catch('keep'),
})

/**
 * Brings in a backup that is sent as the body. The answer tells line by line (NDJSON) how far it
 * is, and at last what came of it.
 */
export async function action({ request }: Route.ActionArgs) {
  if (!request.body) return refusedFile('There is no file in this request.', 400)
  const asked = query.parse(Object.fromEntries(new URL(request.url).searchParams))
  const db = database()
  const folder = mkdtempSync(join(tmpdir(), 'heron-restore-'))
  const file = join(folder, 'backup.zip')
  const tidy = () => rmSync(folder, { recursive: true, force: true })
  try {
    await pipeline(Readable.fromWeb(request.body as never), createWriteStream(file))
  } catch (error) {
    tidy()
    return refusedFile(
      `The file did not come whole: ${error instanceof Error ? error.message : String(error)}`,
      400,
    )
  }
  let told = 0
  return streamLines(
    async (tell, signal) => {
      try {
        const { fault } = await runJob(
          'lookThrough',
          { file },
          { signal, mostMs: MOST_MS, onProgress: (done, of) => tell({ done, of: 2 * of }) },
        )
        if (fault !== null) return tell({ fault })
        const restored = await bringIn(db, file, {
          ...asked,
          signal,
          onDone: (done, of) => {
            if (Date.now() - told < TOLD_EVERY_MS) return
            told = Date.now()
            tell({ done, of })
          },
        })
        tell({ restored })
      } finally {
        tidy()
      }
    },
    (error) =>
      error instanceof BackupFault
        ? error.message
        : (faultInWords(error) ?? because('The backup could not be brought in', error)),
  )
}
const TOLD_EVERY_MS = 100
/**
 * The longest that a backup is looked through, in ms: of the largest that is taken, 8 GB, at 10 MB
 * a second.
 */
const MOST_MS = 15 * 60_000
