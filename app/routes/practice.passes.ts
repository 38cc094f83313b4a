import { data } from 'react-router'
import { z } from 'zod'
import { ITEM_KINDS } from '../../core/practice/grade'
import { correction, loggedPass, MOST_NAME } from '../../core/practice/passSchema'
import { TEMPO_RANGE } from '../../core/chart/parseChart'
import { refusalInWords } from '../../core/refusal'
import { correctPass, keepPasses, putPassBack, setGoal, takePassOut } from '../../db/practice'
import type { Db } from '../../db/connect'
import { readTune } from '../../db/tunes'
import { withBook } from '../database.server'
import type { Route } from './+types/practice.passes'

/** Passes that can wait in one page. */
const MOST_WAITING = 1_000

/** What a page tells the log. Passes carry their ids: what was sent before counts once. */
export const practiceRequest = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('keep'), passes: z.array(loggedPass).min(1).max(MOST_WAITING) }),
  z.strictObject({ do: z.literal('correct'), id: z.uuid(), set: correction }),
  z.strictObject({ do: z.literal('take out'), id: z.uuid() }),
  z.strictObject({ do: z.literal('put back'), id: z.uuid() }),
  z.strictObject({
    do: z.literal('goal'),
    tuneId: z.uuid(),
    kind: z.enum(ITEM_KINDS),
    item: z.string().min(1).max(MOST_NAME),
    tempo: z.number().min(TEMPO_RANGE[0]).max(TEMPO_RANGE[1]).nullable(),
    wanted: z.boolean(),
  }),
])
export type PracticeRequest = z.infer<typeof practiceRequest>

/** 200 when it is on the disk; 400, 404 or 503 with a message. */
export async function action({ request }: Route.ActionArgs) {
  const body: unknown = await request.json().catch(() => null)
  const wanted = practiceRequest.safeParse(body)
  if (!wanted.success)
    return data({ message: `The log could not read this: ${refusalInWords(wanted.error, body)}` }, 400)
  return withBook((db) => done(db, wanted.data))
}

function done(db: Db, wanted: PracticeRequest) {
  switch (wanted.do) {
    case 'keep':
      return { kept: keepPasses(db, wanted.passes) }
    case 'correct':
      return correctPass(db, wanted.id, wanted.set) ? { kept: 1 } : gone()
    case 'take out':
      return takePassOut(db, wanted.id) ? { kept: 1 } : gone()
    case 'put back':
      return putPassBack(db, wanted.id) ? { kept: 1 } : gone()
    case 'goal': {
      const { tuneId, kind, item, tempo, wanted: isWanted } = wanted
      if (!readTune(db, tuneId)) return data({ message: 'This tune is not in the songbook any more.' }, 404)
      setGoal(db, tuneId, { kind, item, tempo, wanted: isWanted })
      return { kept: 1 }
    }
  }
}

const gone = () => data({ message: 'This pass is not in the log any more.' }, 404)
